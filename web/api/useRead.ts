import { useMemo } from 'react'
import useSWR from 'swr'
import { addressOf, type AnswerOf, type Opening, type QueryOf, type ReadOf } from '../../core/commands/declare'
import { shownWith } from '../../core/commands/pending'
import { clockEveryMs } from '../../core/commands/stream'
import { ask, askedAt, know, standsForMs } from './reads'
import { useOptionalSession } from './session'
import { isStreamOpen } from './streamState'
import { usePendingOf } from './useOutbox'

export type Asking<R> = Opening<R> & { query?: Partial<QueryOf<R>> }

interface Options {
  /** How often it is read again where nobody tells what was touched, milliseconds; never, unless somebody asks. */
  everyMs?: number
  /** What was read before stands there until what is asked now is answered. */
  keepsPrevious?: boolean
  /** A draft on this device: what others do must not pull it away. */
  isDraft?: boolean
}

/**
 * Asks a declared question, and shows what this device has recorded since. What was read is kept until a touch of what it
 * tells of is named.
 * @param asking - what its address leaves open, and its query; null waits.
 */
export function useRead<R extends ReadOf>(declared: R, asking: Asking<R> | null, { everyMs = 0, keepsPrevious = false, isDraft = false }: Options = {}) {
  const recorder = useOptionalSession()?.recorder
  const isOfPerson = declared.access === 'keeper' || declared.access === 'lead'
  // The same object as long as it names the same, whatever a page makes anew.
  const stamp = JSON.stringify(asking?.params ?? {})
  const params = useMemo(() => JSON.parse(stamp) as Record<string, string>, [stamp])
  const address = asking === null ? null : addressOf(declared as ReadOf, params, asking.query)
  const key = address === null || (isOfPerson && !recorder) ? null : isOfPerson ? `${address}#${recorder?.id}` : address
  const read = useSWR<AnswerOf<R>, unknown>(key, () => ask(key ?? '', address ?? '', isOfPerson ? { 'X-Recording': recorder?.id ?? '' } : {}), {
    keepPreviousData: keepsPrevious,
    revalidateOnFocus: !isDraft,
    revalidateIfStale: key === null || !isStreamOpen() || standsForMs(key) >= Math.min(declared.staysMs, clockEveryMs),
    // Zero is never; a draft is read anew by what is written here alone.
    refreshInterval: () => (isStreamOpen() && !isDraft ? Math.max(everyMs, clockEveryMs) : everyMs),
  })
  // While something else stands there still, it says nothing of what is asked now.
  if (key !== null) know(key, { about: () => declared.about(params, read.isLoading ? undefined : read.data), isDraft })
  const pending = usePendingOf(declared)
  const data = useMemo(() => (read.data === undefined ? undefined : (shownWith(declared, read.data, askedAt(read.data), pending, params) as AnswerOf<R>)), [declared, read.data, pending, params])
  return { data, problem: read.error, isLoading: read.isLoading }
}

/** Asks a declared question once; nothing is kept of the answer. */
export async function askOnce<R extends ReadOf>(declared: R, asking: Asking<R>): Promise<AnswerOf<R>> {
  const address = addressOf(declared as ReadOf, (asking.params ?? {}) as Record<string, string>, asking.query)
  return ask(address, address, {})
}
