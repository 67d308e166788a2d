import { useState } from 'react'

interface Props {
  label: string
  unit: string
  value: number | null
  min: number
  max: number
  onChange: (value: number | null) => void
}

/** One optional measured figure. Comma and point both work; a figure outside the range is said at once and not taken. */
export function ReadingField({ label, unit, value, min, max, onChange }: Props) {
  const [text, setText] = useState<string | null>(null)
  const shown = text ?? (value === null ? '' : String(value))
  const problem = text !== null && text !== '' && readFigure(text, min, max) === null ? `${min} to ${max} ${unit}` : null
  const type = (typed: string): void => {
    const figure = readFigure(typed, min, max)
    setText(typed)
    onChange(figure)
  }
  return (
    <label className={problem ? 'reading is-wrong' : 'reading'}>
      <span>
        {label} <small>{unit}</small>
      </span>
      <input inputMode="decimal" value={shown} placeholder="–" aria-invalid={problem !== null} onChange={(event) => type(event.currentTarget.value)} onBlur={() => problem === null && setText(null)} />
      {problem && <small role="alert">{problem}</small>}
    </label>
  )
}

function readFigure(text: string, min: number, max: number): number | null {
  const figure = Number(text.trim().replace(',', '.').replace('−', '-'))
  return text.trim() !== '' && Number.isFinite(figure) && figure >= min && figure <= max ? figure : null
}
