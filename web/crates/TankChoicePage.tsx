import { DndContext, KeyboardSensor, PointerSensor, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core'
import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { deliveryApi } from '../../core/crates/crates.api'
import { bookingWords, dueWords } from '../../core/tankChoice/bookings'
import { ownKindFinding, type BrokenRule, type Finding } from '../../core/tankChoice/company'
import { cautionsOf, costsOf, forTank, rulesAgainst, tankOptions, type TankOption } from '../../core/tankChoice/explainChoice'
import { prepareChoice, type Prepared } from '../../core/tankChoice/prepareChoice'
import { isWaterUnsaid } from '../../core/tankChoice/rules'
import { faultsOf, scoreChoice } from '../../core/tankChoice/scoreChoice'
import { homelessPoints, type Choice, type ChoiceProgress, type ChoiceView } from '../../core/tankChoice/tankChoice'
import { ApiProblem, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useRead } from '../api/useRead'
import { useSession } from '../api/session'
import { plural } from '../ui/format'
import { InUnits } from '../ui/InUnits'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { SayWater } from '../ui/SayWater'
import { useGoOn } from '../ui/useGoOn'
import { CrateTabs } from './CrateTabs'
import { useCrateEdits } from './useCrates'
import { useTankSearch } from './useTankSearch'

/** Which line goes to which tank: a suggestion for the whole crate, its reasons, and what any other tank would cost or break. */
export function TankChoicePage() {
  const { crateId = '' } = useParams()
  // A plan in the making must not be pulled away by what happens elsewhere; saving says when somebody was faster.
  const { data, problem } = useRead(deliveryApi.readTankChoice, { params: { crateId } }, { isDraft: true })
  if (!data) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the tanks" />
  return <TankPlan key={data.input.lines.map(({ id, animal }, line) => [id, isWaterUnsaid(animal), data.now[line]?.version]).join()} crateId={crateId} view={data} />
}

function TankPlan({ crateId, view }: { crateId: string; view: ChoiceView }) {
  const { input, now } = view
  const prepared = useMemo(() => prepareChoice(input), [input])
  const indexOf = (tankId: string | null): number | null => (tankId === null ? null : input.tanks.findIndex(({ id }) => id === tankId))
  const [choice, setChoice] = useState<Choice>(now.map(({ tankId }) => indexOf(tankId)))
  const [openLine, setOpenLine] = useState<number | null>(null)
  const search = useTankSearch(crateId)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }), useSensor(KeyboardSensor))
  const place = (line: number, tank: number | null): void => {
    // A better answer that came in later would take back what was chosen by hand.
    search.cancel()
    setChoice(choice.with(line, tank))
    setOpenLine(null)
  }
  const drop = ({ active, over }: DragEndEvent): void => {
    if (over) place(Number(active.id), Number(over.id))
  }
  if (input.lines.length === 0) {
    return (
      <>
        <Lead nav={<CrateTabs crateId={crateId} />} title={`Tanks for crate ${view.number}`}>No fish of this crate wait for a tank.</Lead>
        <Nothing>Tanks are chosen for fish in bags. Add lines or count bags in; what is on the bench or in a tank is moved from there.</Nothing>
      </>
    )
  }
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <Lead nav={<CrateTabs crateId={crateId} />} title={`Tanks for crate ${view.number}`}>
        <PlanSentence prepared={prepared} choice={choice} answer={search.answer} />
      </Lead>
      {unsaidOf(prepared).length > 1 && <SayWater of={unsaidOf(prepared).map((line) => ({ lotId: now[line]?.lotId ?? '', species: input.lines[line]?.animal.species ?? '' }))} />}
      <div className="entry-buttons plan-buttons">
        {search.isRunning ? (
          <button type="button" className="button" onClick={search.cancel}>
            Stop searching
          </button>
        ) : (
          <button type="button" className="button" onClick={() => void search.search(({ choice: found }) => setChoice(found))}>
            Suggest tanks
          </button>
        )}
        {search.isRunning && <progress aria-label="search" />}
        {search.problem && (
          <span role="alert" className="form-problem">
            {search.problem}
          </span>
        )}
      </div>
      <div className="tank-plan">
        <ol className="plan-lines" aria-label="Lines">
          {input.lines.map((line, index) => (
            <PlanLine key={line.id} lotId={now[index]?.lotId ?? ''} prepared={prepared} choice={choice} line={index} isOpen={openLine === index} onOpen={() => setOpenLine(openLine === index ? null : index)} onPlace={(tank) => place(index, tank)} />
          ))}
        </ol>
        <TankGrid prepared={prepared} choice={choice} openLine={openLine} onPlace={place} />
      </div>
      <SavePlan crateId={crateId} view={view} prepared={prepared} choice={choice} />
    </DndContext>
  )
}

const rulesWords = (broken: readonly BrokenRule[]): string => broken.map(({ why }) => why).join('; ')
const points = (value: number): string => String(Math.round(value * 10) / 10)

function PlanSentence({ prepared, choice, answer }: { prepared: Prepared; choice: Choice; answer: ChoiceProgress | null }) {
  const { total, homeless } = scoreChoice(prepared, choice)
  const without = homeless / homelessPoints
  const unsaid = unsaidOf(prepared).length
  const none = prepared.possible.filter((tanks) => tanks.length === 0).length - unsaid
  const faults = faultsOf(prepared, choice).length
  const isAnswer = answer?.choice.every((tank, line) => tank === choice[line]) ?? false
  const proof = answer === null || !isAnswer ? '' : answer.gap < 0.0005 ? ` Proven: no sound plan ${unsaid > 0 ? 'of the others ' : ''}costs less.` : ` At most ${Math.ceil(answer.gap * 100)} % could still be saved.`
  return (
    <>
      {without > 0 ? `${plural(without, 'line has', 'lines have')} no tank. ` : faults > 0 ? '' : 'Every line has a tank. '}
      {faults > 0 && `${plural(faults, 'line breaks', 'lines break')} a rule. `}
      {unsaid > 0 && `${plural(unsaid, 'line waits', 'lines wait')} until its water is said. `}
      {points(total - homeless)} points{none > 0 ? `; no tank is possible for ${plural(none, 'line')}` : ''}.{proof}
    </>
  )
}

/** Numbers of the lines of which nobody has said which water they live in. */
const unsaidOf = ({ input }: Prepared): number[] => input.lines.flatMap(({ animal }, line) => (isWaterUnsaid(animal) ? [line] : []))

interface PlanLineProps {
  lotId: string
  prepared: Prepared
  choice: Choice
  line: number
  isOpen: boolean
  onOpen: () => void
  onPlace: (tank: number | null) => void
}

function PlanLine({ lotId, prepared, choice, line, isOpen, onOpen, onPlace }: PlanLineProps) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: String(line) })
  const { animal, count } = prepared.input.lines[line] ?? { animal: null, count: 0 }
  const tank = choice[line] ?? null
  const broken = tank === null ? [] : rulesAgainst(prepared, choice, line, tank)
  const cautions = tank === null ? [] : cautionsOf(prepared, choice, line, tank)
  const style = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 } : undefined
  return (
    <li className={broken.length > 0 ? 'plan-line is-broken' : tank === null ? 'plan-line is-homeless' : 'plan-line'}>
      <div className="plan-head" ref={setNodeRef} style={style}>
        <button type="button" className="drag-handle" aria-label={`drag ${animal?.species} to a tank`} {...attributes} {...listeners}>
          ⠿
        </button>
        <button type="button" className="plan-name" aria-expanded={isOpen} onClick={onOpen}>
          <strong>
            {count} {animal?.species}
          </strong>
          <span className="plan-tank">{tank === null ? 'no tank' : prepared.input.tanks[tank]?.code}</span>
          <small>
            <InUnits>{tank === null ? whyHomeless(prepared, line) : broken.length > 0 ? `breaks a rule: ${rulesWords(broken)}` : reasonsFor(prepared, choice, line, tank, cautions)}</InUnits>
          </small>
          {cautions.map(({ level, why }) => (
            <small key={why} className={level === 'warning' ? 'plan-caution is-warning' : 'plan-caution'}>
              <InUnits>{`${level}: ${why}`}</InUnits>
            </small>
          ))}
        </button>
      </div>
      {animal && isWaterUnsaid(animal) && <SayWater of={[{ lotId, species: animal.species }]} />}
      {isOpen && <Options options={tankOptions(prepared, choice, line)} prepared={prepared} current={tank} onPlace={onPlace} />}
    </li>
  )
}

/** Why a line has no tank, and what can be done: fish that fight their own find none however many stand empty. */
function whyHomeless({ input, possible }: Prepared, line: number): string {
  const own = input.lines[line] ? ownKindFinding(input.lines[line].animal, input.lines[line].count) : null
  if (own?.level === 'forbidden') return `${own.why}. Give each a line of its own (Change crate or lines), or a lead plans them with dividers`
  if (input.lines[line] && isWaterUnsaid(input.lines[line].animal)) return 'nobody has said which water it lives in; say it first'
  return possible[line]?.length === 0 ? 'every tank breaks a rule; open to see which' : 'open to choose, or drag it to a tank'
}

/** What speaks for a tank and what it costs; what stands beside it as a caution is not said twice. */
function reasonsFor(prepared: Prepared, choice: Choice, line: number, tank: number, cautions: readonly Finding[]): string {
  const said = new Set(cautions.map(({ why }) => why))
  const costs = costsOf(prepared, choice, line, tank).filter(({ why }) => !said.has(why)).map(({ points: cost, why }) => `${why} (${points(cost)})`)
  return [...forTank(prepared, line, tank), ...costs].join(', ')
}

const optionsShown = 8

/** Every tank for one line: possible ones by what they cost more, the others with the rule against them. */
function Options({ options, prepared, current, onPlace }: { options: TankOption[]; prepared: Prepared; current: number | null; onPlace: (tank: number | null) => void }) {
  const [showsAll, setShowsAll] = useState(false)
  const shown = showsAll ? options : options.slice(0, optionsShown)
  return (
    <ul className="tank-options">
      {shown.map(({ tank, broken, more, costs, cautions }) => (
        <li key={tank} className={broken.length > 0 ? 'is-forbidden' : undefined}>
          <button type="button" className="hand-button" aria-pressed={tank === current} onClick={() => onPlace(tank)}>
            <strong>{prepared.input.tanks[tank]?.code}</strong>
            <small>
              <InUnits>{broken.length > 0 ? `not: ${rulesWords(broken)}` : [tank === current ? 'chosen' : current === null ? 'possible' : `${more >= 0 ? '+' : '−'}${points(Math.abs(more))} points`, ...new Set([...costs, ...cautions].map(({ why }) => why))].join(', ')}</InUnits>
            </small>
          </button>
        </li>
      ))}
      <li className="option-foot">
        {!showsAll && options.length > optionsShown && (
          <button type="button" className="quiet-button" onClick={() => setShowsAll(true)}>
            all {options.length} tanks
          </button>
        )}
        {current !== null && (
          <button type="button" className="quiet-button" onClick={() => onPlace(null)}>
            no tank yet
          </button>
        )}
      </li>
    </ul>
  )
}

/** All tanks as they would stand: drop a line on one, or open a line to see which are possible. */
function TankGrid({ prepared, choice, openLine, onPlace }: { prepared: Prepared; choice: Choice; openLine: number | null; onPlace: (line: number, tank: number) => void }) {
  return (
    <ul className="plan-tanks" aria-label="Tanks">
      {prepared.input.tanks.map((tank, index) => (
        <PlanTank key={tank.id} prepared={prepared} choice={choice} tank={index} isForbidden={openLine !== null && rulesAgainst(prepared, choice, openLine, index).length > 0} onPick={openLine === null ? null : () => onPlace(openLine, index)} />
      ))}
    </ul>
  )
}

function PlanTank({ prepared, choice, tank, isForbidden, onPick }: { prepared: Prepared; choice: Choice; tank: number; isForbidden: boolean; onPick: (() => void) | null }) {
  const { setNodeRef, isOver, active } = useDroppable({ id: String(tank) })
  const place = prepared.input.tanks[tank]
  const coming = choice.flatMap((at, line) => (at === tank ? [prepared.input.lines[line]?.count ?? 0] : [])).reduce((sum, count) => sum + count, 0)
  const standing = place?.occupants.reduce((sum, { quantity, booked }) => sum + (booked === undefined ? quantity : 0), 0) ?? 0
  const reserved = place?.bookings && place.bookings.length > 0 ? place.bookings : null
  const dragged = active === null ? null : Number(active.id)
  const against = isOver && dragged !== null ? rulesAgainst(prepared, choice, dragged, tank) : []
  const isNo = isForbidden || (dragged !== null && rulesAgainst(prepared, choice, dragged, tank).length > 0)
  const counts = `${standing > 0 ? standing : ''}${coming > 0 ? `+${coming}` : ''}`
  const taken = dueWords(place?.bookings ?? [])
  // Begins with what is seen, so that whoever speaks to the screen says what they read.
  const label = `${[place?.code, counts, taken, isNo ? 'no' : ''].filter(Boolean).join(' ')}: ${standing} fish${coming > 0 ? `, ${coming} planned` : ''}${reserved ? `. ${bookingWords(reserved)}` : ''}${isNo ? ', breaks a rule' : ''}`
  const names = ['plan-tank', standing + coming === 0 ? 'is-empty' : '', coming > 0 ? 'is-planned' : '', reserved ? 'is-reserved' : '', isNo ? 'is-forbidden' : '', isOver ? 'is-over' : ''].filter(Boolean).join(' ')
  return (
    <li ref={setNodeRef} className={names}>
      <button type="button" disabled={onPick === null} onClick={onPick ?? undefined} aria-label={label}>
        <span>{place?.code}</span> <strong>{counts}</strong> {taken && <small className="booked">{taken}</small>} {isNo && <small>no</small>}
      </button>
      {isOver && dragged !== null && (
        <small className="over-words">
          <InUnits>{against.length > 0 ? rulesWords(against) : costWords(prepared, choice, dragged, tank)}</InUnits>
        </small>
      )}
    </li>
  )
}

/** What dropping a line on a tank would cost more, or save. */
function costWords(prepared: Prepared, choice: Choice, line: number, tank: number): string {
  const more = scoreChoice(prepared, choice.with(line, tank)).total - scoreChoice(prepared, choice).total
  const causes = costsOf(prepared, choice, line, tank).map(({ why }) => why)
  const change = choice[line] === null ? 'possible' : `${more >= 0 ? '+' : '−'}${points(Math.abs(more))} points`
  return [change, ...causes].join(', ')
}

/** Keeps the plan. A rule that is broken asks a lead for a reason. */
function SavePlan({ crateId, view, prepared, choice }: { crateId: string; view: ChoiceView; prepared: Prepared; choice: Choice }) {
  const { recorder } = useSession()
  const { chooseTanks } = useCrateEdits(crateId)
  const goOn = useGoOn()
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const { tanks, lines } = prepared.input
  const changed = view.now.flatMap(({ tankId, version }, line) => {
    const wanted = choice[line] === null || choice[line] === undefined ? null : (tanks[choice[line]]?.id ?? null)
    return wanted === tankId ? [] : [{ lineId: lines[line]?.id ?? '', tankId: wanted, version, override: reason.trim() || null }]
  })
  const broken = choice.some((tank, line) => tank !== null && changed.some(({ lineId }) => lineId === lines[line]?.id) && rulesAgainst(prepared, choice, line, tank).length > 0)
  const kept = view.now.filter(({ override }) => override !== null)
  const save = async (): Promise<void> => {
    setProblem(null)
    await chooseTanks({ choices: changed }).then(
      () => goOn(`/crates/${crateId}`),
      (error: unknown) => setProblem(error instanceof ApiProblem && error.code === 'stale' ? `${sentenceOf(error)}. Reload this page to plan with what stands now.` : (Object.values(errorsByField(error) ?? {})[0] ?? sentenceOf(error))),
    )
  }
  return (
    <section className="save-plan" aria-label="Keep the plan">
      {kept.map(({ override }, index) => (
        <p key={index} className="notice">
          Planned against a rule: {override}
        </p>
      ))}
      {broken &&
        (recorder.role === 'lead' ? (
          <label className="note-line">
            why all the same
            <input value={reason} maxLength={500} placeholder="a hard rule is broken; the reason is kept" onChange={(event) => setReason(event.currentTarget.value)} />
          </label>
        ) : (
          <p className="notice is-watch">This plan breaks a hard rule. Only a lead may plan it so.</p>
        ))}
      {problem && (
        <p className="form-problem" role="alert">
          {problem}
        </p>
      )}
      <div className="thumb-bar page-action">
        {changed.length > 0 ? (
          <button type="button" className="hand-button act" onClick={() => void save()}>
            <strong>Keep this plan</strong>
            <small>{plural(changed.length, 'line')} changed</small>
          </button>
        ) : (
          <Link className="hand-button" to={`/crates/${crateId}`}>
            Back to the crate
          </Link>
        )}
      </div>
    </section>
  )
}
