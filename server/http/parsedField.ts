import { fieldProblem } from './problem'

/** Reads JSON that somebody wrote into a field; beside the field where it is none. */
export function parsedField(path: string, json: string): unknown {
  try {
    return JSON.parse(json)
  } catch (error) {
    throw fieldProblem(path, `This is no JSON: ${error instanceof Error ? error.message : 'it cannot be read'}`)
  }
}
