import { outbox, useOutboxSnapshot } from '../api/useOutbox'
import { useSession } from '../api/session'
import type { OutboxState } from '../api/outbox'
import { plural } from '../ui/format'

/** Says what waits on this device and why, and what the server refused. Quiet while all is sent. */
export function OutboxTray() {
  const { state, waiting, refused, isKept, next } = useOutboxSnapshot()
  const { staff, changeRecorder } = useSession()
  const waitsFor = staff.find((person) => person.id === next?.staffId)?.name ?? 'somebody'
  const sentence = sentenceFor(state, waiting, isKept, waitsFor)
  return (
    <div aria-live="polite">
      {sentence && (
        <p className="tray is-waiting">
          {sentence} {state === 'unidentified' && <button type="button" onClick={changeRecorder}>enter a PIN</button>}
        </p>
      )}
      {refused.map(({ entry, reason }) => (
        <p key={entry.key} className="tray is-refused" role="alert">
          <span>
            <strong>Not recorded: {entry.label}.</strong> {reason}
          </span>
          <button type="button" onClick={() => outbox.dismiss(entry.key)}>
            seen
          </button>
        </p>
      ))}
    </div>
  )
}

function sentenceFor(state: OutboxState, waiting: number, isKept: boolean, waitsFor: string): string | null {
  if (waiting === 0) return null
  const entries = plural(waiting, 'entry', 'entries')
  const kept = isKept ? 'kept on this device' : 'not kept if this page is closed'
  if (state === 'unreachable') return `The server cannot be reached. ${entries} ${kept}; go on working.`
  if (state === 'unidentified') return `${entries} by ${waitsFor}, ${kept}, wait for ${waitsFor}’s PIN.`
  if (state === 'signed-out') return `${entries} ${kept}, wait until this device is signed in.`
  return null
}
