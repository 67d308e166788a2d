import { Button, ProgressBar, Table } from 'react-bootstrap'
import { figureAndLimit } from '../../core/acclimation/sentences'
import { bagDefaults, bagInputs, toQuestion } from '../../core/bench/bagFigures'
import type { Calculation } from '../../core/desk/calculations'
import { useHouseDefaults, useLimits, useSchools } from '../api/sharedReads'
import { Lead } from '../ui/Lead'
import { useKept } from '../ui/useKept'
import { useUnits } from '../ui/useUnits'
import type { JudgeAnswer } from './answerQuestion'
import { FigureForm } from './FigureForm'
import { readFigures } from '../ui/readFigures'
import { useJudgement } from './useJudgement'

/** Whether the fields stand in their ranges is checked as for any calculation of the desk. */
const check: Calculation = { key: 'bag', title: '', inputs: bagInputs, formula: '', source: '', range: '', caution: '', compute: () => [] }

/** A delivery typed by hand: every school of acclimation against the house limits, over two thousand plausible bags. */
export function BagToTankPage() {
  const units = useUnits()
  const [kept, keep] = useKept<Record<string, string>>('crate.desk.bag')
  const typed = kept ?? {}
  const limits = useLimits()
  const schools = useSchools()
  const defaults = useHouseDefaults()
  const { answer, progress, ask, cancel } = useJudgement()
  const { words, figures, answer: checked, missing, problemOf, valueOf } = readFigures(check, typed, units, bagDefaults)
  const hasBinder = words.binder === 'yes'
  return (
    <>
      <Lead title="A bag into a tank">Compares the schools of acclimation for one delivery. It compares waters and does not predict survival; the choice stays yours.</Lead>
      <FigureForm
        valueOf={valueOf}
        problemOf={problemOf}
        known={bagDefaults}
        onChange={(name, value) => {
          cancel()
          keep({ ...typed, [name]: value })
        }}
      />
      {hasBinder && <p className="notice">A binder is at work: it makes ammonia readings and every figure for ammonia meaningless, so the schools are not compared. Judge by temperature and salinity, and by the fish.</p>}
      {missing.length > 0 && <p className="aside-word">Still needed: {missing.join(', ')}.</p>}
      <div className="entry-buttons">
        <Button className="act" disabled={!checked.ok || hasBinder} onClick={() => ask(toQuestion(figures, words), limits, schools, defaults)}>
          Compare the schools
        </Button>
        {progress && (
          <div className="long-work" role="status">
            <ProgressBar now={(100 * progress.done) / progress.of} aria-label="progress" />
            <span>
              {progress.done.toLocaleString('en')} of {progress.of.toLocaleString('en')} bags
            </span>
            <button type="button" className="button" onClick={cancel}>
              Cancel
            </button>
          </div>
        )}
      </div>
      {answer && !hasBinder && <Comparison answer={answer} isEstimate={answer.reading === null} />}
    </>
  )
}

function Comparison({ answer, isEstimate }: { answer: JudgeAnswer; isEstimate: boolean }) {
  const { verdict, limits, sentence, reading } = answer
  const units = useUnits()
  const rows = [...verdict.schools].sort((a, b) => Number(b.key === verdict.recommended) - Number(a.key === verdict.recommended) || a.worst - b.worst)
  return (
    <section className="desk-answer" aria-label="Comparison">
      <p className="verdict">{sentence}</p>
      <p>{isEstimate ? `A first answer, from ${verdict.draws} bags; it is being firmed up.` : reading}</p>
      <Table responsive className="record-table">
        <thead>
          <tr>
            <th scope="col">school</th>
            <th scope="col">against its nearest limit</th>
            <th scope="col" className="number">NH3-N peak mg/L</th>
            <th scope="col" className="number">dose mg·min/L</th>
            <th scope="col" className="number">time min</th>
            <th scope="col" className="number">work min</th>
            <th scope="col" className="number">water {units.label('volume')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((school) => {
            const { figure, value, limit } = figureAndLimit(school, limits, units.display)
            return (
              <tr key={school.key} className={school.worst < 1 ? undefined : 'is-over'}>
                <th scope="row">
                  {school.name} {school.key === verdict.recommended && <small>recommended</small>}
                </th>
                <td>
                  <span className="ratio-bar" aria-hidden="true">
                    <span className={school.worst < 1 ? 'is-under' : 'is-over'} style={{ width: `${Math.min(100, school.worst * 50)}%` }} />
                  </span>
                  {school.worst < 1 ? 'under' : 'over'}: {figure} {value}, limit {limit}
                </td>
                <td className="number">{school.figures.peakMgL.toFixed(3)}</td>
                <td className="number">{school.figures.doseAboveFloor.toFixed(2)}</td>
                <td className="number">{school.likely.minutes.toFixed(0)}</td>
                <td className="number">{school.workMinutes.toFixed(0)}</td>
                <td className="number">{units.figure('volume', school.litres)}</td>
              </tr>
            )
          })}
        </tbody>
      </Table>
      <p className="aside-word">Figures are 90th percentiles over plausible bags: nine of ten are no worse. Dose counts above 0.02 mg/L. Limits are guidance of this house (Setup, House limits), scaled by what the species bears.</p>
    </section>
  )
}
