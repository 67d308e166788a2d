import { byText } from '../contacts/contact'
import type { TankCorners, TankDecor } from '../room/room.schema'
import { shippedMoveRules, type MoveRules } from './moveRules'

export const meshes = ['fine', 'medium', 'coarse'] as const
export type Mesh = (typeof meshes)[number]
export const catchTools = ['net', 'cup', 'bag'] as const
export type CatchTool = (typeof catchTools)[number]
export const catchVerdicts = ['go', 'some today', 'another day', 'prepare', 'not there'] as const
export type CatchVerdict = (typeof catchVerdicts)[number]
export const catchTips = ['trap-corner', 'close-gap', 'hand-above', 'rock-wall', 'eye-level', 'first-stay', 'count-in-net', 'holes', 'cover', 'under-water', 'spines', 'two-people', 'prepare', 'another-day'] as const
export type CatchTip = (typeof catchTips)[number]

export interface Net {
  id: string
  widthCm: number
  mesh: Mesh
}

/** Fish that are to be caught out of a tank. */
export interface Catching {
  fish: {
    lengthCm: number
    fins?: 'normal' | 'long'
    spines?: boolean
    sensitivities?: readonly string[]
    groupMin?: number
    /** How many of them are usually seen, %. */
    shareSeenPercent?: number | null
    isWary?: boolean
  }
  tank: {
    /** Front to back. */
    widthCm: number
    heightCm: number
    corners?: TankCorners
    decor?: TankDecor
  }
  /** Fish that may be taken. */
  inTank: number
  want: number
  /** Certain ones, not any. */
  chosen?: boolean
  /** How often something was lifted in that tank today. */
  liftsToday?: number
  nets: readonly Net[]
}

export interface CatchCard {
  tool: CatchTool
  mesh: Mesh | null
  /** Width of the net to take, cm. */
  netCm: number | null
  net: string | null
  liftsLeft: number
  /** Chance to catch one fish in the first lift. */
  p: number
  /** Lifts expected today, the chance of all today, and the fish expected today. */
  lifts: number
  done: number
  caught: number
  /** First day by which the chance of all is good; null: none. */
  days: number | null
  verdict: CatchVerdict
  tips: CatchTip[]
}

/**
 * With what to catch fish, and how many are to be expected before the tank has learned. Fish of a school are not
 * independent; the numbers are house guidance, to be set from the lifts that were logged. Source: docs/moves.md.
 * @example catchCard({ fish: { lengthCm: 7 }, tank: { widthCm: 40, heightCm: 30 }, inTank: 1, want: 1, nets: [] }).done // 0.912
 */
export function catchCard(catching: Catching, rules: MoveRules = shippedMoveRules): CatchCard {
  const { inTank, want, chosen = false, liftsToday = 0 } = catching
  const gear = gearFor(catching, rules)
  const p = chanceOf(catching, gear, rules)
  const liftsLeft = Math.max(0, rules.liftsPerDay - liftsToday)
  const told = { ...gear, liftsLeft, p }
  if (want > inTank) return { ...told, lifts: 0, done: 0, caught: 0, days: null, verdict: 'not there', tips: tipsFor(catching, gear.tool, 'not there', rules) }
  const lift = (left: number[], nth: number): number[] => afterLift(left, Math.max(rules.catchLeast, p * rules.fearPerLift ** nth), { want, inTank, chosen, most: rules.catchMost[gear.tool] })
  const day = (left: number[], lifts: number, already: number): number[] => Array.from({ length: lifts }).reduce<number[]>((now, _, nth) => lift(now, already + nth), left)
  const begin = Array.from({ length: want + 1 }, (_, index) => (index === want ? 1 : 0))
  const today = day(begin, liftsLeft, liftsToday)
  const lifts = Array.from({ length: liftsLeft }).reduce<number>((sum, _, nth) => sum + 1 - (day(begin, nth, liftsToday)[0] ?? 0), 0)
  const caughtIn = (left: readonly number[]): number => left.reduce((sum, chance, index) => sum + chance * (want - index), 0)
  const [done, caught] = [today[0] ?? 0, caughtIn(today)]
  const verdict = verdictOf({ done, caught, liftsLeft, fresh: caughtIn(day(begin, rules.liftsPerDay, 0)) }, rules)
  return { ...told, lifts, done, caught, days: firstSureDay(today, (left) => day(left, rules.liftsPerDay, 0), rules), verdict, tips: tipsFor(catching, gear.tool, verdict, rules) }
}

type Gear = Pick<CatchCard, 'tool' | 'mesh' | 'netCm' | 'net'>

function gearFor({ fish: { lengthCm, fins, spines, sensitivities = [] }, tank, nets }: Catching, rules: MoveRules): Gear {
  const isHandled = spines === true || fins === 'long' || sensitivities.includes('netting') || sensitivities.includes('air')
  if (isHandled) return { tool: lengthCm <= rules.cupMostCm ? 'cup' : 'bag', mesh: null, netCm: null, net: null }
  const mesh = lengthCm < rules.fineBelowCm ? 'fine' : lengthCm < rules.mediumBelowCm ? 'medium' : 'coarse'
  const netCm = Math.max(rules.netLeastCm, rules.netPerLength * lengthCm)
  const coarseness = (of: Mesh): number => meshes.indexOf(of)
  const fitting = nets.filter((net) => coarseness(net.mesh) <= coarseness(mesh) && net.widthCm <= rules.netMostOfTank * tank.widthCm)
  const [best] = fitting.sort((a, b) => Number(b.widthCm >= netCm) - Number(a.widthCm >= netCm) || coarseness(b.mesh) - coarseness(a.mesh) || b.widthCm - a.widthCm || byText(a.id, b.id))
  return { tool: 'net', mesh, netCm, net: best?.id ?? null }
}

/** The tank learns: this is the first lift of a day. */
function chanceOf({ fish, tank, chosen, nets }: Catching, { tool, mesh, net }: Gear, rules: MoveRules): number {
  const used = nets.find(({ id }) => id === net)?.mesh ?? mesh
  const seen = fish.shareSeenPercent ?? null
  const factors = [
    tank.heightCm >= rules.tallCm ? rules.catchTall : 1,
    tank.corners === 'rounded' ? rules.catchRounded : 1,
    tank.decor === 'some' ? rules.catchSomeDecor : tank.decor === 'heavy' ? rules.catchHeavyDecor : 1,
    fish.isWary ? rules.catchWary : 1,
    used === 'fine' ? rules.catchFineMesh : 1,
    chosen ? rules.catchChosen : 1,
    tool === 'net' && (fish.groupMin ?? 1) >= rules.schoolFrom ? rules.catchSchool : 1,
    seen === null ? 1 : Math.max(rules.catchHiddenLeast, seen / 100),
  ]
  return Math.min(rules.catchBest, factors.reduce((product, factor) => product * factor, rules.catchBase[tool]))
}

/** By fish still wanted: how likely that is after one lift more. */
function afterLift(left: readonly number[], p: number, { want, inTank, chosen, most }: { want: number; inTank: number; chosen: boolean; most: number }): number[] {
  const next = left.map(() => 0)
  left.forEach((chance, wanted) => {
    if (chance === 0) return
    const there = chosen ? wanted : inTank - (want - wanted)
    caughtOf(there, p, Math.min(wanted, most)).forEach((of, caught) => (next[wanted - caught] = (next[wanted - caught] ?? 0) + chance * of))
  })
  return next
}

/** How likely 0, 1 … so many at most are caught of the fish that are there; what is in the net above that is let out. */
function caughtOf(there: number, p: number, most: number): number[] {
  const chances: number[] = []
  for (let netted = 0; netted < most; netted += 1) chances.push(p >= 1 ? 0 : netted === 0 ? (1 - p) ** there : ((chances[netted - 1] ?? 0) * (there - netted + 1) * p) / netted / (1 - p))
  return [...chances, Math.max(0, 1 - chances.reduce((sum, each) => sum + each, 0))]
}

function verdictOf({ done, caught, liftsLeft, fresh }: { done: number; caught: number; liftsLeft: number; fresh: number }, { catchSure, catchSpoilt }: MoveRules): CatchVerdict {
  if (done >= catchSure) return 'go'
  if (liftsLeft === 0 || caught < catchSpoilt * fresh) return 'another day'
  return caught >= 1 ? 'some today' : 'prepare'
}

function firstSureDay(today: number[], next: (left: number[]) => number[], { catchSure, catchDaysMost }: MoveRules): number | null {
  let left = today
  for (let day = 1; day <= catchDaysMost; day += 1) {
    if ((left[0] ?? 0) >= catchSure) return day
    left = next(left)
  }
  return null
}

function tipsFor({ fish, tank }: Catching, tool: CatchTool, verdict: CatchVerdict, rules: MoveRules): CatchTip[] {
  const [isNet, isRounded] = [tool === 'net', tank.corners === 'rounded']
  const holds: Record<CatchTip, boolean> = {
    'trap-corner': isNet && !isRounded,
    'close-gap': isNet && isRounded,
    'hand-above': tank.heightCm >= rules.tallCm,
    'rock-wall': tank.decor === 'some' || tank.decor === 'heavy',
    'eye-level': fish.isWary === true,
    'first-stay': isNet && (fish.groupMin ?? 1) >= rules.schoolFrom,
    'count-in-net': isNet,
    holes: isNet && fish.lengthCm < rules.holesBelowCm,
    cover: isNet,
    'under-water': !isNet,
    spines: fish.spines === true,
    'two-people': tool === 'bag',
    prepare: verdict === 'prepare',
    'another-day': verdict === 'another day',
  }
  return catchTips.filter((tip) => holds[tip])
}
