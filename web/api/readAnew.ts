import { mutate, unstable_serialize, type SWRConfiguration } from 'swr'
import { Unreachable } from './ApiProblem'

/** Reads that got no answer when they were last tried, by key. What the server answered with a refusal was read: it is what stands there. */
const unanswered = new Set<string>()

/** How reads are made here: every one notes whether it got through. */
export const readOptions: SWRConfiguration<unknown, unknown> = {
  onSuccess: (_data, key) => void unanswered.delete(key),
  onError: (error, key) => void (error instanceof Unreachable ? unanswered.add(key) : unanswered.delete(key)),
}

/**
 * Reads anew what is on screen.
 * @param only - keys to read; null for all.
 * @returns keys of those that got no answer.
 */
export async function readAnew(only: ReadonlySet<string> | null): Promise<ReadonlySet<string>> {
  const asked = new Set<string>()
  await mutate((key) => {
    const name = unstable_serialize(key)
    const isAsked = only === null || only.has(name)
    if (isAsked) asked.add(name)
    // Tried now, so what was noted of it is of before.
    if (isAsked) unanswered.delete(name)
    return isAsked
  })
  return new Set([...asked].filter((name) => unanswered.has(name)))
}
