import { useState } from 'react'
import type { RoundStop } from '../../core/rounds/roundView'
import { useGlassWrites } from '../api/glassWrites'
import { ButtonLink } from '../ui/Button'
import { PhotoButton } from '../ui/PhotoButton'
import { ReadingForm } from '../ui/ReadingForm'
import { Sheet } from '../ui/Sheet'

/** What is done less often at a tank: a reading, a picture, a move. The card stays as it is. */
export function MoreSheet({ stop, isOpen, onClose }: { stop: RoundStop; isOpen: boolean; onClose: () => void }) {
  const { read, addPhoto } = useGlassWrites(stop.tankId)
  const [kept, setKept] = useState<string[]>([])
  const keep = (words: string): void => setKept((all) => [...all, words])
  return (
    <Sheet title={`More for ${stop.code}`} isOpen={isOpen} onClose={onClose}>
      {kept.length > 0 && <p role="status">Recorded: {kept.join(', ')}.</p>}
      <div className="more-ways">
        <PhotoButton label={`photo of ${stop.code}`} onPicture={(image) => void addPhoto(image, `picture of ${stop.code}`).then(() => keep('a picture'), () => undefined)} />
        <ButtonLink size="hand" to={`/room/${stop.code}/move`} state={{ back: `/rounds?tank=${stop.code}` }}>
          move fish
        </ButtonLink>
        <ButtonLink size="hand" to={`/room/${stop.code}`}>
          its page
        </ButtonLink>
      </div>
      <ReadingForm key={kept.length} onKeep={(what, value, words, instrument) => read(what, value, instrument).then(() => keep(words))} />
    </Sheet>
  )
}
