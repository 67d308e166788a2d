import type { ReactNode } from 'react'
import { Offcanvas } from 'react-bootstrap'

/** A sheet from below for one more choice; closes by itself once it is made. */
export function Sheet({ title, isOpen, onClose, children }: { title: string; isOpen: boolean; onClose: () => void; children: ReactNode }) {
  return (
    <Offcanvas show={isOpen} onHide={onClose} placement="bottom" className="sheet" aria-labelledby="sheet-title">
      <Offcanvas.Header closeButton>
        <Offcanvas.Title id="sheet-title">{title}</Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>{children}</Offcanvas.Body>
    </Offcanvas>
  )
}
