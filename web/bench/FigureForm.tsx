import { bagFields } from '../../core/bench/bagFigures'
import { FigureField } from '../ui/FigureField'
import { useUnits } from '../ui/useUnits'

interface Props {
  valueOf: (name: string) => string
  problemOf: (name: string) => string | null
  /** Base figure that stands while nothing is typed. */
  known: Readonly<Record<string, number | undefined>>
  onChange: (name: string, value: string) => void
}

/** Every figure of a bag and its tank, to be typed or typed over for a “what if”. */
export function FigureForm({ valueOf, problemOf, known, onChange }: Props) {
  const units = useUnits()
  return bagFields.map(({ title, fields }) => (
    <fieldset key={title} className="desk-group">
      <legend>{title}</legend>
      <div className="desk-fields">
        {fields.map((field) => {
          const base = known[field.name]
          const hint = base === undefined ? field.hint : `${field.quantity ? units.show(field.quantity, base) : base} if left out`
          return <FigureField key={field.name} field={hint === undefined ? field : { ...field, hint }} value={valueOf(field.name)} problem={problemOf(field.name)} onChange={(value) => onChange(field.name, value)} />
        })}
      </div>
    </fieldset>
  ))
}
