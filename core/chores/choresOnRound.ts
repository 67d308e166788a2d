import { groupBy } from '../collections/groupBy'
import type { TankFacts } from '../facts/facts'
import type { ChoreAtPlace } from './choreView'

/** Chores that are done on the round, by the tank at whose card they stand: its own, and those of its whole system at the first of its tanks with fish. */
export function choresOnRound(due: readonly ChoreAtPlace[], tanks: readonly Pick<TankFacts, 'tankId' | 'systemId' | 'lots'>[]): Map<string, ChoreAtPlace[]> {
  const at = ({ tankId, systemId }: ChoreAtPlace): string | null => tankId ?? tanks.find((tank) => tank.systemId === systemId && tank.lots.length > 0)?.tankId ?? null
  return new Map([...groupBy(due, at)].flatMap(([tankId, chores]) => (tankId === null ? [] : [[tankId, chores]])))
}

/** A chore as a card says it: "filter bags, Fresh sale rack: 2 × felt bag". */
export function cardWords({ chore, place, tankCode, words, uses }: Pick<ChoreAtPlace, 'chore' | 'place' | 'tankCode' | 'words' | 'uses'>): string {
  const said = [words, uses.map(({ item, count }) => `${count} × ${item}`).join(', ') || null].filter((each) => each !== null).join('; ')
  return `${chore}${tankCode === null ? `, ${place}` : ''}${said === '' ? '' : `: ${said}`}`
}
