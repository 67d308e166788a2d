import { useEffect } from 'react'
import { mutate } from 'swr'
import { outbox } from './useOutbox'

/** Bursts of touches on other devices are shown together. */
const gatherMs = 150

/**
 * Listens to what other devices write and reads anew what is on screen. Where the stream does not get through, screens
 * still ask by themselves.
 */
export function useLiveChanges(): void {
  useEffect(() => {
    const stream = new EventSource('/api/events')
    let timer: ReturnType<typeof setTimeout> | null = null
    const readAnew = (): void => {
      timer = null
      // The outbox reads everything anew before it lets a touch go. Reading beside it would overtake that read, and the
      // touch would seem undone for a moment.
      if (outbox.snapshot().pending.length > 0) return listen()
      // The plan of tanks is a draft on this device; what others do must not pull it away.
      void mutate((key) => !(Array.isArray(key) && key.includes('tank-choice')))
    }
    const listen = (): void => {
      timer ??= setTimeout(readAnew, gatherMs)
    }
    stream.onmessage = listen
    return () => {
      stream.close()
      if (timer) clearTimeout(timer)
    }
  }, [])
}
