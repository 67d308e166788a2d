import { mutate, unstable_serialize, type SWRConfiguration } from 'swr'
import { booksOf } from '../../core/commands/stream'
import { meets, type Thing } from '../../core/commands/things'
import { Unreachable } from './ApiProblem'
import { fetchAnswer, type Answered } from './fetchJson'
import { nextMoment } from './moments'
import type { Reread } from './outbox'

// What this device has read: kept until a touch of what it tells of is named, and asked for again only then.

interface Known {
  about(): readonly Thing[]
  /** A draft on this device: what others do must not pull it away. */
  isDraft: boolean
}
/** Reads that were ever asked for by this page, by key. */
const known = new Map<string, Known>()
/** When each was last read, while nothing of what it tells of was touched since. */
const standing = new Map<string, number>()
/** Reads of which something was touched since they were last asked: an answer on its way may be of before. */
const overtaken = new Set<string>()
/** Reads that got no answer when they were last tried. What the server answered with a refusal was read: it is what stands there. */
const unanswered = new Set<string>()
/** Answers as they came, by address and person, so that one that still stands need not be sent again. */
const answered = new Map<string, Answered>()
const mostAnswered = 100
/** When answers were asked for. */
const asked = new WeakMap<object, number>()

/** How reads are made here: every one notes whether it got through. */
export const readOptions: SWRConfiguration<unknown, unknown> = {
  onSuccess(_data, key) {
    unanswered.delete(key)
    if (!overtaken.has(key)) standing.set(key, Date.now())
  },
  onError: (error, key) => void (error instanceof Unreachable ? unanswered.add(key) : unanswered.delete(key)),
}

/** Says what a read tells of, for as long as this page stands. */
export const know = (key: unknown, read: Known): void => void known.set(unstable_serialize(key as string), read)

/** Asks the server, with what it answered before in hand. */
export async function ask<T>(key: string, address: string, headers: Record<string, string>): Promise<T> {
  overtaken.delete(key)
  const moment = nextMoment()
  const before = answered.get(key)
  const answer = await fetchAnswer(address, before ?? null, headers)
  answered.delete(key)
  if (answer.tag !== null) answered.set(key, answer)
  if (typeof answer.body === 'object' && answer.body !== null) asked.set(answer.body, moment)
  for (const [oldest] of answered) if (answered.size > mostAnswered) answered.delete(oldest)
  return answer.body as T
}

/** When an answer was asked for, in the order of this page's moments. */
export const askedAt = (answer: unknown): number => (typeof answer === 'object' && answer !== null ? (asked.get(answer) ?? 0) : 0)

/** How long ago a read was made of which nothing was touched since, milliseconds; Infinity for any other. */
export const standsForMs = (key: string): number => Date.now() - (standing.get(key) ?? -Infinity)

/** Names of reads whose answer does not go by these books, or does not say; they do not stand any more. Drafts do. */
export function readOfOtherBooks(books: string): string[] {
  const names = [...known].flatMap(([name, { isDraft }]) => (isDraft || booksOf(answered.get(name)?.tag ?? '') === books ? [] : [name]))
  for (const name of names) standing.delete(name)
  return names
}

const isTouched = (name: string, touched: readonly string[] | null): boolean => {
  const read = known.get(name)
  return touched === null || read === undefined || meets(touched, read.about())
}

/** Notes what does not stand any more; it is read again when somebody asks for it. */
export function outdate(touched: readonly string[] | null): void {
  for (const name of known.keys()) {
    if (!isTouched(name, touched)) continue
    standing.delete(name)
    overtaken.add(name)
  }
}

/**
 * Reads anew what is on screen.
 * @param reread - which; drafts stay as they are where others touched what they tell of.
 * @returns names of those that got no answer.
 */
export async function readAnew({ touched, names = new Set(), isByOthers = false }: Reread & { isByOthers?: boolean }): Promise<ReadonlySet<string>> {
  outdate(touched)
  const anew = new Set<string>()
  await mutate((key) => {
    const name = unstable_serialize(key)
    const isAsked = names.has(name) || (isTouched(name, touched) && !(isByOthers && known.get(name)?.isDraft))
    if (isAsked) anew.add(name)
    // Tried now, so what was noted of it is of before.
    if (isAsked) unanswered.delete(name)
    return isAsked
  })
  return new Set([...anew].filter((name) => unanswered.has(name)))
}
