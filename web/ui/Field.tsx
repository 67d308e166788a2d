import { useId, type ComponentProps, type ReactNode } from 'react'
import { Form } from 'react-bootstrap'

/** What ties a control to its label and to what is wrong with it. */
interface Tied {
  isInvalid: boolean
  'aria-invalid': boolean
  'aria-describedby': string | undefined
}

interface FieldProps {
  label: ReactNode
  unit?: string | undefined
  hint?: ReactNode
  isOptional?: boolean | undefined
  /** What is wrong with it, in plain words; what was typed stays. */
  problem?: string | null | undefined
  /** `hand`: the form it has on screens for wet hands. */
  size?: 'hand' | undefined
  /** For those alone who cannot see that the place says what it is, such as a column of a table. */
  isLabelHidden?: boolean | undefined
  className?: string | undefined
  /** Something to touch below the control, such as which scale a figure was meant on. */
  below?: ReactNode
}

/** Every labelled control: its label and unit above, its hint below, and beside it what is wrong. */
export function Field({ label, unit, hint, isOptional = false, problem = null, size, isLabelHidden = false, className, below = null, children }: FieldProps & { children: (tied: Tied) => ReactNode }) {
  const id = useId()
  const classes = [isLabelHidden ? 'field-inline' : 'field', size && 'field-hand', className].filter(Boolean).join(' ')
  return (
    <Form.Group controlId={id} className={classes}>
      <Form.Label visuallyHidden={isLabelHidden}>
        {label}
        {unit && <span className="unit"> ({unit})</span>}
        {isOptional && <small> may be left out</small>}
      </Form.Label>
      {children({ isInvalid: problem !== null, 'aria-invalid': problem !== null, 'aria-describedby': problem ? `${id}-error` : undefined })}
      {below}
      {hint && <Form.Text>{hint}</Form.Text>}
      {problem && (
        <Form.Control.Feedback type="invalid" id={`${id}-error`} role="alert">
          {problem}
        </Form.Control.Feedback>
      )}
    </Form.Group>
  )
}

interface Valued {
  value: string
  onChange: (value: string) => void
}

type Control = Omit<ComponentProps<typeof Form.Control>, keyof FieldProps | keyof Valued | 'as'>

/** A line to type in; several with `rows`. */
export function TextField({ value, onChange, label, unit, hint, isOptional, problem, size, isLabelHidden, className, below, rows, ...control }: FieldProps & Valued & Control & { rows?: number | undefined }) {
  return (
    <Field {...{ label, unit, hint, isOptional, problem, size, isLabelHidden, className, below }}>
      {(tied) => <Form.Control autoComplete="off" {...control} {...(rows && { as: 'textarea', rows })} {...tied} value={value} onChange={(event) => onChange(event.currentTarget.value)} />}
    </Field>
  )
}

/** One of several; the options stand inside it. */
export function ChoiceField({ value, onChange, isDisabled = false, children, ...field }: FieldProps & Valued & { isDisabled?: boolean; children: ReactNode }) {
  return (
    <Field {...field}>
      {(tied) => (
        <Form.Select {...tied} value={value} disabled={isDisabled} onChange={(event) => onChange(event.currentTarget.value)}>
          {children}
        </Form.Select>
      )}
    </Field>
  )
}

/** A file, handed on as soon as it is chosen; null where the choice was taken back. */
export function FileField({ accept, onFile, ...field }: FieldProps & { accept: string; onFile: (file: File | null) => void }) {
  return <Field {...field}>{(tied) => <Form.Control type="file" accept={accept} {...tied} onChange={(event) => onFile((event.currentTarget as HTMLInputElement).files?.[0] ?? null)} />}</Field>
}

/** One yes or no. */
export function Tick({ label, isOn, onChange, isSwitch = false }: { label: ReactNode; isOn: boolean; onChange: (isOn: boolean) => void; isSwitch?: boolean }) {
  return <Form.Check type={isSwitch ? 'switch' : 'checkbox'} id={useId()} label={label} checked={isOn} onChange={(event) => onChange(event.currentTarget.checked)} />
}
