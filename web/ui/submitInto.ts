import type { FieldValues, Path, UseFormReturn } from 'react-hook-form'
import { ApiProblem, sentenceOf } from '../api/ApiProblem'

/**
 * Runs a form's write and puts what the server refuses beside the fields it names; what names no field stands at the
 * form's foot. What was typed stays.
 */
export async function submitInto<T extends FieldValues>(form: UseFormReturn<T>, write: () => Promise<unknown>): Promise<boolean> {
  try {
    await write()
    return true
  } catch (error) {
    // What a rule refuses is said once, with what can be done about it (RuleRefusal).
    if (error instanceof ApiProblem && error.code === 'breaks-rule') return false
    const known = error instanceof ApiProblem ? error.errors.filter(({ path }) => path in form.getValues()) : []
    for (const { path, message } of known) form.setError(path as Path<T>, { message })
    if (known.length === 0) form.setError('root', { message: sentenceOf(error) })
    return false
  }
}
