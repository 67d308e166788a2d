import { useSyncExternalStore } from 'react'
import { mutate } from 'swr'
import { allReadsSucceed, fetchJson } from './fetchJson'
import { newKey } from './newKey'
import { createOutbox, type OutboxEntry, type OutboxSnapshot, type Push } from './outbox'
import { useSession } from './session'

/** The outbox of this device. */
export const outbox = createOutbox({
  storage: localStorage,
  send: ({ method, path, body, key, staffId }) => fetchJson(path, { method, body, headers: { 'Idempotency-Key': key, 'X-Recording': staffId } }),
  refresh: () => allReadsSucceed(() => mutate(() => true)),
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
})
window.addEventListener('online', outbox.resume)

/** What waits, what was refused, and whether the server answers. */
export const useOutboxSnapshot = (): OutboxSnapshot => useSyncExternalStore(outbox.subscribe, outbox.snapshot)

/** Writes of these commands that the screen should show already. */
export function usePending(commands: readonly string[], pathPart = ''): OutboxEntry[] {
  return useOutboxSnapshot().pending.filter((entry) => commands.includes(entry.command) && entry.path.includes(pathPart))
}

export type Write = Pick<OutboxEntry, 'command' | 'path' | 'body' | 'label'> & Partial<Pick<OutboxEntry, 'method'>>

/** Returns the function through which every screen writes, on behalf of whoever is recording. */
export function useWrite(): (write: Write, push: Push) => Promise<unknown> {
  const { recorder } = useSession()
  return (write, push) => outbox.push({ method: 'POST', ...write, key: newKey(), staffId: recorder.id }, push)
}
