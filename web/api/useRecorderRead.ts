import useSWR, { type SWRConfiguration } from 'swr'
import { fetchJson } from './fetchJson'
import { useSession } from './session'

/** Reads what is somebody's own, or only a lead may see: the person recording travels with the question. A null path waits. */
export function useRecorderRead<T>(path: string | null, options?: SWRConfiguration) {
  const { recorder } = useSession()
  const { data, error } = useSWR<T, unknown>(path === null ? null : ['lead', path, recorder.id], () => fetchJson<T>(path ?? '', { headers: { 'X-Recording': recorder.id } }), options)
  return { data, problem: error }
}
