import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react'
import { addressOf, type AnswerOf, type CommandOf, type InputOf, type Opening, type ReadOf } from '../../core/commands/declare'
import type { Pending } from '../../core/commands/pending'
import { withDue } from '../../core/due/dueSources'
import { ApiProblem } from './ApiProblem'
import { correctServerClock } from './clock'
import { fetchJson } from './fetchJson'
import { newKey } from './newKey'
import { isOutboxSlot } from './outboxSlots'
import { createOutbox, type OutboxSnapshot, type Push } from './outbox'
import type { OutboxEntry, Waiting } from './outboxEntry'
import { readAnew } from './reads'
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

const nobody = (): (() => void) => () => undefined
const nothing: readonly Waiting[] = []
const waitingNow = (): readonly Waiting[] => outbox.snapshot().shown
const nothingNow = (): readonly Waiting[] => nothing

/** What waits on this device, for a question that shows it; nothing for any other, which need not be drawn anew for it. */
export function usePendingOf(read: Pick<ReadOf, 'withPending'>): readonly Pending[] {
  const [subscribe, take] = read.withPending ? [outbox.subscribe, waitingNow] : [nobody, nothingNow]
  const waiting = useSyncExternalStore(subscribe, take)
  // Entries of earlier versions do not say what their address names; they are shown once they are answered.
  return useMemo(() => waiting.flatMap(({ entry: { command, params, key, staffId, isTouch = true, body }, answeredAt }) => (params ? [{ command, params, key, staffId, isTouch, input: body, answeredAt }] : [])), [waiting])
}

/** What is written: what its address names, the body it declares, and what a person did in a few words. */
export type Written<C> = Opening<C> & { body: InputOf<C>; label: string }
export type Write = <C extends CommandOf>(command: C, written: Written<C>, push: Push) => Promise<AnswerOf<C>>

/** Returns the function through which every screen writes, on behalf of whoever is recording. A form that was left has its refusals in the tray. */
export function useWrite(): Write {
  const { recorder } = useSession()
  const isThere = useRef(true)
  useEffect(() => {
    isThere.current = true
    return () => void (isThere.current = false)
  }, [])
  return (command, { params = {}, body, label }, push) => {
    const { name, method, path } = command
    const entry: OutboxEntry = { key: newKey(), command: name, method: method === 'put' ? 'PUT' : 'POST', path: addressOf({ path }, params), params, touches: withDue(command.touches(params, body)), isTouch: push.refusals === 'tray', body, staffId: recorder.id, label }
    return outbox.push(entry, { isFormThere: () => isThere.current, ...push }) as Promise<AnswerOf<typeof command>>
  }
}
