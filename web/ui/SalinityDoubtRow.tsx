import { useEffect, useRef } from 'react'
import type { SalinityDoubt } from '../../core/units/salinityDoubt'
import { Button } from './Button'

/** Asks which scale a salinity was typed on; one touch answers. */
export function SalinityDoubtRow({ doubt, onTake }: { doubt: SalinityDoubt; onTake: (ppt: number) => void }) {
  const row = useRef<HTMLSpanElement>(null)
  // On a hand screen it may come up under the bar of actions.
  useEffect(() => {
    row.current?.scrollIntoView?.({ block: 'nearest' })
  }, [])
  return (
    <span ref={row} className="salinity-doubt" role="alert">
      <small>{doubt.question}</small>
      {doubt.choices.map(({ label, ppt }) => (
        <Button key={label} onClick={() => onTake(ppt)}>
          {label}
        </Button>
      ))}
    </span>
  )
}
