import { object } from 'yup'
import { answers, command, named, plain, read } from '../commands/declare'
import { wholeUpTo } from '../commands/queryFields'
import { strictObject } from '../fields/fields.schema'
import type { ChoiceView } from '../tankChoice/tankChoice'
import type { CardFacts } from './cardFacts'
import { recordBoxSchema } from './box.schema'
import type { ClaimView } from './claim'
import { editClaimSchema } from './claim.schema'
import { addBagSchema, chooseTankSchema, closeCrateSchema, createCrateSchema, editCrateSchema, editLineSchema, identifyLineSchema, listLineSchema, placeBagsSchema, recordBagsSchema, removeLineSchema, reopenCrateSchema, undoBagsSchema, undoPlacementSchema } from './crates.schema'
import { closedPage, withPendingBags, type CrateList, type CrateView, type WaitingForTank } from './crateView'
import { chooseTanksSchema, prepareStepSchema } from './delivery.schema'
import { addPhotoSchema, removePhotoSchema } from './photo.schema'
import type { writePackingList } from './packingListFile'
import type { StepView } from './preparation'

/** Larger than any list of crates that somebody walks back through. */
const mostClosed = 100_000

interface OfCrate {
  crateId: string
}
type Versioned = { version: number }

/** A packing list that a supplier sent. */
export interface Letter {
  id: string
  name: string
  bytes: number
  atMs: number
}

const ofCrate = ({ crateId }: OfCrate) => [`crate:${crateId}`] as const
const ofBags = ({ crateId }: OfCrate) => [`bag:${crateId}`] as const
/** Fish that leave their bags stand in tanks, and those that come back do not. */
const ofFish = ({ crateId }: OfCrate) => [`bag:${crateId}`, 'tank', 'rescue'] as const
const ofPlan = ({ crateId }: OfCrate) => [`crate:${crateId}`, 'tank'] as const
const judged = ({ crateId }: OfCrate) => [`crate:${crateId}`, `bag:${crateId}`, 'register', 'limit', 'tank', 'contact', 'run'] as const

/** Crates, their lists and bags. */
export const cratesApi = named({
  /** newest first: every open one, and those closed last; hasOlder */
  readCrates: read({ path: '/api/crates', access: 'device', query: object({ closed: wholeUpTo(mostClosed, closedPage) }), about: () => ['crate', 'bag', 'claim', 'register'], staysMs: 60_000, answer: answers<CrateList>() }),
  /** one crate: lines, bags with their records, last placing */
  readCrate: read({ path: '/api/crates/:crateId', access: 'device', about: ({ crateId }) => [`crate:${crateId}`, `bag:${crateId}`, 'claim', 'register', 'run', 'staff', 'tank'], staysMs: 60_000, withPending: withPendingBags, answer: answers<CrateView>() }),
  /** bytes of a CSV or JSON file, `?supplier=&columns=species:0,bags:2`; nothing is written. A refusal carries the columns under `current` */
  readList: plain({ method: 'post', path: '/api/packing-lists/read', access: 'device', mostBytes: 2_000_000 }),
  /** what a take-along card from a tank can say: its fish as they are known here, readings of its water of the last 48 h, what it is kept at */
  readCard: read({ path: '/api/tanks/:code/card', access: 'device', about: () => ['tank', 'look', 'crate', 'register', 'limit', 'house'], staysMs: 60_000, answer: answers<CardFacts>() }),
  /** its list as JSON ([formats.md](formats.md)) */
  writeList: read({ path: '/api/crates/:crateId/packing-list', access: 'device', about: (crate) => [...ofCrate(crate), 'register'], staysMs: Infinity, answer: answers<ReturnType<typeof writePackingList>>() }),
  /** *hasList* false: no lines yet */
  createCrate: command({ method: 'post', path: '/api/crates', access: 'keeper', schema: createCrateSchema, mostBytes: 1_000_000, touches: () => ['crate', 'register', 'tank'], answer: answers<{ id: string; number: number }>() }),
  editCrate: command({ method: 'put', path: '/api/crates/:crateId', access: 'keeper', schema: editCrateSchema, touches: (crate) => [...ofPlan(crate), 'register'], answer: answers<Versioned>() }),
  /** one line; *override*: a lead's reason to plan it against a rule */
  addLine: command({ method: 'post', path: '/api/crates/:crateId/lines', access: 'keeper', schema: listLineSchema, touches: (crate) => [...ofPlan(crate), 'register'], answer: answers<Versioned & { id: string }>() }),
  /** a tankId that is left out stays */
  editLine: command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId', access: 'keeper', schema: editLineSchema, touches: (crate) => [...ofPlan(crate), 'register', 'run'], answer: answers<Versioned>() }),
  /** only while none of its bags was opened or pictured and no fish of it are in the books */
  removeLine: command({ method: 'post', path: '/api/crates/:crateId/lines/:lineId/removal', access: 'keeper', schema: removeLineSchema, touches: ofPlan }),
  recordBags: command({ method: 'post', path: '/api/crates/:crateId/bags', access: 'keeper', schema: recordBagsSchema, touches: ofBags }),
  /** a bag of no list: *species* null is named later; *bagIds* are made on the device, several are alike; *lineId*: one more bag of a line that was counted in */
  addBag: command({ method: 'post', path: '/api/crates/:crateId/added-bags', access: 'keeper', schema: addBagSchema, touches: ({ crateId }) => [`crate:${crateId}`, `bag:${crateId}`, 'register'], answer: answers<{ bagId: string; lineId: string; number: number }>() }),
  /** what a lot is called */
  identifyLine: command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId/identity', access: 'keeper', schema: identifyLineSchema, touches: (crate) => [...ofPlan(crate), 'register', 'run'], answer: answers<Versioned>() }),
  recordBox: command({ method: 'put', path: '/api/crates/:crateId/box', access: 'keeper', schema: recordBoxSchema, touches: ofCrate, answer: answers<Versioned>() }),
  /** *because* is needed while fish are in bags or bags shut */
  closeCrate: command({ method: 'post', path: '/api/crates/:crateId/closing', access: 'keeper', schema: closeCrateSchema, touches: ofPlan, answer: answers<Versioned>() }),
  reopenCrate: command({ method: 'post', path: '/api/crates/:crateId/reopening', access: 'lead', schema: reopenCrateSchema, touches: ofPlan, answer: answers<Versioned>() }),
  undoBags: command({ method: 'post', path: '/api/crates/:crateId/undone-bags', access: 'keeper', schema: undoBagsSchema, touches: ofBags }),
  /** *tankId* null: all tanks that break no rule; the answer says how many fish were left. *Against a rule*: override, isRescue */
  placeBags: command({ method: 'post', path: '/api/crates/:crateId/placements', access: 'keeper', schema: placeBagsSchema, touches: ofFish, answer: answers<{ placed: number; left: number }>() }),
  /** by planned tank with fish waiting: the rules they would break in it */
  readPlacements: read({ path: '/api/crates/:crateId/placements', access: 'device', about: judged, staysMs: 60_000, answer: answers<{ tanks: WaitingForTank[] }>() }),
  undoPlacement: command({ method: 'post', path: '/api/crates/:crateId/undone-placements', access: 'keeper', schema: undoPlacementSchema, touches: ofFish }),
})

/** A crate's preparation, and choosing its tanks. */
export const deliveryApi = named({
  /** steps with due time, done by whom */
  readPreparation: read({ path: '/api/crates/:crateId/preparation', access: 'device', about: ({ crateId }) => [...judged({ crateId }), `preparation:${crateId}`, 'crate', 'look', 'house', 'staff'], staysMs: 60_000, answer: answers<{ steps: StepView[] }>() }),
  prepareStep: command({ method: 'put', path: '/api/crates/:crateId/preparation', access: 'keeper', schema: prepareStepSchema, touches: ({ crateId }) => [`preparation:${crateId}`] }),
  /** lines, tanks and limits that tanks are chosen from, and what is chosen */
  readTankChoice: read({ path: '/api/crates/:crateId/tank-choice', access: 'device', about: ({ crateId }) => [...judged({ crateId }), 'crate', 'bag', 'look', 'fight', 'plan'], staysMs: 60_000, answer: answers<ChoiceView>() }),
  /** all or none */
  chooseTanks: command({ method: 'put', path: '/api/crates/:crateId/tank-choice', access: 'keeper', schema: chooseTanksSchema, touches: ofPlan, answer: answers<{ lines: { lineId: string; version: number }[] }>() }),
  chooseTank: command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId/tank', access: 'keeper', schema: chooseTankSchema, touches: ofPlan, answer: answers<Versioned>() }),
  /** a search of up to 8 s as lines of JSON (`application/x-ndjson`): choice, total, gap, isDone; closing the connection ends it */
  searchTanks: plain({ method: 'get', path: '/api/crates/:crateId/tank-search', access: 'device' }),
})

/** The suppliers' mailbox: a folder, simulated. */
export const mailboxApi = named({
  /** lists that suppliers sent */
  readMailbox: read({ path: '/api/mailbox', access: 'device', about: () => ['letter'], staysMs: 0, answer: answers<{ letters: Letter[]; isSimulated: boolean }>() }),
  /** one of them as it came */
  readLetter: plain({ method: 'get', path: '/api/mailbox/:letterId', access: 'device' }),
  /** puts it away */
  fileLetter: command({ method: 'post', path: '/api/mailbox/:letterId/filing', access: 'keeper', schema: strictObject({}), touches: () => ['letter'] }),
})

/** A crate's pictures and its claim. */
export const evidenceApi = named({
  /** *image*: base64 of JPEG, PNG or WebP, 1.4 MB */
  addPhoto: command({ method: 'post', path: '/api/crates/:crateId/bags/:bagId/photos', access: 'keeper', schema: addPhotoSchema, mostBytes: 2_000_000, touches: ofBags, answer: answers<{ photoId: string }>() }),
  removePhoto: command({ method: 'post', path: '/api/crates/:crateId/photos/:photoId/removal', access: 'keeper', schema: removePhotoSchema, touches: ofBags }),
  /** a JPEG; it never changes under its id */
  readPhoto: plain({ method: 'get', path: '/api/photos/:photoId', access: 'device' }),
  /** state, rules, sheet by line and bag */
  readClaim: read({ path: '/api/crates/:crateId/claim', access: 'device', about: ({ crateId }) => [`claim:${crateId}`, `crate:${crateId}`, `bag:${crateId}`, 'register'], staysMs: 60_000, answer: answers<ClaimView>() }),
  editClaim: command({ method: 'put', path: '/api/crates/:crateId/claim', access: 'keeper', schema: editClaimSchema, touches: ({ crateId }) => [`claim:${crateId}`], answer: answers<Versioned>() }),
  /** the sheet as a file */
  readClaimCsv: plain({ method: 'get', path: '/api/crates/:crateId/claim/csv', access: 'device' }),
  /** the sheet as a file */
  readClaimPdf: plain({ method: 'get', path: '/api/crates/:crateId/claim/pdf', access: 'device' }),
})
