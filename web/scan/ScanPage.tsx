import { useState } from 'react'
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router'
import { readLabel } from '../../core/room/label'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { HandScreen } from '../ui/HandScreen'
import { Notice } from '../ui/Notice'
import { useCamera } from './useCamera'
import './scan.css'

/** A label on a tank opens it, or its card on the round. */
export function ScanPage() {
  const [search] = useSearchParams()
  const isOnRound = search.get('for') === 'round'
  const navigate = useNavigate()
  const { room } = useRoomView()
  const [typed, setTyped] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  const open = (text: string): void => {
    const code = readLabel(text)
    const tank = room?.tanks.find((each) => each.code === code)
    if (!room) return
    if (!tank) return setSaid(code === null ? `“${text.slice(0, 60)}” is no label of a tank` : `There is no tank ${code} in this room`)
    void navigate(isOnRound && tank.fish > 0 ? `/rounds?tank=${tank.code}` : `/room/${tank.code}`, { replace: true })
  }
  const { video, problem } = useCamera(open)
  return (
    <HandScreen className="scan" title="Scan a label" back={isOnRound ? { to: '/rounds', label: 'back to the round' } : { to: '/room', label: 'back to the room' }}>
      {problem === null ? <video ref={video} className="scan-picture" aria-label="What the camera sees" muted playsInline /> : <Notice>{problem}</Notice>}
      <form
        className="scan-typed"
        onSubmit={(event) => {
          event.preventDefault()
          open(typed)
        }}
      >
        <TextField label="Code on the glass" size="hand" placeholder="such as R1-05" autoCapitalize="characters" maxLength={12} value={typed} problem={said} onChange={(value) => (setSaid(null), setTyped(value))} />
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
