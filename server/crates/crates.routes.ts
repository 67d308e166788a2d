import type { Request } from 'express'
import type { AddPhoto } from '../../core/crates/photo.schema'
import { cratesApi, evidenceApi, mailboxApi } from '../../core/crates/crates.api'
import { listFields, type ListMapping } from '../../core/crates/listMapping'
import { fieldProblem } from '../http/problem'
import { prepared, serve, type Endpoint } from '../http/endpoint'
import { programAtMost } from '../program'
import type { CardService } from './card.service'
import type { ClaimService } from './claim.service'
import type { ClaimPaper } from './claimPdf'
import type { CratesService } from './crates.service'
import type { PackingListsService, ReadOptions } from './packingLists.service'
import type { Mailbox } from './mailbox'
import type { PlacementsService } from './placements.service'
import type { PhotosService } from './photos.service'

/** Answers for crates, their lists and bags. */
export function cratesEndpoints({ crates, lists, placements, cards }: { crates: CratesService; lists: PackingListsService; placements: PlacementsService; cards: CardService }): Endpoint[] {
  const { createCrate, editCrate, addLine, editLine, removeLine, recordBags, addBag, identifyLine, recordBox, closeCrate, reopenCrate, undoBags } = crates
  const { placeBags, undoPlacement } = placements
  return serve(cratesApi, {
    readCrates: ({ query }) => crates.list(query.closed),
    readCrate: ({ params }) => crates.view(params.crateId),
    readPlacements: ({ params, nowMs }) => placements.waiting(params.crateId, nowMs),
    // A file goes in as its bytes, because only they tell how it is encoded. Nothing is written.
    readList: (request, response) => void response.json(lists.readList(request.body instanceof Uint8Array ? request.body : new Uint8Array(), readOptions(request))),
    readCard: ({ params, nowMs }) => cards.facts(params.code, nowMs),
    writeList: ({ params }) => lists.writeList(params.crateId),
    ...{ createCrate, editCrate, addLine, editLine, removeLine, recordBags, addBag, identifyLine, recordBox, closeCrate, reopenCrate, undoBags, placeBags, undoPlacement },
  })
}

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

/** Answers for the suppliers' mailbox. */
export const mailboxEndpoints = (mailbox: Mailbox): Endpoint[] =>
  serve(mailboxApi, {
    readMailbox: () => ({ letters: mailbox.letters(), isSimulated: true }),
    readLetter: (request, response) => void response.type('application/octet-stream').send(mailbox.read(String(request.params.letterId))),
    fileLetter: ({ params }) => mailbox.file(params.letterId ?? ''),
  })

const writeClaim = programAtMost('crates/claimMain', 2, 'Two claims are being written already; wait a few seconds')

/** Answers for a crate's pictures and its claim. What reads pictures is large and rarely needed, so it is loaded with its first use. */
export const evidenceEndpoints = ({ photos, claims, paper }: { photos: PhotosService; claims: ClaimService; paper: (crateId: string) => ClaimPaper }): Endpoint[] =>
  serve(evidenceApi, {
    addPhoto: prepared(async ({ image }: AddPhoto) => (await import('./readPicture')).readPicture(image), photos.addPhoto),
    removePhoto: photos.removePhoto,
    readPhoto: (request, response) => void response.set({ 'Cache-Control': 'private, max-age=86400', 'X-Content-Type-Options': 'nosniff' }).type('image/jpeg').sendFile(photos.fileOf(String(request.params.photoId))),
    readClaim: ({ params }) => claims.view(params.crateId),
    editClaim: claims.editClaim,
    readClaimCsv: (request, response) => void response.attachment('claim.csv').type('text/csv; charset=utf-8').send(claims.writeCsv(String(request.params.crateId))),
    async readClaimPdf(request, response) {
      const made = paper(String(request.params.crateId))
      response.attachment(`claim-crate-${made.crate.number}.pdf`).type('application/pdf').send(await writeClaim(made))
    },
  })
