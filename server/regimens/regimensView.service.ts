import type { DueItem } from '../../core/due/due'
import { urgencyAt } from '../../core/due/due'
import { shippedAgents } from '../../core/dosing/agents'
import { addDays } from '../../core/time/daysBetween'
import { agentsIn } from '../../core/holds/waterState'
import { groupsOfWater, waterState } from '../../core/holds/holdRoom'
import type { DosesPlan, FeedPlan, LadderPlan, SalinityPlan, TransferPlan } from '../../core/regimens/regimens.schema'
import { amountWords, courseWords, goneAfter, mgLWords, regimenTitle, salinityWords, transferWords, type NowWords } from '../../core/regimens/regimenWords'
import type { LatelyRow, LogRow, RegimenDue, RegimenSummary, RegimensView, RegimenView, TransferView, TreatedWaterView } from '../../core/regimens/regimenView'
import { salinityNow, type SalinityNow } from '../../core/regimens/salinityNow'
import { lowerFirst } from '../../core/words/lowerFirst'
import { eachApart } from '../../core/collections/eachApart'
import { dayInZone } from '../../core/time/dayInZone'
import { writtenDay } from '../../core/time/zoneDays'
import { markedUnits, showFigure, showSet } from '../../core/units/units'
import type { FactsService } from '../facts/facts.service'
import type { HoldsService } from '../holds/holds.service'
import { Problem } from '../http/problem'
import { morningIn } from '../room/dayStartIn'
import type { Courses } from './courses'
import type { Ladders } from './ladderShown'
import { isProduct, productView, toldReasons, type Offering, type Product } from './offering'
import type { RegimensStore } from './regimens.store'
import type { TransferStand } from './transferStand'
import type { TreatableWater, Treating } from './treating'

const [dayMs, minuteMs] = [86_400_000, 60_000]
/** Regimens that ended are listed for so many days, and a log goes back so far. */
const [endedDays, logDays, latelyDays] = [30, 120, 14]

type Regimen = NonNullable<ReturnType<RegimensStore['regimen']>>
/** What one kind of regimen shows, and what it asks for. */
type Shown = Pick<RegimenView, 'ladder' | 'doses' | 'feed' | 'transfer' | 'salinity'> & { now: NowWords; due: RegimenDue[] }
const nothing = { ladder: null, doses: null, feed: null, transfer: null, salinity: null }

interface Collaborators {
  store: RegimensStore
  treating: Treating
  offer: Offering
  ladders: Ladders
  facts: Pick<FactsService, 'all' | 'inUse' | 'requireTank'>
  holds: HoldsService
  waterName: (waterId: string, nowMs: number) => string
  transferStand: TransferStand
  nameOfStaff: (id: string | null) => string
  foodName: (id: string) => string
  courses: Courses
  zone: () => string
}

/** Regimens as people see them: what now, what is due, what was done. */
export function createRegimensView({ store, treating, offer, ladders, facts, holds, transferStand, waterName, nameOfStaff, foodName, courses, zone }: Collaborators) {
  const codeOf = (tankId: string, nowMs: number): string => facts.all(nowMs).get(tankId)?.code ?? 'a tank that is gone'
  const product = (id: string): Product | null => {
    const row = store.product(id)
    return row && isProduct(row) ? row : null
  }
  const due = (id: string, what: string, tankCode: string, byMs: number | null, detail: string | null = null): RegimenDue => ({ id, what, tankCode, byMs, detail })

  function ladderShown({ plan, tankId, happenedAtMs }: Regimen & { plan: LadderPlan }, nowMs: number, isWhole: boolean): Shown {
    const [of, tank, water] = [product(plan.productId), facts.requireTank(tankId, 'tankId', nowMs), treating.water(tankId, nowMs)]
    if (!of) return { ...nothing, now: { now: 'Its agent is out of use.', why: 'Setup, Agents.', isAmiss: true }, due: [] }
    const { ladder, now, readByMs } = ladders.show({ plan, product: of, water, tank, startedAtMs: happenedAtMs, nowMs }, isWhole)
    const isStep = ladder.step !== null && !['wait', 'waitEating', 'hold', 'read'].includes(ladder.step)
    return { ...nothing, ladder, now, due: [...(readByMs === null ? [] : [due('read', 'read the level', tank.code, readByMs, `with the kit for ${ladder.offer.product.kit ?? ''}`)]), ...(isStep ? [due(`step ${ladder.step}`, now.now, tank.code, null, now.why)] : [])] }
  }


  function courseShown({ id, plan, tankId, happenedAtMs }: Regimen & { plan: DosesPlan | FeedPlan }, nowMs: number): Shown {
    const tank = facts.requireTank(tankId, 'tankId', nowMs)
    const isFeed = plan.kind === 'medicated feed'
    const of = isFeed ? null : product(plan.productId)
    const what = isFeed ? `Give ${foodName(plan.foodId)}` : `Dose ${of?.name ?? 'its agent'}`
    const course = courses.stand({ id, tankId, plan, happenedAtMs }, nowMs)
    const now = courseWords(course, what)
    const dueNow = course.nextOn === null ? [] : [due(`course ${course.nextOn}`, what, tank.code, morningIn(course.nextOn, zone()))]
    const doses = of ? { ...course, offer: offer(of, tank, null, nowMs) } : null
    return { ...nothing, now, due: dueNow, ...(isFeed ? { feed: { ...course, food: foodName(plan.foodId) } } : { doses }) }
  }

  function figuresOf(tankId: string, nowMs: number): { T: number; S: number } | null {
    const tank = facts.all(nowMs).get(tankId)
    const read = (what: string): number | null => tank?.readings.find((each) => each.what === what)?.value ?? null
    const [T, S] = [read('tempC') ?? tank?.water.tempC ?? null, read('salinityPpt') ?? tank?.water.salinityPpt ?? null]
    return T === null || S === null ? null : { T, S }
  }

  function transferShown({ id, plan, happenedAtMs }: Regimen & { plan: TransferPlan }, nowMs: number): Shown {
    const { atTankId, nextTankId } = transferStand({ id, plan, happenedAtMs }, nowMs)
    const [from, to] = [figuresOf(atTankId, nowMs), nextTankId === null ? null : figuresOf(nextTankId, nowMs)]
    const at = transferStand({ id, plan, happenedAtMs }, nowMs, from && to ? { from, to } : null)
    const [atCode, nextCode] = [codeOf(at.atTankId, nowMs), at.nextTankId === null ? null : codeOf(at.nextTankId, nowMs)]
    const standing = facts.all(nowMs).get(at.atTankId)?.lots ?? []
    const transfer: TransferView = {
      ...{ served: at.served, of: plan.transfers, status: at.status, atTankId: at.atTankId, atCode, nextCode, nextTankId: at.nextTankId, problems: at.problems },
      rows: at.rows.map(({ k, due: dueMinute, from: fromId, to: toId, readyFrom, isDry }) => ({ k, dueAtMs: dueMinute * minuteMs, fromCode: codeOf(fromId, nowMs), toCode: codeOf(toId, nowMs), readyFromMs: readyFrom === null ? null : readyFrom * minuteMs, isDry })),
      toClean: at.toClean.map((each) => ({ ...each, tankCode: codeOf(each.tankId, nowMs) })),
      fish: standing.map(({ speciesId, species, noted, quantity }) => ({ speciesId, species, strain: noted.strain, quantity })),
    }
    const [next] = transfer.rows
    return {
      ...{ ...nothing, transfer, now: transferWords(at, plan.transfers, { at: atCode, next: nextCode }) },
      due: [...(next ? [due(`transfer ${next.k}`, `move on to ${next.toCode}`, next.fromCode, next.dueAtMs)] : []), ...transfer.toClean.map(({ tankId, tankCode, neededAtMs }) => due(`clean ${tankId}`, `clean and dry ${tankCode}`, tankCode, neededAtMs === null ? null : neededAtMs - plan.cleanDryH * 3_600_000))],
    }
  }

  function salinityShown({ id, plan, tankId, happenedAtMs }: Regimen & { plan: SalinityPlan }, nowMs: number): Shown {
    const [tank, water, today] = [facts.requireTank(tankId, 'tankId', nowMs), treating.water(tankId, nowMs), dayInZone(nowMs, zone())]
    if (water.volumeL === null) return { ...nothing, now: { now: 'Nobody wrote down how many litres this water has.', why: 'Setup, Tanks.', isAmiss: true }, due: [] }
    const room = holds.rooms.at(nowMs)
    const lowClocks = groupsOfWater(room, water.id).map((group) => holds.readClock(room, group)).filter(({ policy }) => holds.rules().policies.get(policy ?? '')?.agents.includes('lowSalinity'))
    const salinity: SalinityNow = salinityNow({
      ...{ plan, volumeL: water.volumeL, tempC: figuresOf(tankId, nowMs)?.T ?? null },
      readings: store.readings(water.id, 'salinityPpt', happenedAtMs - 2 * dayMs).map(({ atMs, value }) => ({ atMs, ppt: value })),
      changes: store.changes(water.id, happenedAtMs).filter(({ regimenId }) => regimenId === id),
      isHeldLow: lowClocks.length === 0 ? null : lowClocks.some(({ waitsFor, phase }) => phase !== null && waitsFor.includes('days') && holds.rules().policies.get(lowClocks[0]?.policy ?? '')?.phases.find((each) => each.id === phase)?.counts === 'atLevel'),
      ...{ timeZone: zone(), nowMs },
    })
    const [next] = salinity.stage === 'down' ? salinity.down : salinity.up
    const asks = [...(salinity.isReadFirst ? [due('read', 'read the salinity', tank.code, nowMs)] : []), ...(next && salinity.stage !== 'low' && !salinity.isReadFirst ? [due(`salinity ${next.on}`, `salinity to ${showFigure('salinity', next.to, markedUnits)}`, tank.code, morningIn(next.on, zone()))] : [])]
    // What came into the water since may not bear it; what is low already only goes up.
    const { override, reasons } = treating.ofLowSalinity(water, nowMs)
    const isRefused = override === 'nobody' && salinity.stage !== 'up' && salinity.stage !== 'house'
    const told = { ...salinity, reasons: toldReasons('lowSalinity', reasons), isRefused, down: isRefused ? [] : salinity.down }
    const now = isRefused ? { now: 'Not into this water.', why: `Low salinity: ${told.reasons[0]?.words ?? ''}. Nobody can override this.`, isAmiss: true } : salinityWords(salinity, today, plan.housePpt)
    return { ...nothing, salinity: told, now, due: isRefused ? [due('refused', 'take them out, or end it', tank.code, nowMs, now.why)] : asks }
  }

  function shown(regimen: Regimen, nowMs: number, isWhole = false): Shown {
    const { plan } = regimen
    switch (plan.kind) {
      case 'ladder':
        return ladderShown({ ...regimen, plan }, nowMs, isWhole)
      case 'transfer':
        return transferShown({ ...regimen, plan }, nowMs)
      case 'low salinity':
        return salinityShown({ ...regimen, plan }, nowMs)
      default:
        return courseShown({ ...regimen, plan }, nowMs)
    }
  }

  function summary(regimen: Regimen, { now, due: asks, transfer }: Pick<Shown, 'now' | 'due' | 'transfer'>, nowMs: number): RegimenSummary {
    const { id, kind, plan, happenedAtMs, endedAtMs, endedById, endReason } = regimen
    const named = 'productId' in plan ? (store.product(plan.productId)?.name ?? null) : null
    // Fish of a transfer stand where they were moved last.
    const tankId = transfer?.atTankId ?? regimen.tankId
    const tank = facts.all(nowMs).get(tankId)
    return {
      ...{ id, kind, title: regimenTitle(kind, named), tankId, tankCode: tank?.code ?? '', waterName: waterName(tank?.water.id ?? '', nowMs), ...now, due: endedAtMs === null ? asks : [], startedAtMs: happenedAtMs },
      ended: endedAtMs === null ? null : { atMs: endedAtMs, by: nameOfStaff(endedById), reason: endReason ?? '' },
    }
  }

  const broken = { now: { now: 'It cannot be worked out.', why: 'Its tank or its agent is gone: end it.', isAmiss: true }, due: [], transfer: null }
  const summaries = (nowMs: number): RegimenSummary[] => eachApart(store.regimens(nowMs - endedDays * dayMs), (each): RegimenSummary => summary(each, shown(each, nowMs), nowMs), (each) => summary(each, broken, nowMs))

  /** What was done in its water, whoever did it, since it began. */
  function logOf({ id, tankId, plan, happenedAtMs, endedAtMs }: Regimen, nowMs: number): LogRow[] {
    const water: TreatableWater = treating.water(tankId, nowMs)
    const [fromMs, toMs] = [Math.max(happenedAtMs, nowMs - logDays * dayMs), endedAtMs ?? nowMs]
    const isIn = ({ atMs }: { atMs: number }): boolean => atMs >= fromMs && atMs <= toMs
    const [agent, unit] = 'productId' in plan ? [store.product(plan.productId)?.agent ?? null, productUnit(store.product(plan.productId))] : [null, 'mL' as const]
    const stepWords: Readonly<Record<string, (code: string) => string>> = { transfer: (code) => `moved on to ${code}`, cleaned: (code) => `${code} cleaned and dried`, feed: (code) => `medicated food given in ${code}` }
    const rows: LogRow[] = [
      ...store.doses(water.id, fromMs).map((row): LogRow => ({ id: row.id, kind: 'dose', words: `${amountWords(row.given, unit)} of ${row.product}: ${mgLWords(row.mg / (water.volumeL ?? NaN))} more${row.isCut ? ', cut to stay under the limit' : ''}${row.reason === null ? '' : `; ${row.reason}`}`, by: row.by, staffId: row.staffId, atMs: row.atMs, recordedAtMs: row.recordedAtMs, isUndoable: true })),
      ...store.changes(water.id, fromMs).map((row): LogRow => ({ id: row.id, kind: 'change', words: `${showSet('volume', row.litres, markedUnits)} changed${row.mixMgL === null ? '' : `, mixed to ${mgLWords(row.mixMgL)}`}${row.salinityPpt === null ? '' : row.salinityPpt === 0 ? ' for fresh water' : ` for water of ${showFigure('salinity', row.salinityPpt, markedUnits)}`}`, by: row.by, staffId: row.staffId, atMs: row.atMs, recordedAtMs: row.recordedAtMs, isUndoable: true })),
      ...store.steps(id).map((row): LogRow => ({ id: row.id, kind: row.kind as LogRow['kind'], words: (stepWords[row.kind] ?? (() => row.kind))(codeOf(row.placeId, nowMs)), by: row.by, staffId: row.staffId, atMs: row.atMs, recordedAtMs: row.recordedAtMs, isUndoable: row.kind !== 'transfer' })),
    ]
    return rows.filter(isIn).filter((row) => agent !== null || row.kind !== 'dose').sort((a, b) => b.atMs - a.atMs)
  }

  /** Doses, and what the bench bathed, in one log. */
  function lately(nowMs: number): LatelyRow[] {
    const sinceMs = nowMs - latelyDays * dayMs
    const doses = store.dosesSince(sinceMs).map(({ id, product: name, isPowder, given, tankCode, regimenId, reason, by, atMs }): LatelyRow => ({ id, words: `${tankCode}: ${amountWords(given, isPowder === 1 ? 'g' : 'mL')} of ${name}${reason === null ? '' : `; ${reason}`}`, to: regimenId === null ? `/room/${tankCode}` : `/regimens/${regimenId}`, by, atMs }))
    const baths = store.bathsSince(sinceMs).map(({ id, number, kind, fish, by, atMs }): LatelyRow => ({ id, words: `${kind} on the bench, run ${number}: ${fish}`, to: `/bench/runs/${id}`, by, atMs }))
    return [...doses, ...baths].sort((a, b) => b.atMs - a.atMs)
  }

  function treatedWaters(nowMs: number): TreatedWaterView[] {
    const [room, tanks] = [holds.rooms.at(nowMs), facts.inUse(nowMs)]
    const binders = new Map(store.binders(nowMs).map(({ waterId, untilMs }) => [waterId, untilMs]))
    return [...new Set(tanks.map(({ water }) => water.id))].flatMap((waterId): TreatedWaterView[] => {
      const state = waterState(room, waterId)
      const agents = agentsIn(state, room.day ?? 0, holds.rules().goneAfter)
      const theirs = tanks.filter(({ water }) => water.id === waterId)
      if (agents.length === 0 && !binders.has(waterId)) return []
      return [{
        ...{ waterId, waterName: waterName(waterId, nowMs), tankId: theirs[0]?.tankId ?? '', tankCodes: theirs.map(({ code }) => code), binderUntilMs: binders.get(waterId) ?? null },
        fish: theirs.reduce((sum, { lots }) => sum + lots.reduce((of, { quantity }) => of + quantity, 0), 0),
        agents: agents.map((agent) => {
          const [day, days] = [state.agents.get(agent) ?? 0, goneAfter(agent)]
          return { agent, name: shippedAgents[agent]?.name ?? agent, lastOn: writtenDay(day), goneOn: days === null ? null : addDays(writtenDay(day), days) }
        }),
      }]
    })
  }

  return {
    view(nowMs: number): RegimensView {
      const all = summaries(nowMs)
      return { running: all.filter(({ ended }) => ended === null).sort((a, b) => Number(b.isAmiss) - Number(a.isAmiss) || nextOf(a) - nextOf(b)), ended: all.filter(({ ended }) => ended !== null), waters: treatedWaters(nowMs), products: store.products().filter(isProduct).map(productView), lately: lately(nowMs) }
    },
    one(id: string, nowMs: number): RegimenView {
      const regimen = store.regimen(id)
      if (!regimen || regimen.undoneAtMs !== null) throw new Problem('not-found', 'There is no such regimen')
      const { now, due: asks, ...kinds } = shown(regimen, nowMs, true)
      return { ...summary(regimen, { now, due: asks, transfer: kinds.transfer }, nowMs), ...kinds, plan: regimen.plan, note: regimen.note, by: nameOfStaff(regimen.staffId), log: logOf(regimen, nowMs), nowMs }
    },
    /** What regimens ask for, as due work. */
    due: (nowMs: number): DueItem[] =>
      summaries(nowMs).flatMap(({ id, title, due: asks, isAmiss, tankCode, waterName: where }) =>
        asks.map((each): DueItem => ({ ...{ id: `regimen ${id} ${each.id}`, kind: 'regimen', what: each.what, detail: each.detail ?? null, about: `${where === `water of ${tankCode}` ? tankCode : where} ${lowerFirst(title)}`, where: each.tankCode, to: `/regimens/${id}`, sinceMs: null, byMs: each.byMs, done: null }, urgency: isAmiss && each.byMs === null ? 'now' : urgencyAt(each.byMs, nowMs) })),
      ),
  }
}
export type RegimensViewService = ReturnType<typeof createRegimensView>

/** When a regimen asks for something next; last where it asks for nothing. */
const nextOf = ({ due }: RegimenSummary): number => Math.min(...due.flatMap(({ byMs }) => byMs ?? []), Infinity)
const productUnit = (row: ReturnType<RegimensStore['product']>): 'mL' | 'g' => (row?.strengthMgPerMl != null ? 'mL' : 'g')
