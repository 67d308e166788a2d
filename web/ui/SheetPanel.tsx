import { Offcanvas } from 'react-bootstrap'
import type { SheetProps } from './Sheet'

export default function SheetPanel({ title, isOpen, onClose, children }: SheetProps) {
  return (
    <Offcanvas show={isOpen} onHide={onClose} placement="bottom" className="sheet" aria-labelledby="sheet-title">
      <Offcanvas.Header closeButton>
        <Offcanvas.Title id="sheet-title">{title}</Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body>{children}</Offcanvas.Body>
    </Offcanvas>
  )
}
