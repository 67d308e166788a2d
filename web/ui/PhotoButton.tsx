import { useState } from 'react'
import { shrinkPicture } from './shrinkPicture'
import { Problem } from './Notice'
import './PhotoButton.css'

/** The camera, or a file: gives the picture shrunk, as base64, or says why it cannot be read. */
export function PhotoButton({ label, isFull = false, onPicture }: { label: string; isFull?: boolean; onPicture: (image: string) => void }) {
  const [problem, setProblem] = useState<string | null>(null)
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return
    setProblem(null)
    try {
      onPicture(await shrinkPicture(file))
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'The picture could not be read')
    }
  }
  return (
    <>
      <label className="btn btn-plain btn-hand photo-button">
        photo
        <input
          type="file"
          accept="image/*"
          capture="environment"
          aria-label={label}
          disabled={isFull}
          onChange={(event) => {
            void take(event.currentTarget.files?.[0])
            event.currentTarget.value = ''
          }}
        />
      </label>
      <Problem>{problem}</Problem>
    </>
  )
}
