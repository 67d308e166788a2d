import { nameKey } from '../words/nameKey'
import type { SystemView, TankSummary } from './roomView'

/** Choices of tanks by how they stand. */
export const roomShows = ['all', 'unchecked', 'watch', 'held', 'reserved', 'empty'] as const
export type RoomShow = (typeof roomShows)[number]

const keeps: Record<RoomShow, (tank: TankSummary) => boolean> = {
  all: () => true,
  unchecked: ({ fish, isCheckedToday }) => fish > 0 && !isCheckedToday,
  watch: ({ flag }) => flag !== null,
  held: ({ hold }) => hold !== null,
  reserved: ({ bookings }) => bookings.length > 0,
  empty: ({ fish }) => fish === 0,
}

/** Whether a tank is of a choice. */
export const isShown = (tank: TankSummary, show: RoomShow): boolean => keeps[show](tank)

/** Words by which a tank is found: its kinds, where they come from, their lots, its system and water, what is in it. */
function wordsOf({ code, lots, agents, systemId }: TankSummary, systems: ReadonlyMap<string, SystemView>): string[] {
  const system = systems.get(systemId)
  return [code, ...(system ? [system.name, `${system.water} water`] : []), ...agents, ...lots.flatMap(({ species, origin, code: lot }) => [species, origin, `lot ${lot}`])]
}

/**
 * Answers whether a tank is found by a word: part of the name of a kind, a supplier, a lot, a system or a water.
 * @example isFound(tank, 'honey', systems) // true where honey gourami stand in it
 */
export function isFound(tank: TankSummary, of: string, systems: ReadonlyMap<string, SystemView>): boolean {
  const asked = nameKey(of)
  return asked === '' || wordsOf(tank, systems).some((word) => nameKey(word).includes(asked))
}

/** Fish of a tank that a word means: those of kinds, suppliers and lots that it names, or all of them where it names the tank itself. */
export function fishFound(tank: TankSummary, of: string): number {
  const asked = nameKey(of)
  const named = tank.lots.filter(({ species, origin, code }) => [species, origin, `lot ${code}`].some((word) => nameKey(word).includes(asked)))
  return (named.length > 0 ? named : tank.lots).reduce((sum, { fish }) => sum + fish, 0)
}

/** Words to choose from, each once, in order. */
export const findWords = (tanks: readonly TankSummary[], systems: readonly SystemView[]): string[] =>
  [...new Set([...tanks.flatMap(({ lots, agents }) => [...lots.flatMap(({ species, origin }) => [species, origin]), ...agents]), ...systems.map(({ name }) => name)])].sort((a, b) => a.localeCompare(b))
