import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { IntroductionView, PlannedIntroduction } from './introductionView'
import { beginIntroductionSchema, endIntroductionSchema, recordIntroductionSchema, undoIntroductionSchema } from './introductions.schema'

/** Who stands in the tank is told by the one, not by the list. */
const aboutAll = ['introduction', 'vessel', 'register', 'limit', 'crate', 'staff'] as const
const about = [...aboutAll, 'tank'] as const

/** Newcomers for a tank whose residents defend it. */
export const introductionsApi = named({
  /** how it would go: `?from=` and `&to=` tanks, `&fish=` as for a move, `&mirror=1`, `&divider=1`, `&dominants=` ids of species. Nothing is written */
  readIntroductionPlan: read({ path: '/api/introduction-plan', access: 'device', query: object({ from: word(64), to: word(64), fish: word(8000), mirror: word(1), divider: word(1), dominants: word(1500) }), about: () => [...about, 'lift', 'look', 'contact', 'run', 'bag', 'fight'], staysMs: 60_000, answer: answers<PlannedIntroduction>() }),
  /** those that go on, and those that ended in the last days; without who else stands in the tank */
  readIntroductions: read({ path: '/api/introductions', access: 'device', about: () => aboutAll, staysMs: 30_000, answer: answers<{ introductions: IntroductionView[] }>() }),
  readIntroduction: read({ path: '/api/introductions/:introductionId', access: 'device', about: () => about, staysMs: 30_000, answer: answers<IntroductionView>() }),
  beginIntroduction: command({ method: 'post', path: '/api/introductions', access: 'keeper', schema: beginIntroductionSchema, touches: () => ['introduction'], answer: answers<{ id: string; number: number }>() }),
  /** a step, *in*, a look, *box* and *back*, *divider out*, *dead*, *taken out*; *against a rule* as for a move */
  recordIntroduction: command({ method: 'post', path: '/api/introductions/:introductionId/events', access: 'keeper', schema: recordIntroductionSchema, touches: () => ['introduction', 'tank', 'vessel', 'rescue', 'fight'], answer: answers<{ id: string }>() }),
  /** the newest entry, with the fish it moved */
  undoIntroduction: command({ method: 'post', path: '/api/introductions/:introductionId/undo', access: 'keeper', schema: undoIntroductionSchema, touches: () => ['introduction', 'tank', 'vessel', 'fight'] }),
  endIntroduction: command({ method: 'post', path: '/api/introductions/:introductionId/end', access: 'keeper', schema: endIntroductionSchema, touches: () => ['introduction'] }),
})
