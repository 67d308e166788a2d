import { spanWords } from '../time/spanWords'
import { roundStates, type RoundState } from './roundState'
import { blockOf, type WalkLength, type WalkTank } from './walk'

const stateWords: Readonly<Record<RoundState, string>> = { settled: 'settled', new: 'new', suspect: 'doubtful', sick: 'sick' }

/** What is done between two tanks of a walk; null where one walks straight on. */
export function changeWords(before: WalkTank | undefined, after: WalkTank): string | null {
  if (!before || (blockOf(before) === blockOf(after) && before.zone === after.zone)) return null
  const tools = before.zone === after.zone || after.zone === null ? 'other tools' : `the tools of ${after.zone}`
  return `wash hands, take ${tools}: ${whatComes(after)}`
}

const whatComes = ({ state, source, system }: WalkTank): string => (state === 'settled' ? 'settled tanks' : state === 'new' ? `new fish${source ? ` from ${source}` : ''}` : state === 'suspect' ? `a doubtful water${system ? ` (${system})` : ''}` : `sick fish${system ? ` (${system})` : ''}`)

/**
 * Says why a round is walked in its order.
 * @example '40 settled tanks, then 6 new, 3 doubtful, 1 sick: hands go from clean to doubtful and never back. 5 washes, about 6 min on the way.'
 */
export function orderWords(tanks: readonly WalkTank[], { seconds, changes }: WalkLength): string {
  const counts = roundStates.flatMap((state) => {
    const count = tanks.filter((tank) => tank.state === state).length
    return count > 0 ? [{ state, count }] : []
  })
  const [first, ...then] = counts
  if (!first) return ''
  const order = `${first.count} ${stateWords[first.state]} ${first.count === 1 ? 'tank' : 'tanks'}${then.length > 0 ? `, then ${then.map(({ state, count }) => `${count} ${stateWords[state]}`).join(', ')}: hands go from clean to doubtful and never back` : ''}`
  return `${order}. ${changes === 0 ? '' : `${changes} ${changes === 1 ? 'wash' : 'washes'} with other tools, `}about ${spanWords(seconds / 60)} on the way.`.replace(/\. about/, '. About')
}
