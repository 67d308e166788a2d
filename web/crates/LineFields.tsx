import { useId, type ReactNode } from 'react'
import { identities, origins } from '../../core/setup/words'
import { useNames } from '../api/sharedReads'
import { ChoiceField, TextField } from '../ui/Field'
import { TankOptions } from '../ui/TankOptions'
import type { LineDraft } from './lineDraft'
import { useTankChoices } from './useCrates'

interface Props {
  draft: LineDraft
  errors: Partial<LineDraft>
  onChange: (draft: LineDraft) => void
  /** A crate in the books has its tanks chosen elsewhere. */
  hasTank?: boolean
}

/** The fields of one line of a crate. */
export function LineFields({ draft, errors, onChange, hasTank = true }: Props) {
  const tanks = useTankChoices()
  const species = useNames('species')
  const listId = useId()
  const field = (name: keyof LineDraft) => ({ value: draft[name], problem: errors[name], onChange: (value: string) => onChange({ ...draft, [name]: value }) })
  return (
    <div className="line-fields">
      <datalist id={listId}>
        {species.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div className="field-row">
        <LineField label="Species" {...field('species')} list={listId} isWide />
        <LineField label="Fish" {...field('count')} inputMode="numeric" />
        <LineField label="Bags" {...field('bags')} inputMode="numeric" />
        <LineField label="Per bag" {...field('perBag')} inputMode="numeric" hint="if not even" />
        {hasTank && (
          <LineField label="Tank" {...field('tankId')}>
            <option value="">choose later</option>
            <TankOptions tanks={tanks} />
          </LineField>
        )}
      </div>
      <div className="field-row">
        <LineField label="Origin" {...field('origin')}>
          <Choice words={origins} />
        </LineField>
        <LineField label="Strain" {...field('strain')} />
        <LineField label="Identity" {...field('identity')}>
          <Choice words={identities} />
        </LineField>
        <LineField label="Promised to" {...field('promisedTo')} />
      </div>
      <div className="field-row">
        <LineField label="Billed" {...field('billed')} inputMode="numeric" hint="on the invoice" />
        <LineField label="Size" {...field('sizeCm')} inputMode="numeric" hint="cm" />
        <LineField label="Price of one" {...field('priceEach')} inputMode="numeric" />
        <LineField label="Capture" {...field('capture')} hint="how it was caught" />
        <LineField label="Seen eating" {...field('ateBefore')} />
        <LineField label="Note" {...field('note')} isWide />
      </div>
    </div>
  )
}

function Choice({ words }: { words: readonly string[] }) {
  return (
    <>
      <option value="">not said</option>
      {words.map((word) => (
        <option key={word}>{word}</option>
      ))}
    </>
  )
}

interface LineFieldProps {
  label: string
  value: string
  problem: string | undefined
  onChange: (value: string) => void
  inputMode?: 'numeric'
  list?: string
  hint?: string
  isWide?: boolean
  children?: ReactNode
}

function LineField({ isWide = false, inputMode, list, children, ...field }: LineFieldProps) {
  const className = isWide ? 'is-wide' : undefined
  return children ? (
    <ChoiceField {...field} className={className}>
      {children}
    </ChoiceField>
  ) : (
    <TextField {...field} className={className} inputMode={inputMode} list={list} />
  )
}
