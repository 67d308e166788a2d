import { useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { calculations, type Calculation, type DeskLine } from '../../core/desk/calculations'
import { Lead } from '../ui/Lead'
import { Nothing } from '../ui/PageState'
import { useKept } from '../ui/useKept'
import { useUnits, type Units } from '../ui/useUnits'
import { TakeIntoRun } from './TakeIntoRun'
import { FigureField } from '../ui/FigureField'
import { Notice } from '../ui/Notice'
import { readFigures } from '../ui/readFigures'
import './desk.css'

/** One calculation: its figures, its answer while one types, and what the answer rests on. */
export function CalculatorPage() {
  const { key = '' } = useParams()
  const calculation = calculations.find((each) => each.key === key)
  return calculation ? <Calculator key={key} calculation={calculation} /> : <Nothing>There is no such calculation.</Nothing>
}

function Calculator({ calculation }: { calculation: Calculation }) {
  const { key, title, inputs } = calculation
  const units = useUnits()
  // Kept on this device, so that a look elsewhere does not lose half a calculation.
  const [kept, keep] = useKept<Record<string, string>>(`crate.desk.${key}`)
  // Figures that another screen brought along stand there until somebody types over them.
  const [search] = useSearchParams()
  const [isTouched, setTouched] = useState(false)
  const brought = Object.fromEntries(inputs.flatMap(({ name, quantity }): [string, string][] => {
    const value = search.get(name)
    return value === null || !Number.isFinite(Number(value)) ? [] : [[name, quantity ? units.figure(quantity, Number(value)) : value]]
  }))
  const typed = { ...(kept ?? {}), ...(isTouched ? {} : brought) }
  const { words, answer, missing, problemOf, valueOf } = readFigures(calculation, typed, units)
  return (
    <>
      <Lead title={title}>{missing.length > 0 ? `Still needed: ${missing.join(', ')}.` : ''}</Lead>
      <form className="desk-fields" onSubmit={(event) => event.preventDefault()}>
        {inputs.map((field) => (
          <FigureField key={field.name} field={field} value={valueOf(field.name)} problem={problemOf(field.name)} onChange={(value) => {
              setTouched(true)
              keep({ ...typed, [field.name]: value })
            }}
          />
        ))}
      </form>
      <section className="desk-answer" aria-label="Answer" aria-live="polite">
        {answer.ok ? <Answer lines={answer.lines} units={units} /> : <p className="aside-word">The answer stands here as soon as the figures do.</p>}
        {answer.ok && key === 'drip' && <TakeIntoRun runId={search.get('run')} lines={answer.lines} />}
        {answer.ok && key === 'gravity' && words.pair === 'not known' && <PairNote lines={answer.lines} />}
      </section>
      <Basis calculation={calculation} />
    </>
  )
}

const shownLine = ({ value, quantity, unit, digits = 2 }: DeskLine, units: Units): string => {
  if (typeof value === 'string') return value
  return quantity ? units.show(quantity, value) : `${value.toFixed(digits)} ${unit ?? ''}`.trim()
}

function Answer({ lines, units }: { lines: readonly DeskLine[]; units: Units }) {
  return (
    <dl>
      {lines.map((line) => (
        <div key={line.label}>
          <dt>{line.label}</dt>
          <dd className={typeof line.value === 'string' ? 'in-words' : undefined}>{shownLine(line, units)}</dd>
        </div>
      ))}
    </dl>
  )
}

/** The same reading means another salinity on every scale: which one it is, only the instrument says. */
function PairNote({ lines }: { lines: readonly DeskLine[] }) {
  const figures = lines.map(({ value }) => value).filter((value): value is number => typeof value === 'number')
  const apart = Math.max(...figures) - Math.min(...figures)
  return (
    <Notice>
      <strong>Which reference pair does the instrument have?</strong> It is printed on the glass or in its leaflet. Gravity compares the sample at the first temperature with pure water at the second, and both change with warmth, so the same reading is up to {apart.toFixed(1)} ppt apart between
      scales. Choose the pair above; the room’s own stands in Setup.
    </Notice>
  )
}

function Basis({ calculation: { formula, source, range, caution, isDose } }: { calculation: Calculation }) {
  return (
    <section className="desk-basis">
      <h2>What it rests on</h2>
      <dl className="facts">
        <div>
          <dt>formula</dt>
          <dd>{formula}</dd>
        </div>
        <div>
          <dt>source</dt>
          <dd>{source}</dd>
        </div>
        <div>
          <dt>valid for</dt>
          <dd>{range}</dd>
        </div>
        <div>
          <dt>not said</dt>
          <dd>{caution}</dd>
        </div>
      </dl>
      {isDose && (
        <Notice>
          Follow the product’s label and a veterinarian; local law decides. This is arithmetic, no prescription. Aerate baths and never leave one unattended. Wear gloves and eye protection for formalin (toxic, suspected carcinogen) and concentrated peroxide.
        </Notice>
      )}
    </section>
  )
}
