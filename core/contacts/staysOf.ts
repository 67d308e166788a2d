import type { Stay } from './contact'

/** Fish of a lot that came into a place (above zero) or left it, at a minute. */
export interface Flow {
  at: number
  place: string
  lot: string
  fish: number
}

/** Fish of a lot that stand in a place now. */
export interface Standing {
  place: string
  lot: string
  fish: number
}

/** Less than this is nobody: the books of fish that cannot be told apart are kept in millionths. */
const nobody = 5e-7

/**
 * Reads off what stands where now, and what came and went, since when and until when fish of each lot stood in which
 * place; walked backwards from now, so that a window asks for no more than its own movements.
 * @param flows - in the order in which they happened.
 * @param from - where the window begins: what stood there already has stood there since then.
 */
export function staysOf(standing: readonly Standing[], flows: readonly Flow[], from: number): Stay[] {
  const stays: Stay[] = []
  const open = new Map<string, { place: string; lot: string; fish: number; until: number | null }>()
  const of = (place: string, lot: string) => {
    const key = JSON.stringify([place, lot])
    const known = open.get(key)
    if (known) return known
    const none = { place, lot, fish: 0, until: null as number | null }
    open.set(key, none)
    return none
  }
  for (const { place, lot, fish } of standing) of(place, lot).fish += fish
  for (const flow of flows.toReversed()) {
    const here = of(flow.place, flow.lot)
    const stood = here.fish > nobody
    here.fish -= flow.fish
    const standsBefore = here.fish > nobody
    if (stood && !standsBefore) stays.push({ lot: flow.lot, water: flow.place, from: flow.at, until: here.until })
    if (!stood && standsBefore) here.until = flow.at
  }
  for (const { place, lot, fish, until } of open.values()) if (fish > nobody) stays.push({ lot, water: place, from, until })
  return stays.toReversed()
}
