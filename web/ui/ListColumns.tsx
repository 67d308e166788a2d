import { ChoiceField } from './Field'

/** The columns of a list as they were read. */
export interface Columns<Field extends string> {
  heading: string[]
  sample: string[][]
  mapping: Partial<Record<Field, number>>
  isRemembered: boolean
}

interface Props<Field extends string> {
  fields: readonly Field[]
  columns: Columns<Field>
  /** For whom the columns were remembered, in words. */
  remembered: string
  /** What the mapping still lacks. */
  problem: string | null
  isOpen: boolean
  onChange: (mapping: Partial<Record<Field, number>>) => void
}

/** Which column of a list holds what, with a look at the first row. */
export function ListColumns<Field extends string>({ fields, columns: { heading, sample, mapping, isRemembered }, remembered, problem, isOpen, onChange }: Props<Field>) {
  const choose = (field: Field, column: string): void => {
    const others = Object.fromEntries(Object.entries(mapping).filter(([name, at]) => name !== field && at !== Number(column || -1))) as Partial<Record<Field, number>>
    onChange(column === '' ? others : { ...others, [field]: Number(column) })
  }
  return (
    <details className="list-columns" open={isOpen || problem !== null}>
      <summary>Which column is what{isRemembered ? ` (${remembered})` : ''}</summary>
      {problem && <p className="form-problem">{problem}.</p>}
      <div className="mapping">
        {fields.map((field) => {
          const at = mapping[field]
          return (
            <ChoiceField key={field} label={<><span className="visually-hidden">column for </span>{field}</>} hint={at === undefined ? '' : sample[0]?.[at]} value={String(at ?? '')} onChange={(column) => choose(field, column)}>
              <option value="">not in the list</option>
              {heading.map((name, index) => (
                <option key={index} value={index}>
                  {name.trim() || `column ${index + 1}`}
                </option>
              ))}
            </ChoiceField>
          )
        })}
      </div>
    </details>
  )
}
