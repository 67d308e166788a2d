import { recordBoxSchema } from '../../core/crates/box.schema'
import { addBagSchema, closeCrateSchema, createCrateSchema, editCrateSchema, editLineSchema, identifyLineSchema, listLineSchema, placeBagsSchema, recordBagsSchema, removeLineSchema, reopenCrateSchema, undoBagsSchema, undoPlacementSchema } from '../../core/crates/crates.schema'
import { editClaimSchema } from '../../core/crates/claim.schema'
import { addPhotoSchema, removePhotoSchema } from '../../core/crates/photo.schema'
import type { Request } from 'express'
import { strictObject } from '../../core/fields/fields.schema'
import { listFields, type ListMapping } from '../../core/crates/listMapping'
import { fieldProblem, Problem } from '../http/problem'
import { command, plain, read, type Endpoint } from '../http/endpoint'
import { askProgram } from '../program'
import type { ClaimService } from './claim.service'
import type { ClaimPaper } from './claimPdf'
import type { CratesService } from './crates.service'
import type { PackingListsService, ReadOptions } from './packingLists.service'
import type { Mailbox } from './mailbox'
import type { PlacementsService } from './placements.service'
import type { PhotosService } from './photos.service'

/** Addresses of crates, their lists and bags. */
export const cratesEndpoints = ({ crates, lists, placements }: { crates: CratesService; lists: PackingListsService; placements: PlacementsService }): Endpoint[] => [
  read({ path: '/api/crates', access: 'device', read: ({ query }) => crates.list(query) }),
  read({ path: '/api/crates/:crateId', access: 'device', read: ({ params }) => crates.view(params.crateId ?? '') }),
  // A file goes in as its bytes, because only they tell how it is encoded. Nothing is written.
  plain({ method: 'post', path: '/api/packing-lists/read', access: 'device', mostBytes: 2_000_000, handle: (request, response) => void response.json(lists.readList(request.body instanceof Uint8Array ? request.body : new Uint8Array(), readOptions(request))) }),
  read({ path: '/api/crates/:crateId/packing-list', access: 'device', read: ({ params }) => lists.writeList(params.crateId ?? '') }),
  command({ method: 'post', path: '/api/crates', access: 'keeper', name: 'createCrate', schema: createCrateSchema, mostBytes: 1_000_000, run: crates.createCrate }),
  command({ method: 'put', path: '/api/crates/:crateId', access: 'keeper', name: 'editCrate', schema: editCrateSchema, run: crates.editCrate }),
  command({ method: 'post', path: '/api/crates/:crateId/lines', access: 'keeper', name: 'addLine', schema: listLineSchema, run: crates.addLine }),
  command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId', access: 'keeper', name: 'editLine', schema: editLineSchema, run: crates.editLine }),
  command({ method: 'post', path: '/api/crates/:crateId/lines/:lineId/removal', access: 'keeper', name: 'removeLine', schema: removeLineSchema, run: crates.removeLine }),
  command({ method: 'post', path: '/api/crates/:crateId/bags', access: 'keeper', name: 'recordBags', schema: recordBagsSchema, run: crates.recordBags }),
  command({ method: 'post', path: '/api/crates/:crateId/added-bags', access: 'keeper', name: 'addBag', schema: addBagSchema, run: crates.addBag }),
  command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId/identity', access: 'keeper', name: 'identifyLine', schema: identifyLineSchema, run: crates.identifyLine }),
  command({ method: 'put', path: '/api/crates/:crateId/box', access: 'keeper', name: 'recordBox', schema: recordBoxSchema, run: crates.recordBox }),
  command({ method: 'post', path: '/api/crates/:crateId/closing', access: 'keeper', name: 'closeCrate', schema: closeCrateSchema, run: crates.closeCrate }),
  command({ method: 'post', path: '/api/crates/:crateId/reopening', access: 'lead', name: 'reopenCrate', schema: reopenCrateSchema, run: crates.reopenCrate }),
  command({ method: 'post', path: '/api/crates/:crateId/undone-bags', access: 'keeper', name: 'undoBags', schema: undoBagsSchema, run: crates.undoBags }),
  command({ method: 'post', path: '/api/crates/:crateId/placements', access: 'keeper', name: 'placeBags', schema: placeBagsSchema, run: placements.placeBags }),
  read({ path: '/api/crates/:crateId/placements', access: 'device', read: ({ params, nowMs }) => placements.waiting(params.crateId ?? '', nowMs) }),
  command({ method: 'post', path: '/api/crates/:crateId/undone-placements', access: 'keeper', name: 'undoPlacement', schema: undoPlacementSchema, run: placements.undoPlacement }),
]

/** `?supplier=` and `?columns=species:0,bags:2` say for whom and how a list is read; both may be left out. */
function readOptions(request: Request): ReadOptions {
  const { supplier, columns } = request.query as Record<string, unknown>
  return { supplier: typeof supplier === 'string' ? supplier.slice(0, 80) : '', mapping: typeof columns === 'string' && columns !== '' ? readMapping(columns) : null }
}

function readMapping(columns: string): ListMapping {
  const pairs = columns.split(',').map((pair) => /^([a-z ]+):(\d{1,2})$/.exec(pair))
  const known = pairs.every((pair) => pair !== null && (listFields as readonly string[]).includes(pair[1] ?? ''))
  if (!known) throw fieldProblem('columns', `Columns must read like species:0,bags:2 with fields of: ${listFields.join(', ')}`)
  const mapping = Object.fromEntries(pairs.map((pair) => [pair?.[1], Number(pair?.[2])]))
  if (new Set(Object.values(mapping)).size !== pairs.length) throw fieldProblem('columns', 'One column cannot hold two things')
  return mapping
}

/** Addresses of the suppliers' mailbox. */
export const mailboxEndpoints = (mailbox: Mailbox): Endpoint[] => [
  read({ path: '/api/mailbox', access: 'device', read: () => ({ letters: mailbox.letters(), isSimulated: true }) }),
  plain({ method: 'get', path: '/api/mailbox/:letterId', access: 'device', handle: (request, response) => void response.type('application/octet-stream').send(mailbox.read(String(request.params.letterId))) }),
  command({ method: 'post', path: '/api/mailbox/:letterId/filing', access: 'keeper', name: 'fileLetter', schema: strictObject({}), run: ({ params }) => void mailbox.file(params.letterId ?? '') }),
]

/** Each takes a processor while it is written. */
const mostWriting = 2
let writing = 0

/** Addresses of a crate's pictures and of its claim. What reads pictures is large and rarely needed, so it is loaded with its first use. */
export const evidenceEndpoints = ({ photos, claims, paper }: { photos: PhotosService; claims: ClaimService; paper: (crateId: string) => ClaimPaper }): Endpoint[] => [
  command({ method: 'post', path: '/api/crates/:crateId/bags/:bagId/photos', access: 'keeper', name: 'addPhoto', schema: addPhotoSchema, mostBytes: 2_000_000, prepare: async ({ image }) => (await import('./readPicture')).readPicture(image), run: photos.addPhoto }),
  command({ method: 'post', path: '/api/crates/:crateId/photos/:photoId/removal', access: 'keeper', name: 'removePhoto', schema: removePhotoSchema, run: photos.removePhoto }),
  plain({
    method: 'get',
    path: '/api/photos/:photoId',
    access: 'device',
    // A picture never changes under its id.
    handle: (request, response) => void response.set({ 'Cache-Control': 'private, max-age=86400', 'X-Content-Type-Options': 'nosniff' }).type('image/jpeg').sendFile(photos.fileOf(String(request.params.photoId))),
  }),
  read({ path: '/api/crates/:crateId/claim', access: 'device', read: ({ params }) => claims.view(params.crateId ?? '') }),
  command({ method: 'put', path: '/api/crates/:crateId/claim', access: 'keeper', name: 'editClaim', schema: editClaimSchema, run: claims.editClaim }),
  plain({
    method: 'get',
    path: '/api/crates/:crateId/claim/csv',
    access: 'device',
    handle: (request, response) => void response.attachment('claim.csv').type('text/csv; charset=utf-8').send(claims.writeCsv(String(request.params.crateId))),
  }),
  plain({
    method: 'get',
    path: '/api/crates/:crateId/claim/pdf',
    access: 'device',
    async handle(request, response) {
      const made = paper(String(request.params.crateId))
      if (writing >= mostWriting) throw new Problem('conflict', 'Two claims are being written already; wait a few seconds')
      writing += 1
      const pdf = await askProgram('crates/claimMain', made).finally(() => (writing -= 1))
      response.attachment(`claim-crate-${made.crate.number}.pdf`).type('application/pdf').send(pdf)
    },
  }),
]
