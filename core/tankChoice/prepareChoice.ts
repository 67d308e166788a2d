import { conflictBetween, type BrokenRule } from './company'
import { brokenRules, cautionsFor, roomLeftG, together, weightOf } from './rules'
import type { ChoiceInput, ChoiceLine, ChoiceTank, Occupant } from './tankChoice'
import { plural } from '../words/plural'
import { markedUnits, showChange } from '../units/units'

/** One reason for points, in words. */
export interface Cost {
  points: number
  why: string
}

/** Everything about a choice that does not depend on the other lines, worked out once. */
export interface Prepared {
  input: ChoiceInput
  /** By line and tank: hard rules it would break alone. */
  broken: BrokenRule[][][]
  /** By line and tank: points of its own; only where nothing is broken. */
  costs: number[][]
  /** By line: numbers of the tanks that break no rule. */
  possible: number[][]
  /** By line: numbers of the lines that must not stand in the same tank. */
  conflicts: Set<number>[]
  /** By line: grams. */
  weights: number[]
  /** By tank: grams it still takes. */
  roomG: number[]
  /** By tank: points once for the first line in it; each further line there pays for sharing. */
  openPoints: number[]
  /** Points once for each water into which a line goes, for holds that begin anew. */
  restartPoints: Map<string, number>
  /** Numbers of hospital tanks that stand empty. */
  hospitals: number[]
}

/** Works out for a crate which tanks are possible for which line, and what each would cost. */
export function prepareChoice(input: ChoiceInput): Prepared {
  const { lines, tanks, limits } = input
  const broken = lines.map((line) => tanks.map((tank) => brokenRules(line, tank, limits)))
  return {
    input,
    broken,
    costs: lines.map((line) => tanks.map((tank) => ownCosts(line, tank, input).reduce((sum, { points }) => sum + points, 0))),
    possible: broken.map((row) => row.flatMap((rules, tank) => (rules.length === 0 ? [tank] : []))),
    conflicts: lines.map((line, index) => new Set(lines.flatMap((other, at) => (at !== index && conflictBetween(line.animal, other.animal) !== null ? [at] : [])))),
    weights: lines.map((line) => weightOf(line.animal, line.count)),
    roomG: tanks.map((tank) => roomLeftG(tank, limits.stockGPerL)),
    openPoints: tanks.map((tank) => (tank.occupants.length === 0 ? limits.openTankPoints : 0)),
    restartPoints: restartsByWater(tanks, limits.restartPoints),
    hospitals: tanks.flatMap((tank, index) => (tank.purpose === 'hospital' && tank.occupants.length === 0 && (tank.state ?? 'ready') === 'ready' ? [index] : [])),
  }
}

/** Points that a line has in a tank whatever the other lines do, with their reasons. */
export function ownCosts(line: ChoiceLine, tank: ChoiceTank, { shipping, limits }: ChoiceInput): Cost[] {
  const { animal } = line
  const warnings = cautionsFor(line, tank).filter(({ level }) => level === 'warning')
  const degrees = shipping.tempC !== null && tank.tempC !== null ? Math.abs(tank.tempC - shipping.tempC) : 0
  const ppt = shipping.salinityPpt !== null && tank.salinityPpt !== null && animal.water !== 'fresh' ? Math.abs(tank.salinityPpt - shipping.salinityPpt) : 0
  // What happened in a small tank says little about a large one.
  const fights = tank.fights * limits.fightPoints * 2 ** -((tank.netVolumeL ?? 0) / 100)
  const kinds = new Set(tank.occupants.map((each) => each.animal.species))
  const fought = (tank.fought ?? []).filter(({ a, b }) => (a === animal.species && kinds.has(b)) || (b === animal.species && kinds.has(a)))
  const strangers = [...kinds].filter((species) => species !== animal.species)
  const ofItsKind = together(line, tank)
  const isLonely = animal.groupMin !== null && ofItsKind < animal.groupMin
  const isElsewhere = tank.purpose === 'display' || tank.purpose === 'grow-out'
  return [
    { points: degrees * limits.warmerPoints, why: `${showChange('temperature', degrees, markedUnits)} from the shipping water` },
    { points: ppt * limits.saltierPoints, why: `${showChange('salinity', ppt, markedUnits)} from the shipping water` },
    { points: strangers.length > 0 ? limits.sharePoints : 0, why: `shares with ${strangers.join(', ')}` },
    { points: isLonely ? limits.groupPoints : 0, why: `${ofItsKind} together, kept at least ${animal.groupMin}` },
    { points: fights, why: tank.fights === 1 ? 'fish were chased or eaten there lately' : `${tank.fights} times chased or eaten there lately` },
    ...fought.map(({ a, b, weight }) => ({ points: weight * limits.fightPoints, why: `${a} and ${b} fought before` })),
    ...warnings.map(({ why }) => ({ points: limits.warningPoints, why })),
    { points: tank.occupants.reduce((sum, each) => sum + restartDays(each, 'tank'), 0) * limits.restartPoints, why: `${plural(tank.occupants.reduce((sum, each) => sum + restartDays(each, 'tank'), 0), 'day')} of holds lost in it` },
    { points: isElsewhere ? limits.purposePoints : 0, why: `it is a ${tank.purpose} tank` },
  ].filter(({ points }) => points > 1e-9)
}


/** Days that a hold loses when others come to its tank, or to its water. */
function restartDays({ heldDays, restart, booked }: Occupant, by: 'tank' | 'water'): number {
  if (booked !== undefined || restart === null) return 0
  const { by: reach, days } = restart ?? { by: 'water', days: heldDays ?? 0 }
  return reach === by ? days : 0
}

function restartsByWater(tanks: readonly ChoiceTank[], pointsPerDay: number): Map<string, number> {
  const points = new Map<string, number>()
  for (const { waterId, occupants } of tanks) {
    const days = occupants.reduce((sum, each) => sum + restartDays(each, 'water'), 0)
    points.set(waterId, (points.get(waterId) ?? 0) + days * pointsPerDay)
  }
  return points
}
