import { useState } from 'react'
import { plural } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { shrinkPicture } from './shrinkPicture'

/** More would not be kept through a reload. */
const mostHeld = 4

/** Pictures of a bag that is not recorded yet: they are held on this device and sent with it. */
export function HeldPictures({ pictures, onChange }: { pictures: readonly string[]; onChange: (pictures: string[]) => void }) {
  const [problem, setProblem] = useState<string | null>(null)
  const [isOpen, setIsOpen] = useState(false)
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return
    setProblem(null)
    try {
      onChange([...pictures, await shrinkPicture(file)])
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'The picture could not be read')
    }
  }
  return (
    <>
      <label className="hand-button photo-button">
        photo
        <input
          type="file"
          accept="image/*"
          capture="environment"
          aria-label="photo of this bag"
          disabled={pictures.length >= mostHeld}
          onChange={(event) => {
            void take(event.currentTarget.files?.[0])
            event.currentTarget.value = ''
          }}
        />
      </label>
      {pictures.length > 0 && (
        <button type="button" className="hand-button" onClick={() => setIsOpen(true)}>
          {plural(pictures.length, 'picture')}
        </button>
      )}
      {problem && (
        <p className="form-problem" role="alert">
          {problem}
        </p>
      )}
      <Sheet title="Pictures of this bag" isOpen={isOpen && pictures.length > 0} onClose={() => setIsOpen(false)}>
        <ul className="photo-list">
          {pictures.map((picture, index) => (
            <li key={picture.slice(-64)}>
              <img src={picture.startsWith('data:') ? picture : `data:image/jpeg;base64,${picture}`} alt={`picture ${index + 1}`} />
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
