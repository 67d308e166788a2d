import { object } from 'yup'
import { answers, command, named, plain, read } from '../commands/declare'
import { wholeUpTo } from '../commands/queryFields'
import { addTankPhotoSchema, pinNoteSchema, recordReadingSchema, takeOffSchema } from './glass.schema'
import type { TankHistory } from './tankHistory'

/** What hangs on a tank: readings, notes, pictures, and how it fared. */
export const glassApi = named({
  /** number of fish, looks, what was usual for them, and readings over `?days=` (14) */
  readTankHistory: read({ path: '/api/tanks/:code/history', access: 'device', query: object({ days: wholeUpTo(3660, 14) }), about: (_, history) => ['register', 'house', 'run', 'limit', 'crate', 'bag', ...(history ? ([`tank:${history.tankId}`, ...history.waterTankIds.map((id) => `look:${id}` as const)] as const) : (['tank', 'look'] as const))], staysMs: 600_000, answer: answers<TankHistory>() }),
  recordReading: command({ method: 'post', path: '/api/tanks/:tankId/readings', access: 'keeper', schema: recordReadingSchema, touches: ({ tankId }) => [`look:${tankId}`], answer: answers<{ seq: number }>() }),
  undoReading: command({ method: 'post', path: '/api/readings/:seq/undo', access: 'keeper', schema: takeOffSchema, touches: () => ['look'] }),
  pinNote: command({ method: 'post', path: '/api/tanks/:tankId/pins', access: 'keeper', schema: pinNoteSchema, touches: ({ tankId }) => [`tank:${tankId}`], answer: answers<{ id: string }>() }),
  unpinNote: command({ method: 'post', path: '/api/pins/:pinId/removal', access: 'keeper', schema: takeOffSchema, touches: () => ['tank'] }),
  /** *image*: base64 of JPEG, PNG or WebP, 1.4 MB */
  addTankPhoto: command({ method: 'post', path: '/api/tanks/:tankId/photos', access: 'keeper', schema: addTankPhotoSchema, mostBytes: 2_000_000, touches: ({ tankId }) => [`tank:${tankId}`], answer: answers<{ photoId: string }>() }),
  removeTankPhoto: command({ method: 'post', path: '/api/tank-photos/:photoId/removal', access: 'keeper', schema: takeOffSchema, touches: () => ['tank'] }),
  /** a JPEG; it never changes under its id */
  readTankPhoto: plain({ method: 'get', path: '/api/tank-photos/:photoId', access: 'device' }),
})
