import { BroadcastChannel, createLeaderElection } from 'broadcast-channel'
import { useEffect } from 'react'
import { mutate } from 'swr'
import { outbox } from './useOutbox'

/** Bursts of touches on other devices are shown together. */
const gatherMs = 150
const justReadMs = 5000

/**
 * Listens to what other devices write and reads anew what is on screen. Where the stream does not get through, screens
 * still ask by themselves.
 */
export function useLiveChanges(): void {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null
    const readAnew = (): void => {
      timer = null
      // The outbox reads everything anew before it lets a touch go. Reading beside it would overtake that read, and the
      // touch would seem undone for a moment. What it could not read holds nothing up.
      const { pending, isUnread } = outbox.snapshot()
      if (pending.length > 0 && !isUnread) return listen()
      // The plan of tanks is a draft on this device; what others do must not pull it away.
      void mutate((key) => !(Array.isArray(key) && key.includes('tank-choice')))
    }
    const listen = (): void => {
      timer ??= setTimeout(readAnew, gatherMs)
    }
    const stopSharing = shareStream(listen)
    return () => {
      stopSharing()
      if (timer) clearTimeout(timer)
    }
  }, [])
}

/**
 * Hears of changes through one stream for all pages of this browser: over plain http a browser keeps six connections to a
 * server, and a page with a stream of its own holds one of them for good. One page has it and tells the others; when it is
 * closed, another one takes over.
 * @returns how to stop.
 */
function shareStream(onChange: () => void): () => void {
  const pages = new BroadcastChannel<'changed'>('crate.changes', { webWorkerSupport: false })
  const election = createLeaderElection(pages)
  let stream: EventSource | null = null
  let isOver = false
  const sinceMs = Date.now()
  pages.onmessage = onChange
  void election.awaitLeadership().then(() => {
    if (isOver) return
    const tell = (): void => {
      onChange()
      void pages.postMessage('changed').catch(() => undefined)
    }
    stream = new EventSource('/api/events')
    stream.onmessage = tell
    // Whatever was written while nobody listened; not at the beginning, when everything was only just read.
    stream.onopen = () => void (Date.now() - sinceMs > justReadMs && tell())
  })
  return () => {
    isOver = true
    stream?.close()
    void election.die().then(() => pages.close()).catch(() => undefined)
  }
}
