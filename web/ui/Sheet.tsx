import { Suspense, useState, type ReactNode } from 'react'
import { lazyAhead } from './ahead'

export interface SheetProps {
  title: string
  isOpen: boolean
  onClose: () => void
  children: ReactNode
}

// Nothing of it is on a first screen.
const SheetPanel = lazyAhead(() => import('./SheetPanel'))

/** A sheet from below for one more choice; closes by itself once it is made. */
export function Sheet(props: SheetProps) {
  const [wasOpen, setWasOpen] = useState(props.isOpen)
  if (props.isOpen && !wasOpen) setWasOpen(true)
  return wasOpen ? (
    <Suspense>
      <SheetPanel {...props} />
    </Suspense>
  ) : null
}
