import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { mostPhotosOfBag, type AddPhoto } from '../../core/crates/photo.schema'
import type { CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import { newId } from '../newId'
import type { CratesStore } from './crates.store'
import type { PhotosStore } from './photos.store'
import type { Picture } from './readPicture'

interface Collaborators {
  store: PhotosStore
  crates: CratesStore
  /** Folder in which pictures lie, beside the database. */
  folder: string
}

/** Pictures of bags: kept as files beside the database, named by their id alone. */
export function createPhotosService({ store, crates, folder }: Collaborators) {
  const fileOf = (id: string): string => join(folder, `${id}.jpg`)
  return {
    /** Keeps a picture that was read and made anew. */
    addPhoto({ params, actor, nowMs }: CommandContext, { happenedAtMs }: AddPhoto, { jpeg, widthPx, heightPx }: Picture) {
      const { crateId = '', bagId = '' } = params
      if (!crates.bagOfCrate(crateId, bagId)) throw new Problem('not-found', 'There is no such bag in this crate')
      if (store.countOfBag(bagId) >= mostPhotosOfBag) throw new Problem('conflict', `A bag may have at most ${mostPhotosOfBag} pictures; take one away first`)
      const id = newId()
      mkdirSync(folder, { recursive: true })
      // Written before the entry: a picture without an entry harms nobody, an entry without a picture does.
      writeFileSync(fileOf(id), jpeg, { flag: 'wx' })
      store.insert({ id, bagId, widthPx, heightPx, staffId: actor.id, happenedAtMs, recordedAtMs: nowMs })
      return { photoId: id }
    },

    /** Takes a picture away; file and entry stay, so that nothing that was claimed with it is lost. */
    removePhoto({ params, actor, nowMs }: CommandContext) {
      const photo = store.photo(params.photoId ?? '')
      if (!photo || !crates.bagOfCrate(params.crateId ?? '', photo.bagId)) throw new Problem('not-found', 'There is no such picture')
      store.markRemoved(photo.id, { removedById: actor.id, removedAtMs: nowMs })
      return {}
    },

    /** File of a picture. */
    fileOf(id: string): string {
      if (!store.photo(id)) throw new Problem('not-found', 'There is no such picture')
      return fileOf(id)
    },
  }
}
export type PhotosService = ReturnType<typeof createPhotosService>
