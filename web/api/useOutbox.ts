import { useEffect, useRef, useSyncExternalStore } from 'react'
import { ApiProblem } from './ApiProblem'
import { correctServerClock } from './clock'
import { fetchJson } from './fetchJson'
import { newKey } from './newKey'
import { isOutboxSlot } from './outboxSlots'
import { createOutbox, type OutboxEntry, type OutboxSnapshot, type Push } from './outbox'
import { readAnew } from './readAnew'
import { useSession } from './session'

async function send({ method, path, body, key, staffId }: OutboxEntry): Promise<unknown> {
  try {
    return await fetchJson(path, { method, body, headers: { 'Idempotency-Key': key, 'X-Recording': staffId } })
  } catch (error) {
    if (error instanceof ApiProblem && error.code === 'ahead-of-clock') correctServerClock((error.current as { nowMs: number }).nowMs)
    throw error
  }
}

/** The outbox of this device. */
export const outbox = createOutbox({
  storage: localStorage,
  send,
  refresh: readAnew,
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
})
window.addEventListener('online', outbox.resume)
// Several pages of one device share what it keeps.
window.addEventListener('storage', ({ key }) => {
  if (key === null || isOutboxSlot(key)) outbox.share()
})
setInterval(outbox.share, 20_000)

/** What waits, what was refused, and whether the server answers. */
export const useOutboxSnapshot = (): OutboxSnapshot => useSyncExternalStore(outbox.subscribe, outbox.snapshot)

/** Writes of these commands that the screen should show already. */
export function usePending(commands: readonly string[], pathPart = ''): OutboxEntry[] {
  return useOutboxSnapshot().pending.filter((entry) => commands.includes(entry.command) && entry.path.includes(pathPart))
}

export type Write = Pick<OutboxEntry, 'command' | 'path' | 'body' | 'label'> & Partial<Pick<OutboxEntry, 'method'>>

/** Returns the function through which every screen writes, on behalf of whoever is recording. A form that was left has its refusals in the tray. */
export function useWrite(): (write: Write, push: Push) => Promise<unknown> {
  const { recorder } = useSession()
  const isThere = useRef(true)
  useEffect(() => {
    isThere.current = true
    return () => void (isThere.current = false)
  }, [])
  return (write, push) => outbox.push({ method: 'POST', ...write, key: newKey(), staffId: recorder.id }, { isFormThere: () => isThere.current, ...push })
}
