import { ownCosts, type Cost, type Prepared } from './prepareChoice'
import { mayJoin, scoreChoice } from './scoreChoice'
import { companyBetween, conflictBetween, withoutForbidden, type BrokenRule, type Finding } from './company'
import { cautionsFor, eachOnce, overload, weightOf } from './rules'
import type { Choice } from './tankChoice'
import { markedUnits, showSet } from '../units/units'

/** One tank as it looks for one line, the other lines staying where they are. */
export interface TankOption {
  tank: number
  /** Hard rules that speak against it; empty when it is possible. */
  broken: BrokenRule[]
  /** Points more than the tank that is chosen now; below zero when it would be better. */
  more: number
  /** What it costs, in words, the dearest first. */
  costs: Cost[]
  /** What speaks against it without forbidding it, warnings first. */
  cautions: Finding[]
}

/**
 * Says of every tank what speaks for or against it for one line, given where the others are. Possible tanks first, the
 * cheapest first; then the forbidden ones.
 */
export function tankOptions(prepared: Prepared, choice: Choice, line: number): TankOption[] {
  const now = scoreChoice(prepared, choice).total
  const options = prepared.input.tanks.map((_, tank): TankOption => {
    const broken = rulesAgainst(prepared, choice, line, tank)
    const more = scoreChoice(prepared, choice.with(line, tank)).total - now
    return { tank, broken, more, costs: costsOf(prepared, choice, line, tank), cautions: cautionsOf(prepared, choice, line, tank) }
  })
  return options.sort((a, b) => Number(a.broken.length > 0) - Number(b.broken.length > 0) || a.more - b.more || a.tank - b.tank)
}

/** Names every hard rule that a line breaks in a tank, alone and with the other lines planned for it. */
export function rulesAgainst(prepared: Prepared, choice: Choice, line: number, tank: number): BrokenRule[] {
  const { input, broken, roomG, weights } = prepared
  const own = broken[line]?.[tank] ?? []
  const others = choice.flatMap((at, other) => (at === tank && other !== line ? [other] : []))
  if (own.length === 0 && mayJoin(prepared, line, tank, others)) return []
  const mine = input.lines[line]
  const conflicts = others.map((other) => {
    const theirs = input.lines[other]
    return mine && theirs ? conflictBetween(mine.animal, theirs.animal) : null
  })
  const weight = others.reduce((sum, other) => sum + (weights[other] ?? 0), weights[line] ?? 0)
  const isFull = others.length > 0 && weight > (roomG[tank] ?? Infinity)
  return eachOnce([...own, ...conflicts.filter((each) => each !== null), ...(isFull && !own.some(({ code }) => code === 'overload') ? [overload(weight, roomG[tank] ?? 0)] : [])])
}

/** What a line costs in a tank, in words: its own points, and those that it alone causes there. */
export function costsOf(prepared: Prepared, choice: Choice, line: number, tank: number): Cost[] {
  const { input, openPoints, restartPoints, hospitals } = prepared
  const place = input.tanks[tank]
  const mine = input.lines[line]
  if (!place || !mine) return []
  const others = choice.filter((at, other): at is number => at !== null && other !== line)
  const restart = others.some((at) => input.tanks[at]?.waterId === place.waterId) ? 0 : (restartPoints.get(place.waterId) ?? 0)
  const zones = new Set(others.map((at) => input.tanks[at]?.zoneId).filter(Boolean))
  const isFurtherZone = place.zoneId !== null && zones.size > 0 && !zones.has(place.zoneId)
  const isLastHospital = hospitals.includes(tank) && !others.includes(tank) && hospitals.every((each) => each === tank || others.includes(each))
  const costs: Cost[] = [
    ...ownCosts(mine, place, input),
    { points: others.includes(tank) ? 0 : (openPoints[tank] ?? 0), why: 'opens another tank' },
    { points: place.occupants.length === 0 && others.includes(tank) ? input.limits.sharePoints : 0, why: `shares with ${[...new Set(choice.flatMap((at, other) => (at === tank && other !== line ? [input.lines[other]?.animal.species] : [])))].join(', ')}` },
    { points: restart, why: 'restarts holds on its water' },
    { points: isFurtherZone ? input.limits.zonePoints : 0, why: 'one more zone' },
    { points: isLastHospital ? input.limits.hospitalPoints : 0, why: 'the last free hospital tank' },
  ]
  return costs.filter(({ points }) => points > 1e-9).sort((a, b) => b.points - a.points)
}

/** What speaks against a line in a tank without forbidding it, also beside the other lines planned for it; warnings first. */
export function cautionsOf({ input }: Prepared, choice: Choice, line: number, tank: number): Finding[] {
  const [mine, place] = [input.lines[line], input.tanks[tank]]
  if (!mine || !place) return []
  const others = choice.flatMap((at, other) => (at === tank && other !== line ? (input.lines[other] ?? []) : []))
  return withoutForbidden([...cautionsFor(mine, place), ...others.flatMap(({ animal }) => companyBetween(mine.animal, animal))])
}

/** What speaks for a tank, in words: company, room, water. */
export function forTank({ input, roomG }: Prepared, line: number, tank: number): string[] {
  const [mine, place] = [input.lines[line], input.tanks[tank]]
  if (!mine || !place) return []
  const own = place.occupants.filter(({ animal }) => animal.species === mine.animal.species).reduce((sum, { quantity }) => sum + quantity, 0)
  const weight = weightOf(mine.animal, mine.count)
  const room = roomG[tank] ?? Infinity
  return [
    own > 0 ? `joins ${own} of its kind` : place.occupants.length === 0 ? 'stands empty' : 'nobody in it harms or is harmed',
    ...(place.salinityPpt !== null && mine.animal.water !== 'fresh' ? [showSet('salinity', place.salinityPpt, markedUnits)] : []),
    ...(place.tempC !== null ? [showSet('temperature', place.tempC, markedUnits)] : []),
    ...(weight > 0 && room !== Infinity ? [`${Math.round(weight)} of ${Math.round(room)} g it still takes`] : []),
  ]
}
