import { get, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form'
import { ApiProblem, errorsByField, sentenceOf } from '../api/ApiProblem'

/**
 * Runs a form's write and puts what the server refuses beside the fields it names; what names no field stands at the
 * form's foot. What was typed stays.
 * @param inside - part of the body that the form's fields stand in, left off the server's paths.
 */
export async function submitInto<T extends FieldValues>(form: Pick<UseFormReturn<T>, 'getValues' | 'setError'>, write: () => Promise<unknown>, inside?: string): Promise<boolean> {
  try {
    await write()
    return true
  } catch (error) {
    // What a rule refuses is said once, with what can be done about it (RuleRefusal).
    if (error instanceof ApiProblem && error.code === 'breaks-rule') return false
    const said = Object.entries(errorsByField(error, inside) ?? {})
    const isField = ([path]: [string, string]): boolean => get(form.getValues(), path) !== undefined
    const known = said.filter(isField)
    for (const [path, message] of known) form.setError(path as Path<T>, { message })
    const rest = known.length === 0 ? sentenceOf(error) : said.filter((each) => !isField(each)).map(([, message]) => message).join('. ')
    if (rest) form.setError('root', { message: rest })
    return false
  }
}
