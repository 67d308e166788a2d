import { useDraggable } from '@dnd-kit/core'
import { useState } from 'react'
import { ownKindFinding, type Finding } from '../../core/tankChoice/company'
import { cautionsOf, costsOf, forTank, rulesAgainst, tankOptions, type TankOption } from '../../core/tankChoice/explainChoice'
import type { Prepared } from '../../core/tankChoice/prepareChoice'
import { isWaterUnsaid } from '../../core/tankChoice/rules'
import type { Choice } from '../../core/tankChoice/tankChoice'
import { Button } from '../ui/Button'
import { InUnits } from '../ui/InUnits'
import { SayWater } from '../ui/SayWater'
import { points, rulesWords } from './planWords'

interface PlanLineProps {
  lotId: string
  prepared: Prepared
  choice: Choice
  line: number
  isOpen: boolean
  onOpen: () => void
  onPlace: (tank: number | null) => void
}

/** One line of the crate: its tank with the reasons, and, opened, every other. */
export function PlanLine({ lotId, prepared, choice, line, isOpen, onOpen, onPlace }: PlanLineProps) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: String(line) })
  const { animal, count } = prepared.input.lines[line] ?? { animal: null, count: 0 }
  const tank = choice[line] ?? null
  const broken = tank === null ? [] : rulesAgainst(prepared, choice, line, tank)
  const cautions = tank === null ? [] : cautionsOf(prepared, choice, line, tank)
  const style = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 } : undefined
  return (
    <li className={broken.length > 0 ? 'plan-line is-broken' : tank === null ? 'plan-line is-homeless' : 'plan-line'}>
      <div className="plan-head" ref={setNodeRef} style={style}>
        <Button look="bare" className="drag-handle" aria-label={`drag ${animal?.species} to a tank`} {...attributes} {...listeners}>
          ⠿
        </Button>
        <Button look="bare" className="plan-name" aria-expanded={isOpen} onClick={onOpen}>
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
        </Button>
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
          <Button size="hand" aria-pressed={tank === current} onClick={() => onPlace(tank)}>
            <strong>{prepared.input.tanks[tank]?.code}</strong>
            <small>
              <InUnits>{broken.length > 0 ? `not: ${rulesWords(broken)}` : [tank === current ? 'chosen' : current === null ? 'possible' : `${more >= 0 ? '+' : '−'}${points(Math.abs(more))} points`, ...new Set([...costs, ...cautions].map(({ why }) => why))].join(', ')}</InUnits>
            </small>
          </Button>
        </li>
      ))}
      <li className="option-foot">
        {!showsAll && options.length > optionsShown && (
          <Button look="quiet" onClick={() => setShowsAll(true)}>
            all {options.length} tanks
          </Button>
        )}
        {current !== null && (
          <Button look="quiet" onClick={() => onPlace(null)}>
            no tank yet
          </Button>
        )}
      </li>
    </ul>
  )
}
