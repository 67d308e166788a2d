import { object } from 'yup'
import { answers, command, named, plain, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { Thing } from '../commands/things'
import type { OutcomeLot } from './outcomeLot'
import type { OutcomeRules } from './outcomeRules'
import { answerAlarmSchema, answerPauseSchema, endTrialSchema, keepSheetSchema, startTrialSchema, nothingMoreSchema, takePartSchema } from './outcomes.schema'
import type { AlarmsView, HintsView, MoneyView, ReviewView, TrialOfCrate, TrialsView } from './outcomeViews'

/** What figures of losses follow from. */
const aboutLosses: readonly Thing[] = ['tank', 'look', 'crate', 'bag', 'run', 'register', 'limit', 'house', 'hold', 'vessel', 'outcome', 'claim', 'stocktake', 'sale', 'contact', 'staff']

/** Everything that figures of Outcomes are reckoned from, in the browser and away from the page. */
export interface OutcomeLotsView {
  /** Calendar day in the room. */
  today: string
  rules: OutcomeRules
  lots: OutcomeLot[]
  /** Lots that were here before the books: nobody knows their first day. */
  notFollowed: number
}

/** What was learned from losses. Nothing here judges people, diagnoses or prescribes. */
export const outcomesApi = named({
  /** every lot with what it is told by and when its fish went; figures are reckoned from it in a worker */
  readOutcomeLots: read({ path: '/api/outcomes/lots', access: 'device', about: () => aboutLosses, staysMs: 600_000, answer: answers<OutcomeLotsView>() }),
  /** alarms on losses of waters, suppliers and species: those that ring first, then those that are watched */
  readAlarms: read({ path: '/api/outcomes/alarms', access: 'device', about: () => aboutLosses, staysMs: 600_000, answer: answers<AlarmsView>() }),
  /** a lead answers for an alarm that rings; with *outbreak* all deaths of that water since it rose are one event */
  answerAlarm: command({ method: 'post', path: '/api/outcomes/alarm-answers', access: 'lead', schema: answerAlarmSchema, touches: () => ['outcome'] }),
  /** an outbreak that was none: its deaths are those of their crates again */
  undoOutbreak: command({ method: 'post', path: '/api/outcomes/outbreaks/:outbreakId/undo', access: 'lead', schema: nothingMoreSchema, touches: () => ['outcome'] }),
  /** what losses of a tank look like, what speaks for and against, what to look at next; never a diagnosis */
  readHints: read({ path: '/api/tanks/:code/loss-hints', access: 'device', about: () => aboutLosses, staysMs: 600_000, answer: answers<HintsView>() }),
  /** trials with their crates and looks; nobody sees more of a schedule than the next */
  readTrials: read({ path: '/api/outcomes/trials', access: 'device', about: () => aboutLosses, staysMs: 600_000, answer: answers<TrialsView>() }),
  /** what a running trial says of a crate */
  readTrialOfCrate: read({ path: '/api/crates/:crateId/trial', access: 'device', about: () => aboutLosses, staysMs: 600_000, answer: answers<{ trial: TrialOfCrate | null }>() }),
  /** refused where it would take more than two years of crates */
  startTrial: command({ method: 'post', path: '/api/outcomes/trials', access: 'lead', schema: startTrialSchema, touches: () => ['outcome'], answer: answers<{ id: string; cratesPerSchool: number; weeks: number }>() }),
  /** a crate takes its place; refused where either school breaks a house limit for it, or a binder works */
  takePart: command({ method: 'post', path: '/api/outcomes/trials/:trialId/crates', access: 'keeper', schema: takePartSchema, touches: () => ['outcome'], answer: answers<{ school: string }>() }),
  /** the look that is due; what it finds may end the trial */
  takeTrialLook: command({ method: 'post', path: '/api/outcomes/trials/:trialId/looks', access: 'lead', schema: nothingMoreSchema, touches: () => ['outcome'], answer: answers<{ sentence: string }>() }),
  /** a lead lets a paused trial go on */
  answerTrialPause: command({ method: 'post', path: '/api/outcomes/trials/:trialId/pause-answers', access: 'lead', schema: answerPauseSchema, touches: () => ['outcome'] }),
  endTrial: command({ method: 'post', path: '/api/outcomes/trials/:trialId/end', access: 'lead', schema: endTrialSchema, touches: () => ['outcome'] }),
  /** what losses cost, by supplier: lines with a price, one currency */
  readLossMoney: read({ path: '/api/outcomes/money', access: 'lead', about: () => aboutLosses, staysMs: 600_000, answer: answers<MoneyView>() }),
  /** the sheet of a month, `?month=2031-04`: every figure with how sure it is */
  readReview: read({ path: '/api/outcomes/review', access: 'lead', query: object({ month: word(7) }), about: () => aboutLosses, staysMs: 600_000, answer: answers<ReviewView>() }),
  /** the same as a sheet of paper */
  readReviewPdf: plain({ method: 'get', path: '/api/outcomes/review/:month/pdf', access: 'lead' }),
  /** keeps the words of a sheet: next month's are held against them */
  keepSheet: command({ method: 'post', path: '/api/outcomes/sheets', access: 'lead', schema: keepSheetSchema, touches: () => ['outcome'] }),
})
