import type { LossCause } from '../ledger/movement'
import { addDays, daysBetween } from '../time/daysBetween'
import { alarmThreshold, type AlarmSetting } from './alarmThreshold'
import { hazardRow, hazardTable, usualInBagShare } from './expectedLosses'
import type { AlarmStep } from './lossAlarmState'
import type { OutcomeRules } from './outcomeRules'
import type { LossMovement, RiskLot } from './riskSets'
import type { UsualLosses } from './usualLosses'

/** Causes that have a remedy of their own, and say nothing of water, supplier or kind. */
const ownRemedy: readonly LossCause[] = ['jumped', 'eaten', 'pump intake']
export const isAlarming = (cause: string | null | undefined): boolean => !ownRemedy.some((each) => each === cause)

/** A lot as alarms know it. */
export interface AlarmLot extends RiskLot {
  species: string
  supplier: string | null
}

/** How far back streams are walked: what was long ago says nothing of now. */
export const alarmDays = 180
/** A crate is a step of its supplier and species once its first week is over. */
const crateDays = 7

const hazardOn = (day: number, { hazards }: UsualLosses): number => hazards[hazardRow(day)]?.perFishDay ?? 0
/** Fish nobody knows the first day of count as settled. */
const settledDay = hazardTable.at(-1)?.from ?? 31

/**
 * Steps of every water, a day each: losses in it by place, and those to be expected of the fish that stood in it or came.
 * @param waterOf - the water of a place; null for what is none, or is not watched.
 */
export function waterSteps({ movements, lots, speciesOf, waterOf, today, usual }: { movements: readonly LossMovement[]; lots: ReadonlyMap<string, Pick<RiskLot, 'opened'>>; speciesOf: (lot: string) => string; waterOf: (place: string) => string | null; today: string; usual: UsualLosses }): Map<string, AlarmStep[]> {
  const from = addDays(today, -alarmDays) ?? today
  const inOrder = [...movements].sort((one, other) => (one.on < other.on ? -1 : one.on > other.on ? 1 : one.seq - other.seq))
  const stock = new Map<string, Map<string, number>>()
  const steps = new Map<string, AlarmStep[]>()
  const put = (water: string | null, lot: string, fish: number): void => {
    if (water === null) return
    const lotsIn = stock.get(water) ?? new Map<string, number>()
    lotsIn.set(lot, (lotsIn.get(lot) ?? 0) + fish)
    if ((lotsIn.get(lot) ?? 0) <= 0) lotsIn.delete(lot)
    stock.set(water, lotsIn)
  }
  let at = 0
  /** Moves the books on to a day: what came first, so that fish lost on their first day were there. */
  function walkTo(on: string, dead: Map<string, number> | null): Map<string, Map<string, number>> {
    const came = new Map<string, Map<string, number>>()
    while (at < inOrder.length && (inOrder[at] as LossMovement).on <= on) {
      const { kind, lot, from: source, to, quantity, cause } = inOrder[at] as LossMovement
      const [left, reached] = [waterOf(source), waterOf(to)]
      at += 1
      if (left === reached) continue
      put(left, lot, -quantity)
      put(reached, lot, quantity)
      if (reached !== null) came.set(reached, (came.get(reached) ?? new Map<string, number>()).set(lot, (came.get(reached)?.get(lot) ?? 0) + quantity))
      if (dead && kind === 'loss' && left !== null && isAlarming(cause)) dead.set(left, (dead.get(left) ?? 0) + quantity)
    }
    return came
  }
  walkTo(addDays(from, -1) ?? from, null)
  for (let on = from; on <= today; on = addDays(on, 1) ?? '9999') {
    const standing = new Map([...stock].map(([water, lotsIn]) => [water, new Map(lotsIn)]))
    const dead = new Map<string, number>()
    for (const [water, came] of walkTo(on, dead)) {
      const lotsIn = standing.get(water) ?? new Map<string, number>()
      for (const [lot, fish] of came) lotsIn.set(lot, (lotsIn.get(lot) ?? 0) + fish)
      standing.set(water, lotsIn)
    }
    for (const [water, lotsIn] of standing) {
      let expected = 0
      for (const [lot, fish] of lotsIn) {
        const opened = lots.get(lot)?.opened
        expected += fish * usual.factorOf(speciesOf(lot)) * hazardOn(opened === undefined ? settledDay : Math.max(0, daysBetween(opened, on)), usual)
      }
      if (expected > 0 || dead.has(water)) steps.set(water, [...(steps.get(water) ?? []), { on, dead: dead.get(water) ?? 0, expected }])
    }
  }
  return steps
}

/** Steps of suppliers or species, a crate each, once its first week is over: dead in the bag and lost until then. */
export function crateSteps(lots: readonly AlarmLot[], by: (lot: AlarmLot) => string | null, today: string, usual: UsualLosses): Map<string, AlarmStep[]> {
  const crates = new Map<string, Map<string, AlarmStep>>()
  for (const lot of lots) {
    const [name, on] = [by(lot), addDays(lot.opened, crateDays)]
    if (name === null || on === null || on >= today || daysBetween(on, today) > alarmDays) continue
    const steps = crates.get(name) ?? new Map<string, AlarmStep>()
    const step = steps.get(lot.crate) ?? { on, dead: 0, expected: 0 }
    steps.set(lot.crate, { on: step.on > on ? step.on : on, dead: step.dead + lot.deadInBag + lostBy(lot), expected: step.expected + usualInBagShare * lot.received + expectedBy(lot, usual) })
    crates.set(name, steps)
  }
  return new Map([...crates].map(([name, steps]) => [name, [...steps.values()].sort((one, other) => (one.on < other.on ? -1 : 1))]))
}

/** Deaths of the first week; `kinds` are causes here. */
const lostBy = ({ out }: RiskLot): number => out.reduce((sum, { day, kinds = {} }) => (day > crateDays ? sum : sum + Object.entries(kinds).reduce((all, [cause, fish]) => (isAlarming(cause) ? all + fish : all), 0)), 0)

function expectedBy({ n, out, species }: AlarmLot, usual: UsualLosses): number {
  let [fish, sum] = [n, 0]
  for (let day = 0; day <= crateDays; day += 1) {
    sum += fish * usual.factorOf(species) * hazardOn(day, usual)
    const exit = out.find((each) => each.day === day)
    fish -= (exit?.dead ?? 0) + (exit?.gone ?? 0)
  }
  return sum
}

/** Which numbers of the house an alarm goes by. */
export interface StreamRule {
  ratio: number
  dispersion: number
  falseAlarmsPerYear: number
}
export const waterRule = ({ systemRatio, systemDispersion, systemFalseAlarms }: OutcomeRules): StreamRule => ({ ratio: systemRatio, dispersion: systemDispersion, falseAlarmsPerYear: systemFalseAlarms })
export const supplierRule = ({ crateRatio, crateDispersion, supplierFalseAlarms }: OutcomeRules): StreamRule => ({ ratio: crateRatio, dispersion: crateDispersion, falseAlarmsPerYear: supplierFalseAlarms })
export const speciesRule = ({ crateRatio, crateDispersion, speciesFalseAlarms }: OutcomeRules): StreamRule => ({ ratio: crateRatio, dispersion: crateDispersion, falseAlarmsPerYear: speciesFalseAlarms })

/** Settings by what they are for: the same are asked for again and again, and take a tenth of a second. */
const settings = new Map<string, AlarmSetting>()

/** Figures that settings are made for lie so far apart; a threshold is found to a thousandth, by a chain coarse enough for a screen. */
const [apart, halvings, states] = [1.5, 14, 60]
const inSteps = (figure: number): number => apart ** Math.round(Math.log(figure) / Math.log(apart))

/**
 * The setting of one stream. What it is for is taken in steps, so that it is not set anew for every fish.
 * @param perYear - steps of it in a year.
 */
export function settingFor({ ratio, dispersion, falseAlarmsPerYear }: StreamRule, { perYear, streams, expected }: { perYear: number; streams: number; expected: number }): AlarmSetting {
  const asked = { stepsPerYear: inSteps(Math.max(1, perYear * streams)), streams: 1, falseAlarmsPerYear, expected: inSteps(Math.max(0.01, expected)), dispersion, ratio, halvings, states }
  const key = JSON.stringify(asked)
  const setting = settings.get(key) ?? alarmThreshold(asked)
  if (settings.size > 500) settings.clear()
  settings.set(key, setting)
  return setting
}

/** What was measured of how unevenly losses fall on steps: mean square beside the mean; null without steps. */
export function measuredDispersion(steps: readonly AlarmStep[]): number | null {
  const known = steps.filter(({ expected }) => expected > 0)
  return known.length === 0 ? null : known.reduce((sum, { dead, expected }) => sum + (dead - expected) ** 2 / expected, 0) / known.length
}
