import { redoseAfterChange } from '../../core/dosing/ladderStep'
import { levelPath, readingDueMs, type TreatedWater } from '../../core/dosing/treatedWater'
import type { HoldRoom } from '../../core/holds/holdRoom'
import { groupsOfWater } from '../../core/holds/holdRoom'
import { ladderStand, levelPhase } from '../../core/regimens/ladderStand'
import { ladderOf, measuringOf, type LadderStand } from '../../core/regimens/offerDose'
import type { LadderPlan } from '../../core/regimens/regimens.schema'
import { amountWords, ladderWords, mgLWords, type NowWords } from '../../core/regimens/regimenWords'
import type { LadderView } from '../../core/regimens/regimenView'
import { markedUnits, showSet } from '../../core/units/units'
import type { HoldsService } from '../holds/holds.service'
import type { Offering, Product } from './offering'
import type { DoseTold, RegimensStore } from './regimens.store'
import { labelOf, type TreatableWater, type Treating } from './treating'

const dayMs = 86_400_000
/** The chart looks back so many days at most, and ahead of now one. */
const [backDays, aheadMs] = [60, dayMs]
/** Share of a usual change of water, for what it takes out; house guidance. */
const usualShare = 0.25

interface Collaborators {
  store: Pick<RegimensStore, 'doses'>
  treating: Treating
  holds: Pick<HoldsService, 'rooms' | 'readClock' | 'rules'>
  offer: Offering
  zone: () => string
}
export interface LadderOf {
  plan: LadderPlan
  product: Product
  water: TreatableWater
  tank: { tankId: string; code: string; systemId: string }
  startedAtMs: number
  nowMs: number
}

/** How ladders stand and what they show. */
export function createLadders({ store, treating, holds, offer, zone }: Collaborators) {
  /** The clock that takes longest among fish of a water whose policy steps this agent. */
  function heldBy(room: HoldRoom, waterId: string, agent: string): Parameters<typeof ladderStand>[0]['held'] {
    const held = groupsOfWater(room, waterId).flatMap((group) => {
      const clock = holds.readClock(room, group)
      const policy = holds.rules().policies.get(clock.policy ?? '')
      return policy && (clock.status === 'holding' || clock.status === 'ready') && levelPhase(policy, agent) >= 0 ? [{ clock, policy }] : []
    })
    return held.sort((a, b) => ((a.clock.earliest ?? '') < (b.clock.earliest ?? '') ? 1 : -1))[0] ?? null
  }
  /** Doses of an agent into its water since it began, whoever gave them and on which screen. */
  const dosesOf = ({ id }: TreatableWater, agent: string, startedAtMs: number): DoseTold[] => store.doses(id, startedAtMs).filter((dose) => dose.agent === agent)

  function stand({ plan, product, water, startedAtMs, nowMs }: LadderOf): LadderStand {
    const doses = dosesOf(water, product.agent, startedAtMs)
    const ladder = ladderOf(product.agent, labelOf(product))
    const treated = treating.treated(water, product.agent)
    const firstMs = doses[0]?.atMs ?? Infinity
    const inRange = treated?.readings.find(({ atMs, mgL, kit }) => atMs >= firstMs && kit === measuringOf(product.agent, labelOf(product), water.volumes).kit && ladder !== null && mgL >= ladder.lo)
    return ladderStand({ held: heldBy(holds.rooms.at(nowMs), water.id, product.agent), levelDays: plan.levelDays, doses, targetMgL: ladder?.target ?? Infinity, inRangeMs: inRange?.atMs ?? null, timeZone: zone(), nowMs })
  }

  /** What a change of a usual share takes out, and what each school does about it. */
  function redoseOf(treated: TreatedWater, levelMgL: number): LadderView['redose'] {
    const litres = treated.volumeL * usualShare
    return (['asIs', 'redose', 'premix'] as const).map((school) => {
      const { doseMg, mixMgPerL, levelAfter } = redoseAfterChange({ V: treated.volumeL, f: usualShare, level: levelMgL, school })
      const much = showSet('volume', litres, markedUnits)
      const words = { asIs: `${much} of plain water leave ${mgLWords(levelAfter)}.`, redose: `${much} of plain water, then ${Math.round(doseMg)} mg of it, keep ${mgLWords(levelAfter)}: as a dose, after its check.`, premix: `${much} mixed to ${mgLWords(mixMgPerL)} beforehand keep it where it is.` }[school]
      return { litres, school, words }
    })
  }

  /** @param isWhole - with its chart: lists and what is due do without. */
  function show(of: LadderOf, isWhole: boolean): { ladder: LadderView; now: NowWords; readByMs: number | null } {
    const { product, water, tank, startedAtMs, nowMs } = of
    const stands = stand(of)
    const { step, ...offered } = offer(product, tank, stands, nowMs)
    const [ladder, label] = [ladderOf(product.agent, labelOf(product)), labelOf(product)]
    const measuring = measuringOf(product.agent, label, water.volumes)
    const treated = treating.treated(water, product.agent)
    const hasFish = water.tanks.some(({ lots }) => lots.length > 0)
    const target = ladder?.target ?? 0
    const doneBelowMgL = ladder?.doneBelow ?? 0
    const told: NowWords = step
      ? ladderWords({ step, kit: measuring.kit, ageH: offered.level?.ageH ?? null, isJump: offered.level?.isJump ?? false, hasFish, amount: offered.amount === null || offered.product.unit === null ? null : amountWords(offered.amount, offered.product.unit), targetMgL: target, doneBelowMgL })
      : { now: 'Nothing can be worked out.', why: offered.reasons[0]?.words ?? null, isAmiss: true }
    const isDosing = step?.do === 'dosePart' || step?.do === 'raise' || step?.do === 'doseUp'
    const now = isDosing && offered.contents === null ? { now: 'Say first what stands in this water.', why: 'Carbon, rock or a binder change what may go in.', isAmiss: false } : isDosing && offered.answer === 'refuse' ? { now: 'Nothing is offered for this water.', why: offered.reasons[0]?.words ?? null, isAmiss: true } : told
    const fromMs = Math.max(startedAtMs, nowMs - backDays * dayMs)
    return {
      now,
      readByMs: treated && stands.stage !== 'enter' ? readingDueMs(treated, measuring, nowMs) : null,
      ladder: {
        offer: offered,
        ...{ step: step?.do ?? null, changeL: step?.changeL ?? null, changes: step?.changes ?? null },
        ...{ loMgL: ladder?.lo ?? 0, hiMgL: ladder?.hi ?? 0, targetMgL: target, doneBelowMgL },
        path: treated && isWhole ? levelPath(treated, measuring, { fromMs, toMs: nowMs + aheadMs }) : [],
        readings: (treated?.readings ?? []).filter(({ atMs }) => atMs >= fromMs && atMs <= nowMs).map((reading) => ({ ...reading, isOwnKit: reading.kit === measuring.kit })),
        // Nothing is said of milligrams on a level that nobody read, or where the check refuses.
        redose: treated && offered.level?.basis === 'measured' && !offered.level.isJump && offered.answer !== 'refuse' && stands.stage !== 'enter' ? redoseOf(treated, offered.level.mgL) : [],
      },
    }
  }

  return { stand, show }
}
export type Ladders = ReturnType<typeof createLadders>
