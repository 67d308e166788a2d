import { useEffect } from 'react'
import { rereadAfterMs } from '../../core/commands/stream'
import { outdate, readAnew, readOfOtherBooks } from './reads'
import type { Listener } from './stream'
import { outbox } from './useOutbox'

/**
 * Listens to what other devices write and reads anew what on this screen tells of it, and nothing else. Where the stream
 * does not get through, screens still ask by themselves.
 */
export function useLiveChanges(): void {
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null
    let touched = new Set<string>()
    let names = new Set<string>()
    function readTouched(): void {
      timer = null
      // The outbox reads anew what it wrote before it lets a touch go. Reading beside it would overtake that read, and the
      // touch would seem undone for a moment. What it could not read holds nothing up.
      const { pending, isUnread } = outbox.snapshot()
      if (pending.length > 0 && !isUnread) return wait(1)
      const reread = { touched: [...touched], names, isByOthers: true }
      ;[touched, names] = [new Set(), new Set()]
      void readAnew(reread)
    }
    const wait = (devices: number): void => {
      timer ??= setTimeout(readTouched, rereadAfterMs(devices, Math.random()))
    }
    const listener: Listener = {
      onTold(told) {
        // What this page wrote it reads anew by itself.
        if (told.by !== null && outbox.isOwn(told.by)) return
        outdate(told.touched)
        for (const thing of told.touched) touched.add(thing)
        wait(told.devices)
      },
      onOpen({ books, devices }) {
        // Whatever was written while nobody listened.
        for (const name of readOfOtherBooks(books)) names.add(name)
        if (names.size > 0) wait(devices)
      },
    }
    // The library that elects the page which listens is not needed for the first paint.
    let isOver = false
    let stopSharing = (): void => undefined
    void import('./stream').then(({ shareStream }) => {
      if (!isOver) stopSharing = shareStream(listener)
    }, () => undefined)
    return () => {
      isOver = true
      stopSharing()
      if (timer) clearTimeout(timer)
    }
  }, [])
}
