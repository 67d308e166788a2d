import type { Prepared } from './prepareChoice'
import { homelessPoints, type Choice } from './tankChoice'

/** What a choice costs as a whole, by reason. */
export interface Score {
  total: number
  homeless: number
  own: number
  opened: number
  shared: number
  restarts: number
  zones: number
  hospital: number
}

/** Adds up what a choice costs. It does not ask whether rules are broken: see `faultsOf`. */
export function scoreChoice(prepared: Prepared, choice: Choice): Score {
  const { input, costs, openPoints, restartPoints, hospitals } = prepared
  const { tanks, limits } = input
  const used = new Set(choice.filter((tank) => tank !== null))
  const waters = new Set([...used].map((tank) => tanks[tank]?.waterId ?? ''))
  const zones = new Set([...used].map((tank) => tanks[tank]?.zoneId ?? null).filter((zone) => zone !== null))
  const homeless = choice.filter((tank) => tank === null).length * homelessPoints
  const own = choice.reduce<number>((sum, tank, line) => sum + (tank === null ? 0 : (costs[line]?.[tank] ?? 0)), 0)
  const opened = [...used].reduce((sum, tank) => sum + (openPoints[tank] ?? 0), 0)
  const inEmpty = choice.filter((tank) => tank !== null && tanks[tank]?.occupants.length === 0).length
  const emptyUsed = [...used].filter((tank) => tanks[tank]?.occupants.length === 0).length
  const shared = (inEmpty - emptyUsed) * limits.sharePoints
  const restarts = [...waters].reduce((sum, water) => sum + (restartPoints.get(water) ?? 0), 0)
  const zonePoints = Math.max(0, zones.size - 1) * limits.zonePoints
  const hospital = hospitals.length > 0 && hospitals.every((tank) => used.has(tank)) ? limits.hospitalPoints : 0
  return { total: homeless + own + opened + shared + restarts + zonePoints + hospital, homeless, own, opened, shared, restarts, zones: zonePoints, hospital }
}

/** Answers whether a line may join those that are in a tank already. */
export function mayJoin({ conflicts, weights, roomG, broken }: Prepared, line: number, tank: number, inTank: readonly number[]): boolean {
  if ((broken[line]?.[tank]?.length ?? 1) > 0) return false
  const weight = inTank.reduce((sum, other) => sum + (weights[other] ?? 0), weights[line] ?? 0)
  return weight <= (roomG[tank] ?? 0) + 1e-9 && inTank.every((other) => !conflicts[line]?.has(other))
}

/** Lines by the tank they are in. */
export function linesByTank(choice: Choice): Map<number, number[]> {
  const lines = new Map<number, number[]>()
  choice.forEach((tank, line) => {
    if (tank !== null) lines.set(tank, [...(lines.get(tank) ?? []), line])
  })
  return lines
}

/** Numbers of the lines whose tank breaks a hard rule, alone or with the others in it; empty for a sound choice. */
export function faultsOf(prepared: Prepared, choice: Choice): number[] {
  return choice.flatMap((tank, line) => {
    if (tank === null) return []
    const others = choice.flatMap((at, other) => (at === tank && other !== line ? [other] : []))
    return mayJoin(prepared, line, tank, others) ? [] : [line]
  })
}
