import { glassApi } from '../../core/room/glass.api'
import { readingKinds, type ReadingKind } from '../../core/room/glass.schema'
import { nowMs } from './clock'
import { useWrite } from './useOutbox'

// Written at a tank's page and on the round. Features do not import each other, so what they share stands here.

/** What is put on a tank, and taken off. */
export function useGlassWrites(tankId: string) {
  const write = useWrite()
  const [params, form] = [{ tankId }, { refusals: 'form' } as const]
  return {
    pin: (words: string) => write(glassApi.pinNote, { params, label: 'a note', body: { words } }, form),
    unpin: (pinId: string) => write(glassApi.unpinNote, { params: { pinId }, label: 'a note taken off', body: {} }, form),
    read: (what: ReadingKind, value: number, instrument: string | null = null) => write(glassApi.recordReading, { params, label: readingKinds[what].label, body: { what, value, instrument, happenedAtMs: nowMs() } }, form),
    undoRead: (seq: number) => write(glassApi.undoReading, { params: { seq: String(seq) }, label: 'taking back', body: {} }, form),
    addPhoto: (image: string, label: string) => write(glassApi.addTankPhoto, { params, label, body: { image, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    removePhoto: (photoId: string) => write(glassApi.removeTankPhoto, { params: { photoId }, label: 'a picture taken off', body: {} }, form),
  }
}
export type GlassWrites = ReturnType<typeof useGlassWrites>
