import { notADiagnosis } from '../../core/outcomes/causeHints'
import type { HintsView } from '../../core/outcomes/outcomeViews'
import { inARow } from '../../core/words/inARow'
import { plural } from '../../core/words/plural'
import './LossHints.css'

/** What losses look like in the record, what speaks for and against it, and what to look at next. */
export function LossHints({ hints: { hints, lookNext, lost } }: { hints: HintsView }) {
  return (
    <div className="loss-hints">
      <p>
        {hints[0] ? (
          <>
            <strong>{hints[0].word === 'points to' ? 'Points to' : 'Fits'} {hints[0].cause}.</strong> {plural(lost, 'fish', 'fish')} lost in two weeks.
          </>
        ) : (
          <>The record points nowhere yet.</>
        )}
      </p>
      {lookNext.length > 0 && (
        <>
          <p className="loss-hints-next">Look next at</p>
          <ul>
            {lookNext.map((look) => (
              <li key={look}>{look}</li>
            ))}
          </ul>
        </>
      )}
      {hints.length > 0 && (
        <details>
          <summary>for and against</summary>
          {hints.map(({ cause, word, for: pro, against }) => (
            <p key={cause}>
              <strong>{cause}</strong>, {word}. For: {inARow(pro)}.{against.length > 0 && ` Against: ${inARow(against)}.`}
            </p>
          ))}
        </details>
      )}
      <p className="aside-word">{notADiagnosis}</p>
    </div>
  )
}
