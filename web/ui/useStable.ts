import { useMemo } from 'react'

/** The same object as long as what is in it stays the same, so that what hangs on it is not drawn anew. Plain values only. */
export function useStable<T>(value: T): T {
  const stamp = JSON.stringify(value)
  return useMemo(() => JSON.parse(stamp) as T, [stamp])
}
