import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { addressOf } from '../../core/commands/declare'
import { outcomesApi } from '../../core/outcomes/outcomes.api'
import type { ReviewView } from '../../core/outcomes/outcomeViews'
import { monthName } from '../../core/time/monthName'
import { datesShown } from '../../core/time/shownDay'
import { sentenceOf } from '../api/ApiProblem'
import { download } from '../api/download'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { OutcomesNav } from './OutcomesNav'
import { saveTable } from './outcomesCsv'
import { RankingTable } from './RankingTable'
import { useKeepSheet, useReview } from './useReview'
import './outcomes.css'

/** The sheet of a month: always the same figures in the same order, each with how sure it is. */
export function ReviewPage() {
  const [search, setSearch] = useSearchParams()
  const { data: review, problem } = useReview(search.get('month'))
  if (!review) return problem ? <Trouble problem={problem} back={{ to: '/outcomes', label: 'Outcomes' }} /> : <Waiting what="the month" />
  return (
    <>
      <Lead title={`Losses, ${monthName(review.month)}`} nav={<OutcomesNav />}>
        {review.figures.find(({ key }) => key === 'lost')?.sentence}
      </Lead>
      <ChoiceField label="Month" className="review-month" value={review.month} onChange={(month) => setSearch({ month }, { replace: true })}>
        {review.months.map((month) => (
          <option key={month} value={month}>
            {monthName(month)}
          </option>
        ))}
      </ChoiceField>
      <Sheet review={review} />
    </>
  )
}

function Sheet({ review }: { review: ReviewView }) {
  const { figures, ranks, alarms, trial, likeness, dispersion } = review
  return (
    <>
      <ul className="record-list review-figures">
        {figures
          .filter(({ key }) => key !== 'lost')
          .map(({ key, sentence, word }) => (
            <li key={key} className="record review-figure">
              <span>{datesShown(sentence)}</span>
              <small>{word}</small>
            </li>
          ))}
      </ul>
      <p className="aside-word">Sold fish were the fit ones: after the hold this is survival of unsold fish. A month with few looks has few late gaspers.</p>
      <Paper review={review} />
      {ranks.length > 0 && <RankingTable ranking={{ overall: null, groups: ranks }} by="supplier" day={null} />}
      <section className="row-section">
        <h2>Behind it</h2>
        <p>{alarms.alarms.length === 0 ? 'No alarm is on or watched.' : alarms.alarms.map(({ sentence }) => datesShown(sentence)).join(' ')}</p>
        <p>{trial ?? 'No trial.'}</p>
        <p>
          Likeness of crate mates here: {likeness.measured.toFixed(2)} over {likeness.crates} crates; the house goes by {likeness.house}. {dispersion.measured === null ? 'How unevenly losses fall on days was not measured.' : `Losses fall on days ${dispersion.measured.toFixed(2)} times as unevenly as by chance; the house goes by ${dispersion.house}.`}
        </p>
      </section>
    </>
  )
}

/** The sheet on paper, and its words kept for next month. */
function Paper({ review: { month, kept, figures } }: { review: ReviewView }) {
  const { recorder } = useSession()
  const format = useFormat()
  const keep = useKeepSheet()
  const [problem, setProblem] = useState<string | null>(null)
  const attempt = (work: Promise<unknown>): void => void work.then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <div className="review-paper">
      <Button size="hand" onClick={() => attempt(download(addressOf(outcomesApi.readReviewPdf, { month }), recorder.id, () => undefined, new AbortController().signal))}>
        as a sheet of paper (PDF)
      </Button>
      <Button size="hand" onClick={() => saveTable(figures, `losses-${month}`)}>
        as a file (CSV)
      </Button>
      <Button size="hand" onClick={() => attempt(keep(month))}>
        {kept ? 'keep its words anew' : 'keep its words'}
      </Button>
      <p className="aside-word">{kept ? `Kept by ${kept.by}, ${format.moment(kept.atMs)}.` : 'Next month’s words are held against those that are kept.'}</p>
      <Problem>{problem}</Problem>
    </div>
  )
}
