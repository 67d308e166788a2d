import type { Measured, TankFacts } from '../facts/facts'
import { markedUnits, showSet } from '../units/units'
import type { AskedKind } from './chores.schema'

/** Work that somebody asked for once. */
export interface AskedChore {
  id: string
  tankId: string
  tankCode: string
  kind: AskedKind
  litresEach: number | null
  times: number
  byMs: number
  askedAtMs: number
  askedBy: string
}

/** What a look for readings has to bring: of each line one. */
const asked: readonly (readonly Measured['what'][])[] = [['tempC'], ['ammoniaMgL', 'freeAmmoniaMgL']]

/**
 * Whether what was recorded since has done it: a look, or readings on its water. A change of water ends by hand.
 * @param readings - what was read on its water, at any of its tanks.
 */
export function isDoneByItself({ kind, askedAtMs }: Pick<AskedChore, 'kind' | 'askedAtMs'>, { looks }: Pick<TankFacts, 'looks'>, readings: readonly Measured[]): boolean {
  if (kind === 'look') return looks.some(({ atMs }) => atMs > askedAtMs)
  return kind === 'readings' && asked.every((any) => readings.some((each) => any.includes(each.what) && each.atMs > askedAtMs))
}

/** What is to be done, in a few words; figures stand in them marked (`wordFigures`). */
export function choreWords({ kind, litresEach, times }: Pick<AskedChore, 'kind' | 'litresEach' | 'times'>): string {
  if (kind === 'look') return 'look again'
  if (kind === 'readings') return 'readings: temperature, ammonia'
  const much = litresEach === null ? '' : ` ${showSet('volume', litresEach, markedUnits)}`
  return `change${times > 1 ? ` ${times} times` : ''}${much}${litresEach === null ? ' a part of its water' : ''}`
}
