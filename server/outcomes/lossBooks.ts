import { groupBy } from '../../core/collections/groupBy'
import type { BagFindings } from '../../core/crates/crateView'
import { countLot, plainStep, strongStep, triageBag } from '../../core/crates/triage'
import { nameOfSchool, type SchoolVariant } from '../../core/acclimation/schools'
import { shippedPolicies } from '../../core/holds/shippedHolds'
import type { Limits } from '../../core/limits/houseLimits'
import { outcomeRulesOf } from '../../core/limits/outcomeLimits'
import { lossPatterns, type LossPattern } from '../../core/outcomes/lossPattern'
import { mixedSchools, wentAlive, type OutcomeExit, type OutcomeLot } from '../../core/outcomes/outcomeLot'
import type { OutcomeRules } from '../../core/outcomes/outcomeRules'
import { riskSets, type LossLot, type LossMovement, type RiskLot } from '../../core/outcomes/riskSets'
import { daysBetween } from '../../core/time/daysBetween'
import { writtenDay, zoneDays } from '../../core/time/zoneDays'
import { createDeathsSeen } from './deathsSeen'
import type { BagRow, LotRow, MovementRow, OutcomesStore } from './outcomes.store'

const [minuteMs, hourMs] = [60_000, 3_600_000]
/** So many movements are read at once. */
const slice = 50_000

/** An outbreak as deaths are marked with it: those of one water, from a day to a day. */
export interface MarkedOutbreak {
  name: string
  waterId: string
  from: string
  to: string
}

/** Everything figures are made of, as it stood at a moment. */
export interface LossBooks {
  /** Calendar day in the room. */
  today: string
  rules: OutcomeRules
  /** Lots as counting time has them, their deaths told apart by cause. */
  risks: ReadonlyMap<string, RiskLot>
  rows: ReadonlyMap<string, LotRow>
  notFollowed: number
  /** All standing movements. */
  movements: LossMovement[]
  /** Standing losses in the order of the books, with the day they fell on. */
  losses: StandingLoss[]
  tanks: ReadonlyMap<string, ReturnType<OutcomesStore['tanks']>[number]>
  /** The pattern of each loss by movement: what was seen before it. */
  patterns(): ReadonlyMap<string, LossPattern>
  /** Lots with all they are told by, their deaths told apart by pattern. Asked for by few screens, and reckoned when asked. */
  lots(): OutcomeLot[]
}

export interface StandingLoss extends MovementRow {
  on: string
}

interface Collaborators {
  store: OutcomesStore
  limits: () => Limits
  zone: () => string
  outbreaks: () => readonly MarkedOutbreak[]
}

/** Reads the books as figures need them; kept until fish move or what they are called changes, or the day turns. */
export function createLossBooks({ store, limits, zone, outbreaks }: Collaborators) {
  // The ledger is only added to: what was read of it stays read.
  const ledger: MovementRow[] = []
  const deaths = createDeathsSeen(store)
  let known: { version: string; today: string; books: LossBooks } | null = null
  let settledBy = ''

  function readOn(): MovementRow[] {
    for (;;) {
      const more = store.movementsAfter(ledger.at(-1)?.seq ?? 0, slice)
      ledger.push(...more)
      if (more.length < slice) return ledger
    }
  }

  function read(today: string, nowMs: number): LossBooks {
    const inForce = limits()
    const rules = outcomeRulesOf(inForce)
    if (settledBy !== JSON.stringify(rules)) {
      deaths.forget()
      settledBy = JSON.stringify(rules)
    }
    const [all, lotRows, tankRows] = [readOn(), store.lots(), store.tanks()]
    const rows = new Map(lotRows.map((row) => [row.lotId, row]))
    const tanks = new Map(tankRows.map((row) => [row.tankId, row]))
    const dayOf = dayReader(zone())
    const born = new Set(all.filter(({ kind }) => kind === 'born').map(({ lotId }) => lotId))
    const reversed = new Set(all.flatMap(({ reversesId }) => reversesId ?? []))
    const standing = all.filter(({ id, kind }) => kind !== 'reversal' && !reversed.has(id))
    const opened = firstDays(standing, dayOf)
    const losses = standing.flatMap((row): StandingLoss[] => (row.kind === 'loss' ? [{ ...row, on: dayOf(row.atMs) }] : []))
    const movements = prepared(standing, dayOf, { shares: store.shares(), found: store.found() })
    const lots = lotRows.map((row): LossLot => ({ lot: row.lotId, crate: row.crateId, entry: row.lineId !== null ? 'crate' : born.has(row.lotId) && !row.isBeforeBooks ? 'born' : 'brought in' }))
    const counted = (patternOf: (id: string) => string) => riskSets({ today, unwatched: tankRows.filter(({ isUnwatched }) => isUnwatched).map(({ tankId }) => tankId), lots, movements: movements.map((each) => (each.kind === 'loss' ? told(each, patternOf(each.id)) : each)) })
    const causes = new Map(losses.map(({ id, cause }) => [id, cause ?? 'unknown']))
    const { lots: risks, notFollowed } = counted((id) => causes.get(id) ?? 'unknown')
    const patterns = perVersion(store.version, () => deaths.patterns(losses, ({ lotId, on }) => Math.max(0, daysBetween(opened.get(lotId) ?? on, on)), rules, nowMs))
    const described = perVersion(store.version, (): OutcomeLot[] => {
      const tell = describer({ store, limits: inForce, rows, tanks, standing, opened, dayOf })
      const events = eventsOf(losses, tanks, outbreaks(), opened)
      return counted((id) => patterns().get(id) ?? 'other').lots.map((risk) => tell(risk, events.get(risk.lot) ?? []))
    })
    return { today, rules, risks: new Map(risks.map((risk) => [risk.lot, risk])), rows, notFollowed: notFollowed.length, losses, movements, tanks, patterns, lots: described }
  }

  return {
    at(nowMs: number): LossBooks {
      const today = dayReader(zone())(nowMs)
      const version = `${store.counted()} ${JSON.stringify(outcomeRulesOf(limits()))}`
      if (known?.version !== version || known.today !== today) known = { version, today, books: read(today, nowMs) }
      return known.books
    },
  }
}
export type LossBooksService = ReturnType<typeof createLossBooks>

/** The calendar day of a moment in the room; days are written once. */
export function dayReader(zone: string): (atMs: number) => string {
  const calendar = zoneDays(zone)
  const written = new Map<number, string>()
  return (atMs) => {
    const day = calendar.dayOf(Math.floor(atMs / minuteMs))
    const word = written.get(day) ?? writtenDay(day)
    written.set(day, word)
    return word
  }
}

/** Reckons something when it is first asked for, and keeps it until something is written. */
function perVersion<T>(version: () => string, reckon: () => T): () => T {
  let kept: { version: string; value: T } | null = null
  return () => {
    if (kept?.version !== version()) kept = { version: version(), value: reckon() }
    return kept.value
  }
}

function firstDays(standing: readonly MovementRow[], dayOf: (atMs: number) => string): Map<string, string> {
  const first = new Map<string, number>()
  for (const { kind, lotId, atMs } of standing) if (kind === 'arrive' || kind === 'born') first.set(lotId, Math.min(atMs, first.get(lotId) ?? Infinity))
  return new Map([...first].map(([lotId, atMs]) => [lotId, dayOf(atMs)]))
}

/** Movements as figures take them: losses with whose fish they were taken to be, fish that came to light off their loss. */
function prepared(standing: readonly MovementRow[], dayOf: (atMs: number) => string, { shares, found }: { shares: ReturnType<OutcomesStore['shares']>; found: ReturnType<OutcomesStore['found']> }): LossMovement[] {
  const [sharesOf, back, corrected] = [groupBy(shares, ({ movementId }) => movementId), new Map<string, number>(), new Map<string, number>()]
  for (const { movementId, lossId, quantity } of found) {
    back.set(lossId, (back.get(lossId) ?? 0) + quantity)
    corrected.set(movementId, (corrected.get(movementId) ?? 0) + quantity)
  }
  return standing.flatMap(({ seq, id, kind, lotId, fromId, toId, quantity, atMs, cause }): LossMovement[] => {
    const left = quantity - (back.get(id) ?? 0) - (corrected.get(id) ?? 0)
    if (left <= 0) return []
    if (kind !== 'loss') return [{ seq, id, kind, lot: lotId, from: fromId, to: toId, quantity: left, on: dayOf(atMs) }]
    const parts = sharesOf.get(id) ?? []
    const all = parts.reduce((sum, { millionths }) => sum + millionths, 0)
    const shares = all === 0 ? [] : parts.map(({ lotId: lot, millionths }) => ({ lot, share: millionths / all }))
    return [{ seq, id, kind, lot: lotId, from: fromId, to: toId, quantity: left, on: dayOf(atMs), cause, shares }]
  })
}

/** A loss with its pattern; named one by one, since objects spread into others are read ten times as slowly. */
const told = ({ seq, id, kind, lot, from, to, quantity, on, cause, shares }: LossMovement, pattern: string): LossMovement => ({ seq, id, kind, lot, from, to, quantity, on, cause: cause ?? null, shares: shares ?? [], pattern })

interface Describing {
  store: OutcomesStore
  limits: Limits
  rows: ReadonlyMap<string, LotRow>
  tanks: LossBooks['tanks']
  standing: readonly MovementRow[]
  opened: ReadonlyMap<string, string>
  dayOf: (atMs: number) => string
}

function describer({ store, limits, rows, tanks, standing, opened, dayOf }: Describing): (risk: RiskLot, events: OutcomeLot['events']) => OutcomeLot {
  const bags = groupBy(store.bags(), ({ lotId }) => lotId)
  const begun = groupBy(store.begun(), ({ lotId }) => lotId)
  const chosen = groupBy(store.policiesChosen(), ({ lotId }) => lotId)
  const policies = new Map([...shippedPolicies, ...store.policyNames()].map(({ id, name }) => [id, name]))
  const [placed, arrived] = [new Map<string, string>(), new Map<string, number>()]
  for (const { lotId, toId, kind, atMs } of standing) {
    if (!placed.has(lotId) && tanks.has(toId)) placed.set(lotId, tanks.get(toId)?.system ?? '')
    if (kind === 'arrive') arrived.set(lotId, Math.min(atMs, arrived.get(lotId) ?? Infinity))
  }
  const crateOpened = new Map<string, number>()
  for (const { lotId, crateId } of rows.values()) if (crateId !== null && arrived.has(lotId)) crateOpened.set(crateId, Math.min(arrived.get(lotId) ?? Infinity, crateOpened.get(crateId) ?? Infinity))
  return (risk, events) => {
    const row = rows.get(risk.lot) as LotRow
    const own = bags.get(risk.lot) ?? []
    const policyId = (chosen.get(risk.lot) ?? []).findLast(({ atMs }) => daysBetween(opened.get(risk.lot) ?? risk.opened, dayOf(atMs)) <= 1)?.policyId ?? row.policyId
    const openedAtMs = row.crateId === null ? undefined : crateOpened.get(row.crateId)
    const { lot, opened: on, received, deadInBag, n, until, missing, corrected, shared } = risk
    return {
      ...{ lot, code: row.code, crate: row.crateId ?? lot, crateId: row.crateId, crateNumber: row.crateNumber, species: row.species, strain: row.strain, origin: row.lineId === null ? 'captive bred' : (row.lineOrigin ?? 'unknown'), supplier: row.supplier ?? 'Born here' },
      condition: isWeak(own, row, limits) ? 'weak' : 'sound',
      transitHours: row.packedAtMs === null || openedAtMs === undefined ? null : Math.max(0, (openedAtMs - row.packedAtMs) / hourMs),
      school: schoolOf(begun.get(risk.lot) ?? [], received - deadInBag, limits.oneSchoolFrom),
      hold: policyId === null ? null : (policies.get(policyId) ?? policyId),
      ...{ water: placed.get(risk.lot) ?? null, opened: on, received, deadInBag, n, exits: exitsOf(risk), events, until, missing, corrected, shared },
    }
  }
}

/** Weak: what was found in any bag of the line called for something else than the plan. */
function isWeak(bags: readonly BagRow[], { packedAtMs, poisons }: LotRow, limits: Limits): boolean {
  const lot = countLot(bags)
  return bags.some(({ alive, dead, concerns, body, behaviour, waterTempC, hasBinder, atMs }) => {
    const findings = { alive, dead, concerns: JSON.parse(concerns) as BagFindings['concerns'], body, behaviour, waterTempC, hasBinder: hasBinder === null ? null : hasBinder === 1 }
    const triage = triageBag({ findings: findings as Parameters<typeof triageBag>[0]['findings'], hoursInBag: packedAtMs === null ? null : (atMs - packedAtMs) / hourMs, poisons, lot }, limits)
    return triage !== null && triage.step !== plainStep && triage.step !== strongStep
  })
}

type Begun = ReturnType<OutcomesStore['begun']>[number]

/** The school that nearly all of its living fish began in: those of a bag begin once, with its first run. */
function schoolOf(begun: readonly Begun[], living: number, oneSchoolShare: number): string | null {
  const firsts = new Map<string, Begun>()
  for (const each of begun) if (!firsts.has(each.placeId)) firsts.set(each.placeId, each)
  const fish = new Map<string, number>()
  for (const { fish: many, name, variant } of firsts.values()) {
    if (name === null) continue
    const school = nameOfSchool({ name, variant: (variant ?? undefined) as SchoolVariant | undefined })
    fish.set(school, (fish.get(school) ?? 0) + many)
  }
  const [most] = [...fish].sort(([, a], [, b]) => b - a)
  if (!most || living <= 0) return null
  return most[1] >= oneSchoolShare * living ? most[0] : mixedSchools
}

function exitsOf({ out }: RiskLot): OutcomeExit[] {
  return out.flatMap(({ day, gone, kinds = {} }) => [
    ...Object.entries(kinds).map(([pattern, fish]): OutcomeExit => [day, (lossPatterns as readonly string[]).indexOf(pattern), fish]),
    ...(gone > 0 ? [[day, wentAlive, gone] as const] : []),
  ])
}

/** Days of lots whose deaths belong to an outbreak: those in its water, while it lasted. */
function eventsOf(losses: readonly StandingLoss[], tanks: LossBooks['tanks'], outbreaks: readonly MarkedOutbreak[], opened: ReadonlyMap<string, string>): Map<string, [number, string][]> {
  const events = new Map<string, [number, string][]>()
  if (outbreaks.length === 0) return events
  for (const { lotId, fromId, on } of losses) {
    const outbreak = outbreaks.find(({ waterId, from, to }) => waterId === tanks.get(fromId)?.waterId && from <= on && on <= to)
    if (!outbreak) continue
    const day = Math.max(0, daysBetween(opened.get(lotId) ?? on, on))
    events.set(lotId, [...(events.get(lotId) ?? []), [day, outbreak.name]])
  }
  return events
}
