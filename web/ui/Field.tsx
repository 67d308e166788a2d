import { Form } from 'react-bootstrap'
import type { FieldPath, FieldValues, UseFormReturn } from 'react-hook-form'
import { useId, type ComponentProps, type ReactNode } from 'react'

interface Props<T extends FieldValues> extends Omit<ComponentProps<typeof Form.Control>, 'form' | 'name'> {
  form: UseFormReturn<T>
  name: FieldPath<T>
  label: string
  unit?: string
  hint?: ReactNode
  /** Options make it a choice instead of a line to type in. */
  options?: readonly (string | { value: string; label: string })[]
}

/** One labelled field with its unit, its hint and, beside it, what is wrong. */
export function Field<T extends FieldValues>({ form, name, label, unit, hint, options, ...control }: Props<T>) {
  const message = form.getFieldState(name, form.formState).error?.message
  // Two forms of a page may have a field of the same name.
  const id = `${useId()}-${name}`
  const shared = { ...form.register(name), isInvalid: Boolean(message), 'aria-describedby': message ? `${id}-error` : undefined }
  return (
    <Form.Group className="field" controlId={id}>
      <Form.Label>
        {label}
        {unit && <span className="unit"> ({unit})</span>}
      </Form.Label>
      {options ? (
        <Form.Select {...shared}>
          {options.map((option) => {
            const { value, label: text } = typeof option === 'string' ? { value: option, label: option } : option
            return (
              <option key={value} value={value}>
                {text}
              </option>
            )
          })}
        </Form.Select>
      ) : (
        <Form.Control {...control} {...shared} />
      )}
      {hint && <Form.Text>{hint}</Form.Text>}
      {message && (
        <Form.Control.Feedback type="invalid" id={`${id}-error`}>
          {message}
        </Form.Control.Feedback>
      )}
    </Form.Group>
  )
}

/** One yes or no, ticked. */
export function TickField<T extends FieldValues>({ form, name, label }: Pick<Props<T>, 'form' | 'name' | 'label'>) {
  return <Form.Check {...form.register(name)} type="checkbox" id={`${useId()}-${name}`} className="field" label={label} />
}

/** What the server said about the form as a whole. */
export function FormProblem<T extends FieldValues>({ form }: { form: UseFormReturn<T> }) {
  const message = form.formState.errors.root?.message
  return message ? (
    <p className="form-problem" role="alert">
      {message}
    </p>
  ) : null
}
