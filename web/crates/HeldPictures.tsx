import { useState } from 'react'
import { plural } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { PhotoButton } from './PhotoButton'

/** More would not be kept through a reload. */
const mostHeld = 4

/** Pictures of a bag that is not recorded yet: they are held on this device and sent with it. */
export function HeldPictures({ pictures, onChange }: { pictures: readonly string[]; onChange: (pictures: string[]) => void }) {
  const [isOpen, setIsOpen] = useState(false)
  return (
    <>
      <PhotoButton label="photo of this bag" isFull={pictures.length >= mostHeld} onPicture={(image) => onChange([...pictures, image])} />
      {pictures.length > 0 && (
        <button type="button" className="hand-button" onClick={() => setIsOpen(true)}>
          {plural(pictures.length, 'picture')}
        </button>
      )}
      <Sheet title="Pictures of this bag" isOpen={isOpen && pictures.length > 0} onClose={() => setIsOpen(false)}>
        <ul className="photo-list">
          {pictures.map((picture, index) => (
            <li key={picture.slice(-64)}>
              <img src={`data:image/jpeg;base64,${picture}`} alt={`picture ${index + 1}`} />
              <button type="button" className="hand-button" onClick={() => onChange(pictures.filter((_, each) => each !== index))}>
                take it away
              </button>
            </li>
          ))}
        </ul>
      </Sheet>
    </>
  )
}
