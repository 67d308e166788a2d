import { Suspense, useState } from 'react'
import { outbox, useOutboxSnapshot } from '../api/useOutbox'
import { useSession } from '../api/session'
import type { OutboxSnapshot } from '../api/outbox'
import type { OutboxEntry } from '../api/outboxEntry'
import { Button } from '../ui/Button'
import { lazyAhead } from '../ui/ahead'
import { plural } from '../ui/format'
import { useFormat } from '../ui/useFormat'

const PinSheet = lazyAhead(() => import('../ui/PinSheet'))

/** Says what waits on this device and why, and what the server refused. Quiet while all is sent. */
export function OutboxTray() {
  const waits = useOutboxSnapshot()
  const { staff, recorder, changeRecorder } = useSession()
  const format = useFormat()
  const { state, refused, next, stuck, serverNowMs } = waits
  const person = staff.find(({ id }) => id === next?.staffId)
  const isOwn = next?.staffId === recorder.id
  // Who put the sheet away finds the way back in the tray.
  const [leftKey, setLeftKey] = useState<string | null>(null)
  const waitsFor = person?.name ?? 'somebody who is not in the list any more'
  const sentence = sentenceFor(waits, waitsFor, serverNowMs === null ? '' : format.moment(serverNowMs))
  return (
    <div aria-live="polite">
      {state === 'unidentified' && isOwn && next?.key !== leftKey && (
        <Suspense>
          <PinSheet isOpen onClose={() => setLeftKey(next?.key ?? null)} />
        </Suspense>
      )}
      {sentence && (
        <p className="tray is-waiting">
          <span>{sentence}</span>
          {state === 'unidentified' && person && <Button look="bare" onClick={isOwn ? () => setLeftKey(null) : changeRecorder}>enter a PIN</Button>}
          {state === 'unidentified' && !person && next && <Button look="bare" onClick={() => outbox.giveUp(next.key)}>give up {next.label}</Button>}
          {state === 'ahead' && <Button look="bare" onClick={outbox.putOnServerClock}>use the server’s time</Button>}
        </p>
      )}
      {stuck[0] && (
        <p className="tray is-waiting">
          <span>
            <strong>Not recorded yet: {namesOf(stuck)}.</strong> The server fails at {stuck.length === 1 ? 'it' : 'them'}. Kept on this device and tried again; what you record after goes on.
          </span>
          <Button look="bare" onClick={() => stuck[0] && outbox.giveUp(stuck[0].key)}>
            give up {stuck[0].label}
          </Button>
        </p>
      )}
      {refused.map(({ entry, reason }) => (
        <p key={entry.key} className="tray is-refused" role="alert">
          <span>
            <strong>Not recorded: {entry.label}.</strong> {reason}
          </span>
          <Button look="bare" onClick={() => outbox.dismiss(entry.key)}>
            seen
          </Button>
        </p>
      ))}
    </div>
  )
}

const namesShown = 3
const namesOf = (entries: readonly OutboxEntry[]): string => entries.slice(0, namesShown).map(({ label }) => label).join(', ') + (entries.length > namesShown ? ` and ${entries.length - namesShown} more` : '')

function sentenceFor({ state, waiting, isKept, reason, stuck }: OutboxSnapshot, waitsFor: string, serverTime: string): string | null {
  if (waiting === 0) return null
  const entries = plural(waiting, 'entry', 'entries')
  const kept = isKept ? 'kept on this device' : 'not kept if this page is closed'
  if (state === 'unreachable') return `The server cannot be reached. ${entries} ${kept}; go on working.`
  // Those that the server stumbles over are named one by one.
  if (state === 'failing' && waiting > stuck.length) return `${reason ?? 'The server failed.'} ${entries} ${kept}, sent again until it is in the books; go on working.`
  if (state === 'ahead') return `The server’s clock stands at ${serverTime}, before what waits here happened. ${entries} ${kept}; once its clock is right, all goes out by itself.`
  if (state === 'unidentified') return `${entries} ${kept} until the PIN of ${waitsFor} is given.`
  if (state === 'signed-out') return `${entries} ${kept}, wait until this device is signed in.`
  return null
}
