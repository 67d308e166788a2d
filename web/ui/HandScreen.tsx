import { useEffect, useRef, type ReactNode } from 'react'
import { Link } from 'react-router'

interface Props {
  /** Class of its feature. */
  className: string
  title: ReactNode
  /** What stands at the right of the title. */
  aside?: ReactNode
  back: { to: string; label: string; onGo?: () => void }
  /** Whether Enter in a line of this screen does the orange action as well; not where what was typed has a button of its own. */
  entersFromLines?: boolean
  children: ReactNode
}

/** A screen for wet hands: the whole glass is its own, and one orange action stands in the thumb's reach. A key or a pedal that sends Enter does that action. */
export function HandScreen({ className, title, aside, back, entersFromLines = false, children }: Props) {
  const screen = useRef<HTMLDivElement>(null)
  useEffect(() => {
    // How somebody came to what is focused: by keys, or by a finger. A browser's own `:focus-visible` says keys as soon as one is pressed.
    let hasWalked = false
    const onPointer = (): void => {
      hasWalked = false
    }
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Tab') hasWalked = true
      if (event.key !== 'Enter' || !meansOrange(event.target, hasWalked, entersFromLines)) return
      event.preventDefault()
      // A pedal that is stood on says Enter again and again.
      if (!event.repeat) orangeOf(screen.current)?.click()
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('pointerdown', onPointer)
    return () => {
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('pointerdown', onPointer)
    }
  }, [entersFromLines])
  return (
    <div className={`${className} hand-screen`} ref={screen}>
      <header className="hand-head">
        <Link to={back.to} aria-label={back.label} className="back-link" onClick={back.onGo}>
          ‹
        </Link>
        <h1>{title}</h1>
        {aside}
      </header>
      {children}
    </div>
  )
}

const orangeOf = (screen: HTMLElement | null): HTMLElement | null => screen?.querySelector<HTMLElement>('.thumb-bar .btn-act:not(:disabled)') ?? null

/**
 * Whether Enter is meant for the orange action. Who walked to another button by key presses that one; who touched it has
 * left it behind, and a pedal would toggle it back. A sheet that is open has its own.
 */
function meansOrange(target: EventTarget | null, hasWalked: boolean, entersFromLines: boolean): boolean {
  if (document.querySelector('[role="dialog"]') !== null) return false
  if (!(target instanceof HTMLElement)) return true
  if (target.matches('select, textarea, summary')) return false
  // In a line with suggestions Enter takes one of them.
  if (target.matches('input')) return entersFromLines && !target.hasAttribute('list')
  return target.matches('.btn-act') || !(hasWalked && target.matches('button, a'))
}
