import { useMemo } from 'react'
import useSWR from 'swr'
import { addressOf, type AnswerOf, type ParamsOf, type QueryOf, type ReadOf } from '../../core/commands/declare'
import { shownWith } from '../../core/commands/pending'
import { ask, askedAt, know, standsForMs } from './reads'
import { useOptionalSession } from './session'
import { isStreamOpen } from './stream'
import { usePendingOf } from './useOutbox'

type AnyRead = ReadOf
type PathParams<R> = R extends { path: infer Path extends string } ? ParamsOf<Path> : never
/** What an address leaves open is said; what nothing can be said of is left out. */
type Opening<R> = keyof PathParams<R> extends never ? { params?: undefined } : { params: PathParams<R> }
export type Asking<R> = Opening<R> & { query?: Partial<QueryOf<R>> }

interface Options {
  /** How often it is read again where nobody tells what was touched, milliseconds. */
  everyMs?: number
  /** What was read before stands there until what is asked now is answered. */
  keepsPrevious?: boolean
  /** A draft on this device: what others do must not pull it away. */
  isDraft?: boolean
}

/** While changes are told, the clock alone makes a read old. */
const clockEveryMs = 60_000

/**
 * Asks a declared question, and shows what this device has recorded since. What was read is kept until a touch of what it
 * tells of is named.
 * @param asking - what its address leaves open, and its query; null waits.
 */
export function useRead<R extends AnyRead>(declared: R, asking: Asking<R> | null, { everyMs, keepsPrevious = false, isDraft = false }: Options = {}) {
  const recorder = useOptionalSession()?.recorder
  const isOfPerson = declared.access === 'keeper' || declared.access === 'lead'
  const params = (asking?.params ?? {}) as Record<string, string>
  const address = asking === null ? null : addressOf(declared, params, asking.query)
  const key = address === null || (isOfPerson && !recorder) ? null : isOfPerson ? `${address}#${recorder?.id}` : address
  const read = useSWR<AnswerOf<R>, unknown>(key, () => ask(key ?? '', address ?? '', isOfPerson ? { 'X-Recording': recorder?.id ?? '' } : {}), {
    keepPreviousData: keepsPrevious,
    revalidateOnFocus: !isDraft,
    revalidateIfStale: key === null || !isStreamOpen() || standsForMs(key) >= Math.min(declared.staysMs, clockEveryMs),
    ...(everyMs === undefined ? {} : { refreshInterval: () => (isStreamOpen() ? Math.max(everyMs, clockEveryMs) : everyMs) }),
  })
  if (key !== null) know(key, { about: () => declared.about(params, read.data), isDraft })
  const pending = usePendingOf(declared)
  const stamp = JSON.stringify(params)
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the stamp stands for the params
  const data = useMemo(() => (read.data === undefined ? undefined : (shownWith(declared, read.data, askedAt(read.data), pending, params) as AnswerOf<R>)), [declared, read.data, pending, stamp])
  return { data, problem: read.error, isLoading: read.isLoading }
}

/** Asks a declared question once; nothing is kept of the answer. */
export async function askOnce<R extends AnyRead>(declared: R, asking: Asking<R>): Promise<AnswerOf<R>> {
  const address = addressOf(declared, (asking.params ?? {}) as Record<string, string>, asking.query)
  return ask(address, address, {})
}
