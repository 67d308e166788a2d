import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { Thing } from '../commands/things'
import { changeHoldSchema, decideBreachSchema, decideHeldSignSchema, endHoldsSchema, endPairingSchema, lengthenHoldSchema, recordBodySchema, recordClearedSchema, retirePolicySchema, saveHoldRulesSchema, savePolicySchema, startPairingSchema, undoHoldEntrySchema } from './holds.schema'
import type { HoldPoliciesView, HoldsView, HoldWhatIfView } from './holdsView'

/** What clocks follow from. */
const aboutHolds: readonly Thing[] = ['hold', 'tank', 'look', 'bag', 'contact', 'register', 'limit', 'house', 'staff', 'run', 'vessel', 'crate']
/** A clock that moves shows on glasses, cards and lists. */
const moved = (): readonly Thing[] => ['hold', 'tank', 'look', 'round']

/** Holds: what follows from the books, what people decide of it, and the policies it goes by. */
export const holdsApi = named({
  /** every clock that runs, what waits for a decision, and what people did to holds lately */
  readHolds: read({ path: '/api/holds', access: 'device', about: () => aboutHolds, staysMs: 600_000, answer: answers<HoldsView>() }),
  /** what it would mean: *what* is `fish` (of a new lot) or `sign`, in *tank*; or a move of *lot* out of the place *from* into it. Nothing is written */
  readHoldWhatIf: read({ path: '/api/holds/what-if', access: 'device', query: object({ what: word(10), tank: word(64), lot: word(64), from: word(64) }), about: () => aboutHolds, staysMs: 600_000, answer: answers<HoldWhatIfView>() }),
  /** signs of one word in one tank that nobody decided, however old: *confirmed*, holds begin again from when they were seen; *dismissed* is a lead's */
  decideHeldSign: command({ method: 'post', path: '/api/holds/sign-decisions', access: 'keeper', schema: decideHeldSignSchema, touches: moved, answer: answers<{ ids: string[] }>() }),
  /** a breach: *confirmed*, it counts as fish added; *dismissed* is a lead's */
  decideBreach: command({ method: 'post', path: '/api/contacts/:contactId/decisions', access: 'keeper', schema: decideBreachSchema, touches: moved, answer: answers<{ id: string }>() }),
  /** ready ones by anybody; one that is not ready by a lead with a *reason*, and what it is short of is kept */
  endHolds: command({ method: 'post', path: '/api/holds/ends', access: 'keeper', schema: endHoldsSchema, touches: moved, answer: answers<{ ids: string[] }>() }),
  /** a first policy for fish that have none; another one is a lead's */
  changeHold: command({ method: 'post', path: '/api/holds/changes', access: 'keeper', schema: changeHoldSchema, touches: moved, answer: answers<{ ids: string[] }>() }),
  lengthenHold: command({ method: 'post', path: '/api/holds/longer', access: 'keeper', schema: lengthenHoldSchema, touches: moved, answer: answers<{ ids: string[] }>() }),
  /** how well fleshed fish are: what *filling out* goes by */
  recordBody: command({ method: 'post', path: '/api/holds/bodies', access: 'keeper', schema: recordBodySchema, touches: moved, answer: answers<{ id: string }>() }),
  /** an agent is in this water no more */
  recordCleared: command({ method: 'post', path: '/api/holds/cleared', access: 'keeper', schema: recordClearedSchema, touches: moved, answer: answers<{ id: string }>() }),
  /** within a day by whoever wrote it, later by a lead */
  undoHoldEntry: command({ method: 'post', path: '/api/holds/entries/:entryId/undo', access: 'keeper', schema: undoHoldEntrySchema, touches: moved }),
  /** fish of two lots that stand in a tank by themselves: how many there are of each, the books know. Looks at the tank decide it */
  startPairing: command({ method: 'post', path: '/api/pairings', access: 'keeper', schema: startPairingSchema, touches: moved, answer: answers<{ id: string }>() }),
  /** given up, with why: nothing keeps the groups apart then */
  endPairing: command({ method: 'post', path: '/api/pairings/:pairingId/end', access: 'keeper', schema: endPairingSchema, touches: moved }),
  /** shipped policies, the house's own, and which fish begin which */
  readHoldPolicies: read({ path: '/api/hold-policies', access: 'device', about: () => ['hold', 'limit'], staysMs: Infinity, answer: answers<HoldPoliciesView>() }),
  /** *policy* as JSON: one that never ends, or goes back to no phase, is refused with why. It holds for fish that are in it, too */
  saveHoldPolicy: command({ method: 'put', path: '/api/hold-policies/:policyId', access: 'lead', schema: savePolicySchema, touches: moved, answer: answers<{ version: number }>() }),
  /** out of use it begins for nobody any more; whoever is in it stays */
  retireHoldPolicy: command({ method: 'post', path: '/api/hold-policies/:policyId/retirement', access: 'lead', schema: retirePolicySchema, touches: () => ['hold'], answer: answers<{ version: number }>() }),
  /** in order: the first that fits a lot, and whose agents the table of refusals allows it, is its hold. Lots that have begun stay as they are */
  saveHoldRules: command({ method: 'put', path: '/api/hold-rules', access: 'lead', schema: saveHoldRulesSchema, touches: () => ['hold'], answer: answers<{ version: number }>() }),
})
