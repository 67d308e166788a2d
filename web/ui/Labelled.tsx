import { useId, type ReactNode } from 'react'
import { Form } from 'react-bootstrap'

interface Props {
  label: string
  unit?: string | undefined
  hint?: string | undefined
  isOptional?: boolean | undefined
  problem: string | null
  className?: string
  /** Something to touch below the control, such as which scale a figure was meant on. */
  below?: ReactNode
  /** Draws the control, given what ties it to its label and its problem. */
  children: (shared: { isInvalid: boolean; 'aria-describedby': string | undefined }) => ReactNode
}

/** A control with its label and unit above, its hint below, and beside it what is wrong. */
export function Labelled({ label, unit, hint, isOptional = false, problem, className = 'field', below = null, children }: Props) {
  const id = useId()
  return (
    <Form.Group controlId={id} className={className}>
      <Form.Label>
        {label}
        {unit && <span className="unit"> ({unit})</span>}
        {isOptional && <small> may be left out</small>}
      </Form.Label>
      {children({ isInvalid: problem !== null, 'aria-describedby': problem ? `${id}-error` : undefined })}
      {below}
      {hint && <Form.Text>{hint}</Form.Text>}
      {problem && (
        <Form.Control.Feedback type="invalid" id={`${id}-error`}>
          {problem}
        </Form.Control.Feedback>
      )}
    </Form.Group>
  )
}
