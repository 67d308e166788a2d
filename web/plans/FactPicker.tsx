import { useId } from 'react'
import type { OfferedFact } from '../../core/plans/plans.schema'
import type { PlanChoices } from '../../core/plans/planView'
import type { TankSummary } from '../../core/room/roomView'
import { readingNames } from '../../core/room/glass.schema'
import { Button } from '../ui/Button'
import { ChoiceField, TextField, Tick } from '../ui/Field'
import { FigureField } from '../ui/FigureField'
import { readingInput } from '../ui/readingInput'
import { ReadingOptions } from '../ui/ReadingOptions'
import { TankOptions } from '../ui/TankOptions'
import type { FactDraft } from './planDraft'

interface Props {
  facts: readonly FactDraft[]
  onChange: (facts: FactDraft[]) => void
  /** What is wrong, by its field: `facts[0].on`. */
  problems: Readonly<Record<string, string>>
  choices: PlanChoices
  tanks: readonly TankSummary[]
  /** The tank they go to: what most plans wait for. */
  to: { id: string; code: string }
}

const offered: readonly (readonly [OfferedFact, string])[] = [
  ['date', 'a day'],
  ['empty', 'an empty tank'],
  ['size', 'their length'],
  ['hold', 'the end of their hold'],
  ['thing', 'things to come'],
  ['crate', 'a crate'],
  ['count', 'fewer fish'],
  ['reading', 'a reading'],
  ['done', 'another plan'],
]

/** What a plan waits for: one touch for each, and what it has to say. */
export function FactPicker({ facts, onChange, problems, choices, tanks, to }: Props) {
  const mayAdd = ([is]: readonly [OfferedFact, string]): boolean => (is === 'crate' ? choices.crates.length > 0 : is === 'done' ? choices.plans.length > 0 : !(is === 'hold' && facts.some((fact) => fact.is === 'hold')))
  const add = (is: OfferedFact): void => onChange([...facts, { is, ...(is === 'empty' || is === 'count' || is === 'reading' ? { tankId: to.id } : {}) }])
  const change = (index: number, fact: FactDraft): void => onChange(facts.map((each, at) => (at === index ? fact : each)))
  return (
    <section aria-label="What it waits for">
      <ul className="plan-facts">
        {facts.map((fact, index) => (
          <li key={index}>
            <FactFields fact={fact} path={`facts[${index}]`} onChange={(next) => change(index, next)} problems={problems} choices={choices} tanks={tanks} />
            <Button look="quiet" onClick={() => onChange(facts.filter((_, at) => at !== index))}>
              not this
            </Button>
          </li>
        ))}
      </ul>
      <div className="entry-buttons" role="group" aria-label="Wait for">
        {offered.filter(mayAdd).map(([is, words]) => (
          <Button key={is} size="hand" onClick={() => add(is)}>
            {words}
          </Button>
        ))}
      </div>
    </section>
  )
}

interface FieldsProps extends Pick<Props, 'problems' | 'choices' | 'tanks'> {
  fact: FactDraft
  path: string
  onChange: (fact: FactDraft) => void
}

function FactFields({ fact, path, onChange, problems, choices, tanks }: FieldsProps) {
  const names = useId()
  const set = (more: Partial<FactDraft>): void => onChange({ ...fact, ...more })
  const problem = (slot: string): string | undefined => problems[`${path}.${slot}`]
  switch (fact.is) {
    case 'date':
      return <TextField label="From this day on" type="date" value={fact.on ?? ''} problem={problem('on')} onChange={(on) => set({ on })} />
    case 'empty':
    case 'free':
      return (
        <ChoiceField label="Empty and ready" value={fact.tankId ?? ''} problem={problem('tankId')} onChange={(tankId) => set({ tankId })}>
          <TankOptions tanks={tanks} />
        </ChoiceField>
      )
    case 'size':
      return (
        <div className="plan-fact">
          <TextField label="They are as long as" unit="cm" inputMode="decimal" value={fact.cm ?? ''} problem={problem('cm')} onChange={(cm) => set({ cm })} />
          <Tick label="the estimate is enough, no ruler" isOn={fact.isEstimateEnough ?? false} onChange={(isEstimateEnough) => set({ isEstimateEnough })} />
        </div>
      )
    case 'hold':
      return <p>Their hold is over</p>
    case 'crate':
      return (
        <ChoiceField label="It has come" value={fact.crateId ?? ''} problem={problem('crateId')} onChange={(crateId) => set({ crateId })}>
          <option value="">which crate</option>
          {choices.crates.map(({ id, number, supplier }) => (
            <option key={id} value={id}>
              crate {number}, {supplier}
            </option>
          ))}
        </ChoiceField>
      )
    case 'thing':
      return (
        <div className="plan-fact">
          <TextField label="So many" inputMode="numeric" value={fact.n ?? ''} problem={problem('n')} onChange={(n) => set({ n })} />
          <TextField label="of" placeholder="such as caves" maxLength={80} list={names} value={fact.thing ?? ''} problem={problem('thing')} onChange={(thing) => set({ thing })} />
          <datalist id={names}>
            {choices.things.map(({ name }) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </div>
      )
    case 'count':
      return (
        <div className="plan-fact">
          <ChoiceField label="Fish left in" value={fact.tankId ?? ''} problem={problem('tankId')} onChange={(tankId) => set({ tankId })}>
            <TankOptions tanks={tanks} />
          </ChoiceField>
          <TextField label="at most" inputMode="numeric" value={fact.n ?? ''} problem={problem('n')} onChange={(n) => set({ n })} />
        </div>
      )
    case 'reading':
      return (
        <div className="plan-fact">
          <ChoiceField label="Read" value={fact.reading ?? ''} problem={problem('reading')} onChange={(reading) => set({ reading: readingNames.find((name) => name === reading) })}>
            <option value="">which reading</option>
            <ReadingOptions />
          </ChoiceField>
          <ChoiceField label="in the water of" value={fact.tankId ?? ''} problem={problem('tankId')} onChange={(tankId) => set({ tankId })}>
            <TankOptions tanks={tanks} />
          </ChoiceField>
          <div className="plan-bounds">
            <FigureField field={readingInput(fact.reading, 'at least', true)} value={fact.min ?? ''} problem={problem('min') ?? null} onChange={(min) => set({ min })} />
            <FigureField field={readingInput(fact.reading, 'at most', true)} value={fact.max ?? ''} problem={problem('max') ?? null} onChange={(max) => set({ max })} />
          </div>
        </div>
      )
    case 'done':
      return (
        <ChoiceField label="It is done" value={fact.planId ?? ''} problem={problem('planId')} onChange={(planId) => set({ planId })}>
          <option value="">which plan</option>
          {choices.plans.map(({ id, words }) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </ChoiceField>
      )
  }
}
