import { useState } from 'react'
import { Navigate, useParams, useSearchParams } from 'react-router'
import { readLabel } from '../../core/room/label'
import type { TankSummary } from '../../core/room/roomView'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { HandScreen } from '../ui/HandScreen'
import { Notice } from '../ui/Notice'
import { useCamera } from './useCamera'
import './scan.css'

/** Where a label leads, or why it leads nowhere. */
function answerTo(text: string, tanks: readonly Pick<TankSummary, 'code' | 'fish'>[], isOnRound: boolean): { to: string } | { said: string } {
  const code = readLabel(text)
  const tank = tanks.find((each) => each.code === code)
  if (tank) return { to: isOnRound && tank.fish > 0 ? `/rounds?tank=${tank.code}` : `/room/${tank.code}` }
  return { said: code === null ? `“${text.slice(0, 60)}” is no label of a tank` : `There is no tank ${code} in this room` }
}

/** A label on a tank opens it, or its card on the round. */
export function ScanPage() {
  const [search] = useSearchParams()
  const isOnRound = search.get('for') === 'round'
  const { room } = useRoomView()
  const [typed, setTyped] = useState('')
  // What was asked before the room could be read is answered as soon as it is.
  const [asked, setAsked] = useState<string | null>(null)
  const { video, problem } = useCamera(setAsked)
  const answer = asked === null || !room ? null : answerTo(asked, room.tanks, isOnRound)
  if (answer && 'to' in answer) return <Navigate to={answer.to} replace />
  return (
    <HandScreen className="scan" title="Scan a label" back={isOnRound ? { to: '/rounds', label: 'back to the round' } : { to: '/room', label: 'back to the room' }}>
      {problem === null ? <video ref={video} className="scan-picture" aria-label="What the camera sees" muted playsInline /> : <Notice>{problem}</Notice>}
      <form
        className="scan-typed"
        onSubmit={(event) => {
          event.preventDefault()
          setAsked(typed)
        }}
      >
        <TextField label="Code on the glass" size="hand" placeholder="such as R1-05" autoCapitalize="characters" maxLength={12} value={typed} problem={answer?.said ?? null} onChange={(value) => (setAsked(null), setTyped(value))} />
        <Button size="hand" type="submit" disabled={typed.trim() === ''}>
          open it
        </Button>
      </form>
    </HandScreen>
  )
}

/** The address that a label leads to. */
export function LabelPage() {
  const { code = '' } = useParams()
  return <Navigate to={`/room/${readLabel(code) ?? encodeURIComponent(code)}`} replace />
}
