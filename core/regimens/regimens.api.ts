import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { Thing } from '../commands/things'
import { endRegimenSchema, recordContentsSchema, recordDoseSchema, recordFoundSchema, recordStepSchema, recordWaterChangeSchema, startDosesSchema, startFeedSchema, startLadderSchema, startSalinitySchema, startTransferSchema, undoStepSchema } from './regimens.schema'
import type { OfferView, RegimensView, RegimenView } from './regimenView'

/** What regimens and doses follow from. */
const aboutRegimens: readonly Thing[] = ['regimen', 'hold', 'tank', 'look', 'register', 'limit', 'house', 'staff', 'vessel', 'kitchen', 'crate', 'bag', 'run', 'contact', 'chore']
/** What goes into a water shows on glasses and cards, and clocks go by it. */
const treated = (): readonly Thing[] => ['regimen', 'hold', 'tank', 'look']

/** Regimens: what is put into waters and done to them, by the house's own labels. Nothing prescribes. */
export const regimensApi = named({
  /** regimens that run or ended lately, waters in which something is, and what can be dosed with */
  readRegimens: read({ path: '/api/regimens', access: 'device', about: () => aboutRegimens, staysMs: 600_000, answer: answers<RegimensView>() }),
  /** one of them: what now, its chart or its plan, and what was done */
  readRegimen: read({ path: '/api/regimens/:regimenId', access: 'device', about: () => aboutRegimens, staysMs: 600_000, answer: answers<RegimenView>() }),
  /** what may go into the water of a tank now, or why nothing: *product* is an agent of the register, *regimen* the ladder that it is a step of, *lead* 1 where a lead gives a reason */
  readDoseOffer: read({ path: '/api/tanks/:code/dose-offer', access: 'device', query: object({ product: word(64), regimen: word(64), lead: word(1) }), about: () => aboutRegimens, staysMs: 600_000, answer: answers<OfferView>() }),
  /** everything that stands in the water besides fish; nothing is offered before somebody said */
  recordContents: command({ method: 'put', path: '/api/tanks/:tankId/water-contents', access: 'keeper', schema: recordContentsSchema, touches: () => ['regimen', 'tank'] }),
  /** something is in the water that nobody here dosed */
  recordFound: command({ method: 'post', path: '/api/tanks/:tankId/found-agents', access: 'keeper', schema: recordFoundSchema, touches: treated, answer: answers<{ id: string }>() }),
  /** *given* in mL or g of the product, at most what is offered; *isDone* writes down what is in the water already, whatever is said of it */
  recordDose: command({ method: 'post', path: '/api/tanks/:tankId/doses', access: 'keeper', schema: recordDoseSchema, touches: treated, answer: answers<{ id: string }>() }),
  /** within a day by whoever wrote it, later by a lead */
  undoDose: command({ method: 'post', path: '/api/doses/:doseId/undo', access: 'keeper', schema: undoStepSchema, touches: treated }),
  /** litres that were swapped: what was in the water falls by its share */
  recordWaterChange: command({ method: 'post', path: '/api/tanks/:tankId/water-changes', access: 'keeper', schema: recordWaterChangeSchema, touches: treated, answer: answers<{ id: string }>() }),
  undoWaterChange: command({ method: 'post', path: '/api/water-changes/:changeId/undo', access: 'keeper', schema: undoStepSchema, touches: treated }),
  /** an agent is stepped up, kept at its level and stepped down, by the clock of its fish */
  startLadder: command({ method: 'post', path: '/api/regimens/ladders', access: 'keeper', schema: startLadderSchema, touches: treated, answer: answers<{ id: string }>() }),
  /** a dose on each of some days */
  startDoses: command({ method: 'post', path: '/api/regimens/doses', access: 'keeper', schema: startDosesSchema, touches: treated, answer: answers<{ id: string }>() }),
  /** a food with medicine in it on each of some days: the kitchen feeds it alone */
  startMedicatedFeed: command({ method: 'post', path: '/api/regimens/medicated-feeds', access: 'keeper', schema: startFeedSchema, touches: () => ['regimen', 'hold', 'tank', 'look', 'kitchen'], answer: answers<{ id: string }>() }),
  /** from tank to tank; a move of all of its fish onward is a transfer */
  startTransfer: command({ method: 'post', path: '/api/regimens/transfers', access: 'keeper', schema: startTransferSchema, touches: treated, answer: answers<{ id: string }>() }),
  startLowSalinity: command({ method: 'post', path: '/api/regimens/low-salinities', access: 'keeper', schema: startSalinitySchema, touches: treated, answer: answers<{ id: string }>() }),
  /** a tank of a transfer was cleaned and dried, or medicated food was given without the kitchen */
  recordRegimenStep: command({ method: 'post', path: '/api/regimens/:regimenId/steps', access: 'keeper', schema: recordStepSchema, touches: treated, answer: answers<{ id: string }>() }),
  endRegimen: command({ method: 'post', path: '/api/regimens/:regimenId/end', access: 'keeper', schema: endRegimenSchema, touches: () => ['regimen', 'hold', 'tank', 'look', 'kitchen'] }),
})
