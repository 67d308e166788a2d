import type { RoundListsView } from '../../core/rounds/roundLists.schema'
import { useSession } from '../api/session'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { RulesForm } from './RulesForm'
import { useRoundLists } from './useSetup'
import './setup.css'

const titles: Readonly<Record<keyof RoundListsView['shipped'], string>> = {
  signs: 'points when slight and clear, what they are taken together with, whether they ask about a hold',
  courses: 'hours within which a clear and a slight sign are usual, after what happened',
  readings: 'watch and act limits, and the spread of the instrument',
  lures: 'foods that tempt many, the first entry that fits',
  recipes: 'what the kitchen feeds whom, as shares of dry matter, the first entry that fits; where a house writes its own, they stand for all of them',
  habitSigns: 'signs that are always usual for a habit',
  seenWith: 'what a sign has been seen with: no diagnosis',
}

/** The lists behind the round: as shipped, and what the house has otherwise. Single numbers are house limits. */
export function RoundListsPage() {
  const { recorder } = useSession()
  const { lists, problem, change } = useRoundLists()
  if (!lists) return problem ? <Trouble problem={problem} /> : <Waiting what="the lists" />
  return (
    <>
      <Lead title="Lists of the round">House guidance for signs, courses, readings, lures and recipes. An entry written here stands in the place of the shipped one; single numbers are among the house limits.</Lead>
      {recorder.role === 'lead' && <RulesForm rules={lists} change={change} one="set of lists" hint='one object, such as {"signs": [{"sign": "spots", "slight": 5}]}' />}
      {(Object.keys(titles) as (keyof typeof titles)[]).map((name) => (
        <details key={name} className="shipped-list">
          <summary>
            <strong>{name}</strong>: {titles[name]}
            {name in lists.changes ? ' (other here)' : ''}
          </summary>
          <pre>{JSON.stringify(lists.shipped[name], null, 1)}</pre>
        </details>
      ))}
    </>
  )
}
