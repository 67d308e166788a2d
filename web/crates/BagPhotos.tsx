import { addressOf } from '../../core/commands/declare'
import { evidenceApi } from '../../core/crates/crates.api'
import { useState } from 'react'
import type { BagView } from '../../core/crates/crateView'
import { Button } from '../ui/Button'
import { plural } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { PhotoButton } from '../ui/PhotoButton'
import { useCrateWrites } from './useCrates'

/** Takes a picture of the bag in hand, and shows those that were taken. */
export function BagPhotos({ crateId, bag }: { crateId: string; bag: BagView }) {
  const { addPhoto } = useCrateWrites(crateId)
  const [isOpen, setIsOpen] = useState(false)
  return (
    <>
      <PhotoButton label={`photo of bag ${bag.number}`} onPicture={(image) => addPhoto(bag.id, image, `picture of bag ${bag.number}`)} />
      {bag.photos.length > 0 && (
        <Button size="hand" onClick={() => setIsOpen(true)}>
          {plural(bag.photos.length, 'picture')}
        </Button>
      )}
      <PhotoSheet crateId={crateId} bag={bag} isOpen={isOpen} onClose={() => setIsOpen(false)} />
    </>
  )
}

function PhotoSheet({ crateId, bag, isOpen, onClose }: { crateId: string; bag: BagView; isOpen: boolean; onClose: () => void }) {
  const { removePhoto } = useCrateWrites(crateId)
  return (
    <Sheet title={`Pictures of bag ${bag.number}`} isOpen={isOpen} onClose={onClose}>
      <ul className="photo-list">
        {bag.photos.map((id) => (
          <li key={id}>
            <img src={addressOf(evidenceApi.readPhoto, { photoId: id })} alt={`bag ${bag.number}`} />
            <Button size="hand" onClick={() => removePhoto(id, `picture of bag ${bag.number} off`)}>
              take it away
            </Button>
          </li>
        ))}
      </ul>
    </Sheet>
  )
}
