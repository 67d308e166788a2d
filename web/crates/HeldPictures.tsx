import { useState } from 'react'
import { Button } from '../ui/Button'
import { plural } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { PhotoButton } from '../ui/PhotoButton'

/** More would not be kept through a reload. */
const mostHeld = 4

/** Pictures of a bag that is not recorded yet: they are held on this device and sent with it. */
export function HeldPictures({ pictures, onChange }: { pictures: readonly string[]; onChange: (pictures: string[]) => void }) {
  const [isOpen, setIsOpen] = useState(false)
  return (
    <>
      <PhotoButton label="photo of this bag" isFull={pictures.length >= mostHeld} onPicture={(image) => onChange([...pictures, image])} />
      {pictures.length > 0 && (
        <Button size="hand" onClick={() => setIsOpen(true)}>
          {plural(pictures.length, 'picture')}
        </Button>
      )}
      <Sheet title="Pictures of this bag" isOpen={isOpen && pictures.length > 0} onClose={() => setIsOpen(false)}>
        <ul className="photo-list">
          {pictures.map((picture, index) => (
            <li key={picture.slice(-64)}>
              <img src={`data:image/jpeg;base64,${picture}`} alt={`picture ${index + 1}`} />
              <Button size="hand" onClick={() => onChange(pictures.filter((_, each) => each !== index))}>
                take it away
              </Button>
            </li>
          ))}
        </ul>
      </Sheet>
    </>
  )
}
