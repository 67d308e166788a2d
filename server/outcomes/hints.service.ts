import { causeHints } from '../../core/outcomes/causeHints'
import { causes, evidenceTable } from '../../core/outcomes/causeTable'
import { evidenceOf, evidenceWords, type EvidenceAsked, type EvidenceLoss, type EvidenceLot } from '../../core/outcomes/evidenceOf'
import type { HintsView } from '../../core/outcomes/outcomeViews'
import { graveSigns, type Sign } from '../../core/rounds/rounds.schema'
import { daysBetween } from '../../core/time/daysBetween'
import type { FactsService } from '../facts/facts.service'
import { Problem } from '../http/problem'
import type { LevelsService } from '../rounds/levels.service'
import type { LossBooks, LossBooksService, StandingLoss } from './lossBooks'
import type { OutcomesStore } from './outcomes.store'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
const [lossDays, weekDays, onceHours, readHours] = [14, 7, 48, 48]
/** Newcomers of 3 to 14 days before the first death; moves of 3 days before it. */
const [newFromDays, newToDays, movedDays] = [14, 3, 3]

interface Collaborators {
  books: LossBooksService
  store: OutcomesStore
  facts: FactsService
  levels: Pick<LevelsService, 'all'>
  contactsOf: (waterId: string, fromMs: number, toMs: number) => boolean
}

/** What losses look like in the record: evidence gathered, never a diagnosis. */
export function createHintsService({ books, store, facts, levels, contactsOf }: Collaborators) {
  /** Hints about what was lost in some tanks of one water; of the tanks themselves where nothing was. */
  function ofTanks(tankIds: readonly string[], waterId: string, nowMs: number): HintsView {
    const read = books.at(nowMs)
    const losses = read.losses.filter(({ fromId, atMs }) => tankIds.includes(fromId) && atMs >= nowMs - lossDays * dayMs && atMs <= nowMs)
    const evidence = evidenceOf(gather(read, tankIds, waterId, losses, nowMs), read.rules)
    const { hints, lookNext } = causeHints({ evidence, limits: read.rules })
    const worded = (name: string): string => (name.startsWith('not ') ? `not ${evidenceWords[name.slice(4)] ?? name}` : (evidenceWords[name] ?? name))
    return {
      hints: hints.map((hint) => ({ cause: causes[hint.cause], word: hint.word, for: hint.for.map(worded), against: hint.against.map(worded) })),
      lookNext: lookNext.map((name) => evidenceTable[name].look),
      lost: losses.reduce((sum, { quantity }) => sum + quantity, 0),
    }
  }

  function gather(read: LossBooks, tankIds: readonly string[], waterId: string, losses: readonly StandingLoss[], nowMs: number): EvidenceAsked {
    const all = [...levels.all(nowMs).values()]
    const [here, onWater] = [all.filter(({ tank }) => tankIds.includes(tank.tankId)), all.filter(({ tank }) => tank.water.id === waterId)]
    const lotIds = losses.length > 0 ? [...new Set(losses.map(({ lotId }) => lotId))] : [...new Set(here.flatMap(({ tank }) => tank.lots.map(({ lotId }) => lotId)))]
    const weekAgoMs = nowMs - weekDays * dayMs
    const recent = read.losses.filter(({ atMs }) => atMs >= weekAgoMs && atMs <= nowMs)
    const [first] = [...losses].sort((a, b) => a.atMs - b.atMs)
    const sinceMs = nowMs - lossDays * dayMs
    const looks = store.looksAt(tankIds, sinceMs)
    const signs = store.signsAt(tankIds, sinceMs)
    return {
      lots: lotsOf(read, lotIds),
      losses: losses.map((loss): EvidenceLoss => ({ day: dayOf(read, loss), hoursAgo: (nowMs - loss.atMs) / hourMs, cause: loss.cause, fish: loss.quantity })),
      signs: signs.map(({ sign, atMs }) => ({ sign, hoursAgo: (nowMs - atMs) / hourMs })),
      looks: looks.map(({ ate, atMs }) => ({ ate, hoursAgo: (nowMs - atMs) / hourMs })),
      otherLotsHere: losses.length === 0 ? null : otherLots(here, lotIds, recent, tankIds),
      otherTanksHere: otherTanks(onWater.filter(({ tank }) => !tankIds.includes(tank.tankId) && tank.lots.length > 0), recent, weekAgoMs),
      sameCrateElsewhere: sameCrate(read, lotIds, waterId, recent),
      isAllAtOnce: allAtOnce(read, waterId, losses, onWater),
      readingOff: readingOff(onWater),
      newcomers: first ? cameIn(read, waterId, first.on, lotIds) || contactsOf(waterId, first.atMs - newFromDays * dayMs, first.atMs - newToDays * dayMs) : null,
      movedLately: first ? read.movements.some(({ kind, lot, from, seq, on }) => kind === 'move' && read.tanks.has(from) && lotIds.includes(lot) && seq < first.seq && daysBetween(on, first.on) <= movedDays && daysBetween(on, first.on) >= 0) : null,
    }
  }

  function lotsOf(read: LossBooks, lotIds: readonly string[]): EvidenceLot[] {
    const described = new Map(read.lots().map((lot) => [lot.lot, lot]))
    const begun = new Map(store.begunOf(lotIds).map((run) => [run.lotId, run]))
    return lotIds.map((lotId): EvidenceLot => {
      const [lot, row, run] = [described.get(lotId), read.rows.get(lotId), begun.get(lotId)]
      return {
        deadInBag: lot && row?.crateId != null ? lot.deadInBag : null,
        transitHours: lot?.transitHours ?? null,
        isWeak: lot && row?.crateId != null ? lot.condition === 'weak' : null,
        run: run && run.predicted !== null && run.binds !== null ? { worst: run.predicted, binds: run.binds, hasBinder: run.hasBinder === 1 } : null,
      }
    })
  }

  return {
    /** Hints about a tank, as its page and the form of a loss show them. */
    ofTank(code: string, nowMs: number): HintsView {
      const tank = facts.inUse(nowMs).find((each) => each.code === code)
      if (!tank) throw new Problem('not-found', 'There is no such tank')
      return ofTanks([tank.tankId], tank.water.id, nowMs)
    },
    /** Hints about all tanks of a water. */
    ofWater: (waterId: string, nowMs: number): HintsView => ofTanks(facts.inUse(nowMs).filter(({ water }) => water.id === waterId).map(({ tankId }) => tankId), waterId, nowMs),
  }
}
export type HintsService = ReturnType<typeof createHintsService>
type Judged = ReturnType<LevelsService['all']> extends ReadonlyMap<string, infer One> ? One : never

const dayOf = ({ risks }: LossBooks, { lotId, on }: StandingLoss): number | null => {
  const opened = risks.get(lotId)?.opened
  return opened === undefined ? null : Math.max(0, daysBetween(opened, on))
}
const isGrave = (sign: string): boolean => graveSigns.includes(sign as Sign)

/** Losses or grave signs of other lots in the tank: several lots that lost fish are others to each other. Null where there are none. */
function otherLots(here: readonly Judged[], lotIds: readonly string[], recent: readonly StandingLoss[], tankIds: readonly string[]): boolean | null {
  const others = recent.some(({ lotId, fromId }) => tankIds.includes(fromId) && !lotIds.includes(lotId))
  const standing = here.flatMap(({ tank }) => tank.lots).filter(({ lotId }) => !lotIds.includes(lotId))
  if (!others && standing.length === 0) return lotIds.length > 1 ? true : null
  const grave = here.some(({ tank }) => tank.looks.some(({ marks }) => marks.some(({ sign, lotId }) => lotId !== null && !lotIds.includes(lotId) && isGrave(sign))))
  return others || grave || lotIds.length > 1
}

function otherTanks(others: readonly Judged[], recent: readonly StandingLoss[], weekAgoMs: number): boolean | null {
  if (others.length === 0) return null
  const ids = new Set(others.map(({ tank }) => tank.tankId))
  return recent.some(({ fromId }) => ids.has(fromId)) || others.some(({ tank }) => tank.looks.some(({ signs, atMs }) => atMs >= weekAgoMs && signs.some(isGrave)))
}

/** Losses of fish of the same crate in other waters; null where none of them stand or died elsewhere. */
function sameCrate({ rows, losses, movements, tanks }: LossBooks, lotIds: readonly string[], waterId: string, recent: readonly StandingLoss[]): boolean | null {
  const crates = new Set(lotIds.flatMap((lotId) => rows.get(lotId)?.crateId ?? []))
  const isElsewhere = ({ lotId, placeId }: { lotId: string; placeId: string }): boolean => {
    const [crateId, water] = [rows.get(lotId)?.crateId ?? null, tanks.get(placeId)?.waterId]
    return crateId !== null && crates.has(crateId) && water !== undefined && water !== waterId
  }
  if (recent.some(({ lotId, fromId }) => isElsewhere({ lotId, placeId: fromId }))) return true
  const wasElsewhere = movements.some(({ lot, to }) => isElsewhere({ lotId: lot, placeId: to })) || losses.some(({ lotId, fromId }) => isElsewhere({ lotId, placeId: fromId }))
  return wasElsewhere ? false : null
}

/** Three species, or all of several lots of the water, lost fish within two days. */
function allAtOnce({ losses, tanks, rows }: LossBooks, waterId: string, own: readonly StandingLoss[], onWater: readonly Judged[]): boolean {
  const inWater = losses.filter(({ fromId, atMs }) => tanks.get(fromId)?.waterId === waterId && own.some((loss) => Math.abs(loss.atMs - atMs) <= onceHours * hourMs))
  const lots = new Set([...inWater.map(({ lotId }) => lotId), ...onWater.flatMap(({ tank }) => tank.lots.map(({ lotId }) => lotId))])
  return own.some(({ atMs }) => {
    const together = inWater.filter((each) => each.atMs >= atMs && each.atMs <= atMs + onceHours * hourMs)
    const dead = new Set(together.map(({ lotId }) => lotId))
    return new Set(together.map(({ lotId }) => rows.get(lotId)?.species)).size >= 3 || (lots.size >= 2 && dead.size === lots.size)
  })
}

function readingOff(onWater: readonly Judged[]): boolean | null {
  const isRead = onWater.some(({ asked }) => (asked.readings ?? []).some(({ hoursAgo }) => hoursAgo <= readHours))
  return isRead ? onWater.some(({ level }) => level.reasons.some(({ why }) => why === 'reading')) : null
}

/** Other fish than these came into the water from outside of it in the two weeks before. */
function cameIn({ movements, tanks }: LossBooks, waterId: string, firstOn: string, lotIds: readonly string[]): boolean {
  return movements.some(({ lot, from, to, on }) => !lotIds.includes(lot) && tanks.get(to)?.waterId === waterId && tanks.get(from)?.waterId !== waterId && daysBetween(on, firstOn) >= newToDays && daysBetween(on, firstOn) <= newFromDays)
}
