import { useState, type ReactNode } from 'react'
import type { TickView } from '../../core/kitchen/kitchenView'
import { Button } from '../ui/Button'
import { useFormat } from '../ui/useFormat'
import type { KitchenWrites } from './useKitchen'

interface Props {
  done: TickView | null
  writes: Pick<KitchenWrites, 'undoTick'>
  onTick: () => void
  when: string
  isLate?: boolean
  /** What can be opened below it, and how that is called. */
  more?: { label: string; name: string; content: ReactNode }
  children: ReactNode
}

/** One thing to do, ticked off by its whole row; a second touch takes it back. */
export function TickRow({ done, writes, onTick, when, isLate = false, more, children }: Props) {
  const format = useFormat()
  const [isOpen, setOpen] = useState(false)
  // What still waits on this device has no id yet to take back.
  const toggle = (): void => (done === null ? onTick() : done.by !== '' ? writes.undoTick(done.id) : undefined)
  return (
    <li className={done ? 'record tick-row is-done' : isLate ? 'record tick-row is-late' : 'record tick-row'}>
      <Button look="bare" className="tick" aria-pressed={done !== null} onClick={toggle}>
        <span className="tick-box" aria-hidden="true">{done ? '✓' : ''}</span>
        <span>{children}</span>
        <span className="tick-when">{done ? `${done.by} ${format.time(done.atMs)}` : when}</span>
      </Button>
      {more && (
        <Button look="quiet" className="tick-more" aria-expanded={isOpen} aria-label={more.name} onClick={() => setOpen(!isOpen)}>
          {more.label}
        </Button>
      )}
      {more && isOpen && more.content}
    </li>
  )
}
