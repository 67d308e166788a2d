import { useMemo } from 'react'
import { useSession } from '../api/session'
import { createFormat, type Format } from './format'

/** Formats in the room's time zone. */
export function useFormat(): Format {
  const { timeZone } = useSession()
  return useMemo(() => createFormat(timeZone), [timeZone])
}
