import { ProgressBar } from 'react-bootstrap'
import { bagDefaults, bagInputs } from '../../core/bench/bagFigures'
import { deliveryOf, practiceAt, type DeliveryFacts } from '../../core/bench/deliveryOf'
import { nowMs } from '../api/clock'
import type { Calculation } from '../../core/desk/calculations'
import { useHouseDefaults, useLimits, useSchools } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { useFormat } from '../ui/useFormat'
import { useKept } from '../ui/useKept'
import { useUnits } from '../ui/useUnits'
import type { JudgeAnswer } from './answerQuestion'
import { FigureForm } from './FigureForm'
import { readFigures } from '../ui/readFigures'
import { SchoolTable } from './SchoolTable'
import { useJudgement } from './useJudgement'
import './compare.css'

/** Whether the fields stand in their ranges is checked as for any calculation of the desk. */
/** A delivery of which nothing is known but its figures. */
const nothingKnown: DeliveryFacts = { kinds: [], triage: null, tankWater: null, tankAgents: [], isOneWater: false, hoursSaid: null, speciesName: 'this fish', waterFacts: { standing: null, usual: null, waters: [], phMax: null } }

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
  const { hour } = useFormat()
  const delivery = checked.ok ? deliveryOf(nothingKnown, figures, words, practiceAt(limits, hour(nowMs())), units.display, { isClassTyped: words.waterClass !== 'unknown' }) : null
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
      {hasBinder && <Notice>A binder is at work: it makes ammonia readings and every figure for ammonia meaningless, so the schools are not compared. Judge by temperature and salinity, and by the fish.</Notice>}
      {delivery?.water.why && <Notice>{delivery.water.why}</Notice>}
      {missing.length > 0 && <p className="aside-word">Still needed: {missing.join(', ')}.</p>}
      <div className="entry-buttons">
        <Button look="act" disabled={!delivery?.question || hasBinder} onClick={() => delivery && ask({ delivery, limits, schools, defaults })}>
          Compare the schools
        </Button>
        {progress && (
          <div className="long-work" role="status">
            <ProgressBar now={(100 * progress.done) / progress.of} aria-label="progress" />
            <span>
              {progress.done.toLocaleString('en')} of {progress.of.toLocaleString('en')} bags
            </span>
            <Button onClick={cancel}>
              Cancel
            </Button>
          </div>
        )}
      </div>
      {answer && !hasBinder && <Comparison answer={answer} isEstimate={answer.reading === null} />}
    </>
  )
}

function Comparison({ answer, isEstimate }: { answer: JudgeAnswer; isEstimate: boolean }) {
  const { verdict, limits, sentence, why, reading } = answer
  return (
    <section className="desk-answer" aria-label="Comparison">
      <p className="verdict">{sentence}</p>
      <p>{why}</p>
      <p>{isEstimate ? `A first answer, from ${verdict.draws} bags; it is being firmed up.` : reading}</p>
      <SchoolTable verdict={verdict} limits={limits} />
    </section>
  )
}
