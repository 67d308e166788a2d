import { lazy, Suspense } from 'react'
import { Link, useSearchParams } from 'react-router'
import { groupings } from '../../core/outcomes/outcomeLot'
import { diedOf, type OutcomesQuestion, type OutcomesView } from '../../core/outcomes/outcomesPage'
import { plural } from '../../core/words/plural'
import { sentenceOf } from '../api/ApiProblem'
import { useLimits } from '../api/sharedReads'
import { Apart } from '../ui/Apart'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { Comparisons } from './Comparisons'
import { GroupTable } from './GroupTable'
import { KindsTable } from './KindsTable'
import { OutcomesNav } from './OutcomesNav'
import { RankingTable } from './RankingTable'
import { groupingWords, questionOf } from './outcomesQuestion'
import { saveOutcomes } from './outcomesCsv'
import type { OutcomesAnswer } from './outcomes.worker'
import { useOutcomes } from './useOutcomes'
import './outcomes.css'

const SurvivalFigure = lazy(() => import('./SurvivalFigure'))

/** Whether fish of one kind of thing live longer than those of another, and how sure one can be. */
export function OutcomesPage() {
  const [search] = useSearchParams()
  const { outcomeDay } = useLimits()
  const question = questionOf(search, outcomeDay)
  const { answer, problem } = useOutcomes(question)
  if (!answer) return problem ? <Trouble problem={problem} /> : <Waiting what="the losses" />
  return <Outcomes answer={answer} question={question} problem={problem ? sentenceOf(problem) : null} />
}

function Outcomes({ answer, question, problem }: { answer: OutcomesAnswer; question: OutcomesQuestion; problem: string | null }) {
  const [search, setSearch] = useSearchParams()
  const { view } = answer
  const set = (name: string, value: string | null): void => setSearch((now) => (value === null || value === '' ? now.delete(name) : now.set(name, value), now), { replace: true })
  return (
    <>
      <Lead title="Outcomes" nav={<OutcomesNav />}>
        {view.sentence}
      </Lead>
      {problem && <p className="form-problem" role="alert">{problem}</p>}
      <div className="entry-buttons outcome-by" role="group" aria-label="Compare by">
        {groupings.map((by) => (
          <Button key={by} aria-pressed={question.by === by} onClick={() => setSearch((now) => (now.set('by', by), now.delete('a'), now.delete('b'), now), { replace: true })}>
            {groupingWords[by]}
          </Button>
        ))}
      </div>
      <Filters answer={answer} question={question} onSet={set} />
      {view.curves.length > 0 && (
        <Apart what="The curves" of={view.curves}>
          <Suspense fallback={<div className="survival-chart" />}>
            <SurvivalFigure curves={view.curves} day={question.day} />
          </Suspense>
        </Apart>
      )}
      <Caveats view={view} question={question} notFollowed={answer.notFollowed} />
      <GroupTable view={view} question={question} search={search} />
      <div className="outcome-columns">
        <Comparisons view={view} question={question} onPair={(a, b) => setSearch((now) => (now.set('a', a), now.set('b', b), now), { replace: true })} onAll={() => setSearch((now) => (now.delete('a'), now.delete('b'), now), { replace: true })} />
        <div>
          {view.ranking && <RankingTable ranking={view.ranking} by={groupingWords[question.by]} day={question.day} />}
          <KindsTable kinds={view.kinds} />
        </div>
      </div>
      <p className="aside-word">
        <Button look="quiet" onClick={() => saveOutcomes(view, question)}>
          what is shown as a file (CSV)
        </Button>
      </p>
    </>
  )
}

interface FiltersProps {
  answer: OutcomesAnswer
  question: OutcomesQuestion
  onSet: (name: string, value: string | null) => void
}

/** What is asked stands in the address. */
function Filters({ answer, question, onSet }: FiltersProps) {
  const choice = (name: 'supplier' | 'species' | 'origin', label: string, options: readonly string[]) => (
    <ChoiceField label={label} value={question[name] ?? ''} onChange={(value) => onSet(name, value)}>
      <option value="">all</option>
      {options.map((option) => (
        <option key={option}>{option}</option>
      ))}
    </ChoiceField>
  )
  const month = (name: 'from' | 'until', label: string) => (
    <ChoiceField label={label} value={question[name] ?? ''} onChange={(value) => onSet(name, value)}>
      <option value="">any month</option>
      {answer.months.map((each) => (
        <option key={each}>{each}</option>
      ))}
    </ChoiceField>
  )
  return (
    <details className="outcome-filters" open={[question.supplier, question.species, question.origin, question.from, question.until].some((each) => each !== null) || question.died !== 'anything'}>
      <summary>which fish, to which day</summary>
      <div className="outcome-filter-fields">
        {choice('supplier', 'Supplier', answer.suppliers)}
        {choice('species', 'Species', answer.species)}
        {choice('origin', 'Origin', answer.origins)}
        {month('from', 'Opened from')}
        {month('until', 'Opened until')}
        <ChoiceField label="To day" value={String(question.day)} onChange={(value) => onSet('day', value)}>
          {[...new Set([0, 1, 3, 7, 14, 21, 30, question.day])].sort((a, b) => a - b).map((day) => (
            <option key={day}>{day}</option>
          ))}
        </ChoiceField>
        <ChoiceField label="Died of" value={question.died} onChange={(value) => onSet('of', value === 'anything' ? null : value)}>
          {diedOf.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </ChoiceField>
      </div>
      <p className="aside-word">Every change asks anew: look at the whole list, not at the best of many.</p>
    </details>
  )
}

/** What the figures are not, said once under the picture. */
function Caveats({ view, question, notFollowed }: { view: OutcomesView; question: OutcomesQuestion; notFollowed: number }) {
  const words = [
    'The crate is what is counted as independent, never the fish. Sold fish were the fit ones: after the hold this is survival of unsold fish.',
    ...(question.died === 'anything' ? [] : [`Deaths of ${question.died} alone, of fish that had not died of something else.`]),
    ...(view.corrected > 0 ? [`${plural(Math.round(view.corrected), 'fish', 'fish')} fewer at counts: a wrong count, or deaths nobody saw.`] : []),
    ...view.leftOut.map(({ words: why, lots }) => `${plural(lots, 'lot')} left out: ${why}.`),
    ...(notFollowed > 0 ? [`${plural(notFollowed, 'lot')} not followed: here before the books, or brought in.`] : []),
  ]
  return (
    <p className="aside-word outcome-caveats">
      {words.join(' ')} {view.leftOut.length > 0 && <Link to={`/outcomes/fish?by=${question.by}`}>those left out</Link>}
    </p>
  )
}
