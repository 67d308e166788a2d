import { lazy, Suspense } from 'react'
import { Link, useSearchParams } from 'react-router'
import { lossPatterns } from '../../core/outcomes/lossPattern'
import { wentAlive, type OutcomeLot } from '../../core/outcomes/outcomeLot'
import { dayInZone } from '../../core/time/dayInZone'
import { daysBetween } from '../../core/time/daysBetween'
import { shownDay } from '../../core/time/shownDay'
import { plural } from '../../core/words/plural'
import { useSession } from '../api/session'
import { useLimits, useLossHints } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { LossHints } from '../ui/LossHints'
import { RowSection } from '../ui/Rows'
import { saveLots } from './outcomesCsv'
import { groupingWords, questionOf } from './outcomesQuestion'
import { useFishBehind, useOutcomes } from './useOutcomes'
import './outcomes.css'

const SurvivalFigure = lazy(() => import('./SurvivalFigure'))

/** The fish behind a number: every lot with when its fish went. With one lot: its place in the curve of its kind. */
export function FishPage() {
  const [search] = useSearchParams()
  const { timeZone } = useSession()
  const { outcomeDay } = useLimits()
  const [question, group, code] = [questionOf(search, outcomeDay), search.get('group'), search.get('lot')]
  const { lots, problem } = useFishBehind(question, group, code)
  if (!lots) return problem ? <Trouble problem={problem} back={{ to: '/outcomes', label: 'Outcomes' }} /> : <Waiting what="the fish" />
  const back = new URLSearchParams(search)
  for (const name of ['group', 'lot', 'at', 'tank']) back.delete(name)
  const [only, tank, at] = [code === null ? undefined : lots[0], search.get('tank'), Number(search.get('at') ?? NaN)]
  const lost = only && Number.isFinite(at) ? Math.max(0, daysBetween(only.opened, dayInZone(at, timeZone))) : null
  return (
    <>
      <Lead
        title={group ?? only?.species ?? (code === null ? 'Left out' : 'Not followed')}
        aside={
          <>
            {tank !== null && <Link to={`/room/${tank}`}>back to {tank}</Link>} <Link to={`/outcomes?${back}`}>Outcomes</Link>
          </>
        }
      >
        {code === null ? `${plural(lots.length, 'lot')} by ${groupingWords[question.by]}, the newest first.` : only ? lotWords(only, lost) : 'This lot is not followed: it was here before the books, or none of its bags has been opened.'}
      </Lead>
      {only && <PlaceInCurve lot={only} lost={lost} day={outcomeDay} />}
      {only && tank !== null && <HintsOfTank code={tank} />}
      <RowSection title="Lots" count={lots.length} nothing="No lot stands behind this number.">
        {lots.map((each) => (
          <LotRow key={each.lot} lot={each} />
        ))}
      </RowSection>
      {lots.length > 0 && (
        <p className="aside-word">
          <Button look="quiet" onClick={() => saveLots(lots, question.by)}>
            these lots as a file (CSV)
          </Button>
        </p>
      )}
    </>
  )
}

const lotWords = (lot: OutcomeLot, lost: number | null): string => (lost === null ? `Lot ${lot.code}: ${lot.n} alive at opening, ${shownDay(lot.opened)}.` : `Lot ${lot.code}: lost on day ${lost} since its opening, ${shownDay(lot.opened)}. Below, all fish of its kind.`)

/** The curve of the fish of its kind, with the day of this loss on it. */
function PlaceInCurve({ lot, lost, day }: { lot: OutcomeLot; lost: number | null; day: number }) {
  const question = questionOf(new URLSearchParams({ by: 'species', species: lot.species }), day)
  const { answer } = useOutcomes(question)
  if (!answer || answer.view.curves.length === 0) return null
  return (
    <Suspense fallback={<div className="survival-chart" />}>
      <SurvivalFigure curves={answer.view.curves} day={day} marked={lost === null ? null : { day: lost, words: `this loss, day ${lost}` }} />
    </Suspense>
  )
}

/** What the losses of its tank look like, and what to look at next. */
function HintsOfTank({ code }: { code: string }) {
  const hints = useLossHints(code)
  return hints ? <LossHints hints={hints} /> : null
}

function LotRow({ lot }: { lot: OutcomeLot }) {
  const went = lot.exits.map(([day, pattern, fish]) => `day ${day}: ${Math.round(fish * 10) / 10} ${pattern === wentAlive ? 'out of sight alive' : lossPatterns[pattern]}`)
  return (
    <li className="record outcome-lot">
      <span>
        <strong>{lot.species}</strong> {lot.strain}, lot {lot.code}
        <small>
          {lot.supplier}, {lot.origin}, {lot.condition}
          {lot.school !== null && `, ${lot.school}`}
          {lot.water !== null && `, ${lot.water}`}
        </small>
        <small>{went.length === 0 ? 'None lost.' : `${went.join('; ')}.`}</small>
      </span>
      <span>
        {lot.n} at opening <small>{shownDay(lot.opened)} {lot.opened.slice(0, 4)}</small>
        {lot.crateId !== null && <Link to={`/crates/${lot.crateId}`}>crate {lot.crateNumber}</Link>}
      </span>
    </li>
  )
}
