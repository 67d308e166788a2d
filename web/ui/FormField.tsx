import { Form } from 'react-bootstrap'
import type { FieldPath, FieldValues, UseFormReturn } from 'react-hook-form'
import { useId, type ComponentProps, type ReactNode } from 'react'
import { Field } from './Field'
import { Problem } from './Notice'

interface Props<T extends FieldValues> extends Omit<ComponentProps<typeof Form.Control>, 'form' | 'name' | 'size' | 'className'> {
  form: Pick<UseFormReturn<T>, 'register' | 'getFieldState' | 'formState'>
  name: FieldPath<T>
  label: string
  unit?: string
  hint?: ReactNode
  size?: 'hand'
  isLabelHidden?: boolean
  className?: string
  /** Options make it a choice instead of a line to type in. */
  options?: readonly (string | { value: string; label: string })[]
}

/** A field of a form that is checked and sent as a whole. */
export function FormField<T extends FieldValues>({ form, name, label, unit, hint, size, isLabelHidden, className, options, ...control }: Props<T>) {
  const message = form.getFieldState(name, form.formState).error?.message
  return (
    <Field {...{ label, unit, hint, size, isLabelHidden, className }} problem={message}>
      {(shared) =>
        options ? (
          <Form.Select {...form.register(name)} {...shared}>
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
          <Form.Control {...control} {...form.register(name)} {...shared} />
        )
      }
    </Field>
  )
}

/** One yes or no, ticked. */
export function TickField<T extends FieldValues>({ form, name, label }: Pick<Props<T>, 'form' | 'name' | 'label'>) {
  return <Form.Check {...form.register(name)} type="checkbox" id={`${useId()}-${name}`} className="field" label={label} />
}

/** What the server said about the form as a whole. */
export function FormProblem<T extends FieldValues>({ form }: Pick<Props<T>, 'form'>) {
  return <Problem>{form.formState.errors.root?.message}</Problem>
}
