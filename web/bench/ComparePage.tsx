import { lazy, Suspense, useEffect, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { gapPpt } from '../../core/acclimation/question'
import type { School } from '../../core/acclimation/schools'
import { allowedSchools, nothingCompared, refusalsOf, type Refusal } from '../../core/bench/adviseDelivery'
import { bagDefaults, bagInputs } from '../../core/bench/bagFigures'
import { deliveryOf, practiceAt } from '../../core/bench/deliveryOf'
import type { BenchSubject } from '../../core/bench/benchView'
import { crossingGapPpt } from '../../core/acclimation/schools'
import { isPressing } from '../../core/crates/triage'
import { crossingWords, mayBePooled } from '../../core/bench/fishRules'
import type { Calculation } from '../../core/desk/calculations'
import { useHouseDefaults, useLimits, useRoomView, useSchools } from '../api/sharedReads'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { plural } from '../ui/format'
import { HandlingNotes } from '../ui/HandlingNotes'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankOptions } from '../ui/TankOptions'
import { readFigures } from '../ui/readFigures'
import { useKept } from '../ui/useKept'
import { useFormat } from '../ui/useFormat'
import { useStable } from '../ui/useStable'
import { useUnits } from '../ui/useUnits'
import { AskWater } from './AskWater'
import { BagFacts } from './BagFacts'
import { allFish, ChooseFish, withChosen } from './ChooseFish'
import { FigureForm } from './FigureForm'
import { FirstResponse } from './FirstResponse'
import { SchoolRanking } from './SchoolRanking'
import { SchoolTable } from './SchoolTable'
import { schoolInHand } from './startBody'
import { StartRun } from './StartRun'
import { useCurves } from './useCurves'
import { useJudgement } from './useJudgement'
import { TrialOffer } from './TrialOffer'
import { useSubject, useTrialOf } from './useBench'
import { Verdict } from './Verdict'
import './bench.css'
import './compare.css'

// Charts are the heaviest part of the program; a hand screen does not wait for them.
const loadCharts = () => import('./CurveCharts').then((module) => ({ default: module.CurveCharts }))
const CurveCharts = lazy(loadCharts)

/** Whether the fields stand in their ranges is checked as for any calculation of the desk. */
const check: Calculation = { key: 'bag', title: '', inputs: bagInputs, formula: '', source: '', range: '', caution: '', compute: () => [] }

/** How to acclimate these fish: every school side by side, a recommendation in words, and the run begun from it. */
export function ComparePage() {
  const [search] = useSearchParams()
  const [line, bag, lot, from, kind, tank] = [search.getAll('line'), search.get('bag'), search.get('lot'), search.get('from'), search.get('kind'), search.get('tank')]
  const isAsked = line.length > 0 || lot !== null
  const { subject, problem } = useSubject(isAsked ? { line, bag, lot, from, kind, tank } : null)
  if (!isAsked) return <Nothing>Say which fish: <Link to="/bench">the bench</Link> lists those that wait.</Nothing>
  if (!subject) return problem ? <Trouble problem={problem} back={{ to: '/bench', label: 'The bench' }} /> : <Waiting what="the fish" />
  return <Compare key={[...subject.lineIds, search.get('bag')].join() || `${subject.sources[0]?.lotId} ${subject.sources[0]?.placeId}`} subject={subject} />
}

function Compare({ subject: all }: { subject: BenchSubject }) {
  const [fish, chooseFish] = useState(allFish)
  const subject = withChosen(all, fish)
  const units = useUnits()
  const limits = useLimits()
  const allSchools = useSchools()
  const defaults = useHouseDefaults()
  const [kept, keep] = useKept<Record<string, string>>(`crate.bench.${subject.lineIds.join() || subject.sources[0]?.lotId}`)
  const typed = kept ?? {}
  const known = { ...bagDefaults, ...Object.fromEntries(Object.entries(subject.figures).map(([name, { value }]) => [name, value])) }
  const { words, figures, answer: checked, missing, problemOf, valueOf } = readFigures(check, { ...subject.words, ...typed }, units, known)
  const hasBinder = words.binder === 'yes'
  const { hour } = useFormat()
  const typedNames = Object.keys(typed).filter((name) => typed[name]?.trim())
  const delivery = useStable(deliveryOf(subject, figures, words, practiceAt(limits, hour(nowMs())), units.display, { isClassTyped: typedNames.includes('waterClass'), isReadTyped: typedNames.includes('measuredPpt') }))
  const nothing = nothingCompared(delivery, allSchools)
  const question = checked.ok ? delivery.question : null
  const isReady = question !== null && nothing === null
  const { answer, problem, progress, isWaiting, ask, cancel } = useJudgement()
  const [chosen, choose] = useState<string | null>(null)
  const [isEditing, setEditing] = useState(false)
  const refusals = useStable(refusalsOf(delivery, allSchools, units.display, limits))
  const schools = useStable(allowedSchools(delivery, allSchools))
  // What is said with its figures below is not said a second time.
  const against = subject.against.filter(({ code }) => !refusals.some((each) => each.what === 'tank' && (each.code === code || (each.code === 'forbidden agent' && code === 'agent'))))
  const asked = useStable(isReady ? { delivery, limits, schools: allSchools, defaults } : null)
  useEffect(() => {
    if (asked === null) return cancel()
    // Whoever is still typing does not start two thousand bags with each digit.
    const timer = setTimeout(() => ask(asked), 250)
    return () => clearTimeout(timer)
  }, [asked, ask, cancel])
  // Read in while the first bags are drawn, so that drawing is all that is left to do.
  useEffect(() => void loadCharts(), [])
  const isRelease = answer?.advice.first === 'release now'
  const advised = isRelease ? answer.advice.schoolKey : (answer?.verdict.recommended ?? null)
  const trial = useTrialOf(subject.crate?.id ?? null)
  // The school of a trial stands before the advice, as long as it breaks no limit for these very fish.
  const tried = trial?.school != null && !isRelease ? (answer?.verdict.schools.find(({ name, worst }) => name === trial.school && worst < 1)?.key ?? null) : null
  // Fish that come out of the same water only change their tank.
  const key = chosen ?? tried ?? (isReady ? advised : delivery.isOneWater ? 'straight' : null)
  const variant = answer?.verdict.schools.find((each) => each.key === key)?.variant ?? null
  const school = useStable(schoolInHand(schools, key, variant, question, limits))
  const quick = useStable(isRelease && isReady ? schoolInHand(schools, advised, null, question, limits) : null)
  // One worker at a time: two would leave no core for the page.
  const curves = useCurves(isReady && answer && progress === null ? school : null, question, limits)
  return (
    <div className="compare">
      <Lead title={subject.title} aside={<Target subject={subject} />}>
        {subject.crate && <Link to={`/crates/${subject.crate.id}`}>crate {subject.crate.number}</Link>} {missing.length > 0 ? `Still needed: ${missing.join(', ')}.` : subject.sources.length === 0 ? 'The bags are still shut: this is what to expect. Open them in Unpack, then begin the run here.' : ''}
      </Lead>
      <ChooseFish subject={all} chosen={fish} onChange={chooseFish} />
      <Company subject={all} />
      <HandlingNotes of={subject.kinds.map((kind) => ({ species: kind.species, handling: kind }))} />
      {/* Above all that comes late: a button that moves while a finger is on it loses the touch. */}
      <FirstResponse subject={subject} delivery={delivery} advice={isReady ? (answer?.advice ?? null) : null} figures={figures} words={delivery.question ? { ...words, waterClass: delivery.water.waterClass } : words} quick={quick} isReady={checked.ok} />
      {against.length > 0 && (
        <Notice level="harm" role="alert">
          {subject.tank?.code} breaks a rule: {against.map(({ why }) => why).join('; ')}. Choose another tank above.
        </Notice>
      )}
      {refusals.filter(({ what }) => what === 'tank' || what === 'together').map(({ why, code }) => (
        <p key={why} className={code === 'forbidden agent' ? 'notice is-harm' : 'notice is-watch'}>
          {why}.
        </p>
      ))}
      <div className="compare-columns">
        <div>
          <div className="entry-buttons">
            <Button aria-expanded={isEditing || missing.length > 0} onClick={() => setEditing(!isEditing)}>
              {isEditing ? 'Done with figures' : 'Change figures'}
            </Button>
            {typedNames.length > 0 && (
              <Button look="quiet" onClick={() => keep(null)}>
                back to what the books say
              </Button>
            )}
          </div>
          <BagFacts subject={subject} figures={figures} typed={typedNames} bag={isReady ? (answer?.bag ?? null) : null} />
          {answer && isReady && <ReadingsWorth answer={answer} />}
        </div>
        <div>
          {delivery.water.waterClass === 'unknown' && !delivery.isOneWater && <AskWater water={delivery.water} onRead={(measuredPpt) => keep({ ...typed, measuredPpt })} onTold={(waterClass) => keep({ ...typed, waterClass })} />}
          <NotOffered refusals={refusals} names={allSchools} />
          {question && gapPpt(question) > crossingGapPpt && crossingWords(subject.kinds).map((words) => <Notice key={words}>{words}</Notice>)}
          {nothing !== null && delivery.water.waterClass !== 'unknown' && <Notice>{nothing}{hasBinder ? ' Any school can still be begun.' : ''}</Notice>}
          {problem && isReady && <Notice role="alert">{problem}</Notice>}
          {trial && subject.crate && answer && isReady && <TrialOffer trial={trial} crateId={subject.crate.id} crateNumber={subject.crate.number} verdict={answer.verdict} hasBinder={hasBinder} isPressing={isRelease || (subject.triage !== null && isPressing(subject.triage.step))} isInHand={tried !== null && key === tried} onSchool={choose} />}
          {answer && isReady && question && <Verdict answer={answer} subject={subject} question={question} chosen={school} limits={limits} />}
          {/* What the verdict would push down is not offered before it, but what was chosen in it stays. */}
          {question && (
            <div hidden={(isReady && isWaiting) || delivery.water.waterClass === 'unknown'}>
              <StartRun subject={subject} figures={figures} words={{ ...words, waterClass: delivery.water.waterClass }} isFirst={!subject.triage || !isPressing(subject.triage.step)} question={question} school={school} schools={schools} verdict={isReady ? (answer?.verdict ?? null) : null} sentence={answer && chosen === null && tried === null ? (isRelease ? answer.advice.sentence : answer.sentence) : null} limits={limits} onSchool={choose} />
            </div>
          )}
          {progress && isReady && (
            <p className="long-work" role="status">
              <Button look="quiet" onClick={cancel}>
                that is enough
              </Button>
              {progress.done.toLocaleString('en')} of {progress.of.toLocaleString('en')} plausible bags
            </p>
          )}
          {answer && isReady && <SchoolRanking verdict={answer.verdict} limits={answer.limits} advised={advised} chosen={key ?? ''} onChoose={choose} />}
        </div>
      </div>
      {(isEditing || missing.length > 0) && <FigureForm valueOf={(name) => (name in typed || words[name] !== undefined ? valueOf(name) : '')} problemOf={problemOf} known={known} onChange={(name, value) => keep({ ...typed, [name]: value })} />}
      {answer && isReady && (
        <details className="why">
          <summary>all schools in figures</summary>
          <SchoolTable verdict={answer.verdict} limits={answer.limits} advised={advised} isBesideRanking />
        </details>
      )}
      {curves && answer && isReady && school && (
        <Suspense fallback={<p className="aside-word">Drawing the curves…</p>}>
          <CurveCharts curves={curves} limits={answer.limits} name={school.name} />
        </Suspense>
      )}
    </div>
  )
}

/** What is not on offer for these fish, each reason once. */
function NotOffered({ refusals, names }: { refusals: readonly Refusal[]; names: readonly School[] }) {
  const withheld = refusals.filter(({ what }) => names.some(({ key }) => key === what))
  return [...new Set(withheld.map(({ why }) => why))].map((why) => (
    <Notice key={why}>
      Not offered: {names.filter(({ key }) => withheld.some((each) => each.what === key && each.why === why)).map(({ name }) => name).join(', ')}. {why}.
    </Notice>
  ))
}

/** Where the fish are to go; another tank brings its own figures. */
function Target({ subject }: { subject: BenchSubject }) {
  const { room } = useRoomView()
  const [search, setSearch] = useSearchParams()
  return (
    <ChoiceField
      label={<>to<span className="visually-hidden">: goes to</span></>}
      className="target-choice"
      value={subject.tank?.id ?? ''}
      onChange={(tankId) => {
        const next = new URLSearchParams(search)
        if (tankId) next.set('tank', tankId)
        else next.delete('tank')
        setSearch(next, { replace: true })
      }}
    >
      <option value="">{subject.lineIds.length > 0 ? 'no tank planned' : 'out of the room'}</option>
      <TankOptions tanks={room?.tanks ?? []} />
    </ChoiceField>
  )
}

/** Other fish that go to the same tank, and may share the vessel. */
function Company({ subject }: { subject: BenchSubject }) {
  const [search, setSearch] = useSearchParams()
  const { lineIds, company, tank, sources } = subject
  // Shut bags cannot be poured together.
  if (sources.length === 0 || (lineIds.length < 2 && (company.length === 0 || !mayBePooled(subject.kinds)))) return null
  const setLines = (lines: readonly string[]): void => {
    const next = new URLSearchParams(search)
    next.delete('line')
    for (const line of lines) next.append('line', line)
    setSearch(next, { replace: true })
  }
  return (
    <div className="choose-bags" role="group" aria-label="Also in this vessel">
      <span>Also to {tank?.code}, in the same vessel:</span>
      {company.map(({ lineId, species, bags }) => (
        <Button key={lineId} aria-pressed={false} onClick={() => setLines([...lineIds, lineId])}>
          {species}, {plural(bags, 'bag')}
        </Button>
      ))}
      {lineIds.length > 1 && (
        <Button look="quiet" onClick={() => setLines(lineIds.slice(0, 1))}>
          only the first
        </Button>
      )}
    </div>
  )
}

const kindWords = { pH: 'pH', ammonia: 'ammonia', salinity: 'salinity', temperature: 'temperature', alkalinity: 'alkalinity' }

/** How often each reading that is still open would change the choice. */
function ReadingsWorth({ answer }: { answer: NonNullable<ReturnType<typeof useJudgement>['answer']> }) {
  const turning = answer.readings.filter(({ change }) => Math.round(100 * change) > 0)
  return (
    <section className="readings-worth">
      <h2>{answer.reading === null ? 'Which reading is worth taking?' : 'Worth reading before you cut?'}</h2>
      <p>
        <strong>{answer.reading ?? 'Being worked out.'}</strong>
      </p>
      {turning.length > 0 && <p className="aside-word">Would change the choice: {turning.map(({ kind, change }) => `${kindWords[kind]} in ${Math.round(100 * change)} of 100`).join(', ')}.</p>}
    </section>
  )
}
