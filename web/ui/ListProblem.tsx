import type { FieldError } from '../../core/problem/problem'
import { ApiProblem, sentenceOf } from '../api/ApiProblem'

export interface ListTrouble {
  detail: string
  errors: FieldError[]
}

/** What the server said about a file. */
export const problemOf = (error: unknown): ListTrouble => ({ detail: sentenceOf(error), errors: error instanceof ApiProblem ? error.errors : [] })

/** What is wrong with a file, row by row. On a phone it would stand below the fold, so it comes up by itself. */
export function ListProblem({ detail, errors }: ListTrouble) {
  return (
    <div className="list-problem" role="alert" ref={bringIntoView}>
      <p>{detail}.</p>
      {errors.length > 1 && (
        <ul>
          {errors.map(({ path, message }, index) => (
            <li key={`${path} ${index}`}>{message}</li>
          ))}
        </ul>
      )}
    </div>
  )
}

export const bringIntoView = (element: HTMLElement | null): void => void element?.scrollIntoView({ block: 'center' })
