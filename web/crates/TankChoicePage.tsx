import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core'
import { useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { prepareChoice, type Prepared } from '../../core/tankChoice/prepareChoice'
import { isWaterUnsaid } from '../../core/tankChoice/rules'
import { faultsOf, scoreChoice } from '../../core/tankChoice/scoreChoice'
import { homelessPoints, type Choice, type ChoiceProgress, type ChoiceView } from '../../core/tankChoice/tankChoice'
import { Button } from '../ui/Button'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { SayWater } from '../ui/SayWater'
import { CrateTabs } from './CrateTabs'
import { PlanLine } from './PlanLine'
import { points } from './planWords'
import { SavePlan } from './SavePlan'
import { TankGrid } from './TankGrid'
import { useTankChoice } from './useCrates'
import { useTankSearch } from './useTankSearch'
import './crates.css'
import './tankChoice.css'

/** Which line goes to which tank: a suggestion for the whole crate, its reasons, and what any other tank would cost or break. */
export function TankChoicePage() {
  const { crateId = '' } = useParams()
  const { data, problem } = useTankChoice(crateId)
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
          <Button onClick={search.cancel}>
            Stop searching
          </Button>
        ) : (
          <Button onClick={() => void search.search(({ choice: found }) => setChoice(found))}>
            Suggest tanks
          </Button>
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
