import type { LadderStep } from '../dosing/ladderStep'
import { shippedAgents } from '../dosing/agents'
import { shownDay } from '../time/shownDay'
import { markedUnits, showFigure, showSet } from '../units/units'
import { plural } from '../words/plural'
import type { CourseNow } from './courseNow'
import type { RegimenKind } from './regimens.schema'
import type { SalinityNow } from './salinityNow'
import type { TransferNow } from './transferNow'

/** What now, and why; the reason may be missing where the sentence has it. */
export interface NowWords {
  now: string
  why: string | null
  isAmiss: boolean
}
const said = (now: string, why: string | null = null, isAmiss = false): NowWords => ({ now, why, isAmiss })

/** An amount of a product, as it is measured out. */
export const amountWords = (amount: number, unit: 'mL' | 'g'): string => `${Number(amount.toPrecision(3))} ${unit}`
export const mgLWords = (mgL: number): string => `${Number(mgL.toPrecision(3))} mg/L`
const hourWords = (hours: number): string => (hours < 1 ? 'less than an hour' : `${Math.ceil(hours)} h`)

export const regimenTitles: Readonly<Record<RegimenKind, string>> = { ladder: 'Ladder', doses: 'Course of doses', 'medicated feed': 'Medicated feed', transfer: 'Tank transfer', 'low salinity': 'Low salinity' }
/** A regimen by what it is done with. */
export const regimenTitle = (kind: RegimenKind, product: string | null): string => (kind === 'ladder' && product !== null ? `${product}, stepped` : kind === 'doses' && product !== null ? `${product}, by days` : regimenTitles[kind])

export interface LadderTold {
  step: LadderStep
  kit: string | null
  ageH: number | null
  isJump: boolean
  hasFish: boolean
  /** What is offered for the step; null where nothing is. */
  amount: string | null
  targetMgL: number
  doneBelowMgL: number
}
const readWhy = ({ ageH, isJump }: Pick<LadderTold, 'ageH' | 'isJump'>): string => (isJump ? 'The last reading could not be: litres, carbon or the other kit.' : ageH === null ? 'It was never read since it went in.' : `The last reading is ${Number.isFinite(ageH) ? `${Math.round(ageH)} h old` : 'from before the last dose'}.`)

/** What a ladder does next. */
export function ladderWords({ step, kit, ageH, isJump, hasFish, amount, targetMgL, doneBelowMgL }: LadderTold): NowWords {
  const litres = showSet('volume', step.changeL ?? 0, markedUnits)
  const put = amount ?? 'what the offer says'
  switch (step.do) {
    case 'read':
      return said(`Read first${kit === null ? '' : `, with the kit for ${kit}`}.`, readWhy({ ageH, isJump }), true)
    case 'changeDown':
      return said(`Too strong: change ${litres}, then read.`, 'It stands above the limit.', true)
    case 'dosePart':
      return said(`Put the part dose in: ${put}.`, hasFish ? 'They have a part of it first, and eat, before it is raised.' : 'No fish stand here: whoever comes next comes into it.')
    case 'wait':
      return said(`Leave it for ${hourWords(step.waitH ?? 0)} more.`, 'Then it is raised, if they eat.')
    case 'waitEating':
      return hasFish ? said('Wait until they eat most of a meal.', 'Fish that do not eat bear a raise badly.') : said('Kept at part dose.', 'Whoever comes next comes into it, and has it before it is raised.')
    case 'raise':
      return said(`Raise it to ${mgLWords(targetMgL)}: ${put}.`, 'They have had the part dose, and eat.')
    case 'doseUp':
      return said(`Bring it up to ${mgLWords(targetMgL)}: ${put}.`, 'It stands below its range, and such days do not count.')
    case 'hold':
      return said('Keep it where it is, and read daily.', `${plural(step.days ?? 0, 'day')} at level to go.`)
    case 'stepDown':
      return said(`Change ${litres}${step.changes === null ? '' : `, ${plural(step.changes, 'time')} from now`}.`, `Until it is read at ${mgLWords(doneBelowMgL)} or less.`)
    case 'done':
      return said('It is out: end the regimen.', `Read at ${mgLWords(doneBelowMgL)} or less.`)
  }
}

/** Where a transfer stands. Codes are those of its tanks. */
export function transferWords({ status, served, rows }: Pick<TransferNow, 'status' | 'served' | 'rows'>, of: number, codes: { at: string; next: string | null }): NowWords {
  const count = `${served} of ${of} transfers count.`
  if (status === 'finished') return said('All transfers are made.', 'Their days of watching go on.')
  const onward = `Move them from ${codes.at} to ${codes.next ?? 'the next tank'}`
  const isWet = rows[0]?.isDry === false
  const wet = isWet ? ` ${codes.next ?? 'It'} will not have been dry for its day.` : ''
  if (status === 'start again') return said(`${onward}: this counts as a new beginning.`, `It is too late for the one before, and none of those counts any more.${wet}`, true)
  if (status === 'due') return said(`${onward} now.`, `${count} Later the young parasites may swim already.${wet}`, true)
  return said(`${onward} when its time comes.`, `${count}${wet}`, isWet)
}

/** Where a low salinity stands. */
export function salinityWords({ stage, isReadFirst, isStepped, ageH, down, up, problems, upFrom }: SalinityNow, today: string, housePpt: number): NowWords {
  if (problems.length > 0) return said('It cannot be worked out.', `${problems.join('; ')}.`, true)
  if (stage === 'house') return said('It is where the house keeps it: end the regimen.')
  if (isReadFirst) return said('Read the salinity first.', ageH === null ? 'Nobody has read this water.' : `The last reading is ${Math.round(ageH)} h old.`, true)
  const [next] = stage === 'down' ? down : up
  const step = next && `${showSet('volume', next.swapL, markedUnits)} out, as much ${stage === 'down' ? 'fresher' : 'saltier'} water in${next.saltG > 0 ? ` (${Math.round(next.saltG)} g of salt)` : ''}`
  const towards = next ? `From ${showFigure('salinity', next.from, markedUnits)} to ${showFigure('salinity', next.to, markedUnits)}.` : null
  if (stage === 'low') return said('Keep it low; top up with fresh water.', upFrom === null ? null : `The way up to ${showFigure('salinity', housePpt, markedUnits)} begins on ${shownDay(upFrom)}, if their days at low are served.`)
  if (!next) return said('Read again: it is nearly there.')
  if (isStepped || next.on > today) return said(`Next step on ${shownDay(next.on)}.`, towards)
  return said(`${step}.`, towards)
}

/** Where a course of days stands. */
export function courseWords({ isToday, isGiven, nextOn, missed, isOver, windows }: CourseNow, what: string): NowWords {
  const late = missed.length > 0 ? `${plural(missed.length, 'day')} of it went by without: ${missed.slice(-3).map(shownDay).join(', ')}.` : null
  const long = windows.some(({ isTooLong }) => isTooLong) ? 'Longer at a stretch than its label says.' : null
  const why = [late, long].filter((each) => each !== null).join(' ') || null
  if (isOver) return said('All days of it are over: end the regimen.', why, late !== null)
  if (isToday && !isGiven) return said(`${what} today.`, why, long !== null)
  return said(nextOn === null ? 'Given today.' : `Next on ${shownDay(nextOn)}.`, why, late !== null || long !== null)
}

/** Caution for people and fish; the label, a veterinarian and local law decide. */
const cautions: Readonly<Record<string, string>> = {
  copperIonic: 'Harms invertebrates for long: never move rock, sand or filter from it to them.',
  copperChelated: 'Harms invertebrates for long: never move rock, sand or filter from it to them. No kit tells it from ionic copper.',
  formalin: 'Toxic, suspected of causing cancer: gloves, eyes, fresh air. It takes oxygen: aerate.',
  peroxide: 'The concentrate burns: gloves, eyes. Not for weak fish.',
  methyleneBlue: 'Stains; kills filter bacteria: in a vessel, not in a tank.',
  praziquantel: 'Watch the oxygen. On prescription in places.',
  metronidazole: 'On prescription in places; gloves.',
  chloroquine: 'A little can kill a person: locked away. On prescription.',
  acriflavine: 'Stains; gloves.',
  salt: 'Weigh it; dissolve it first.',
  antibiotic: 'A veterinarian’s decision; finish the course. It harms the filter.',
  lowSalinity: 'The filter slows down: watch ammonia.',
}
const removals: Readonly<Record<string, string>> = { copperIonic: 'carbon, special resin; it binds to rock and sand', copperChelated: 'carbon, special resin; it binds to rock and sand', formalin: 'carbon takes part of it', peroxide: 'it falls apart', methyleneBlue: 'carbon, light, UV', praziquantel: 'carbon, slowly UV', metronidazole: 'carbon, UV', chloroquine: 'carbon, UV', acriflavine: 'carbon, UV', salt: 'changes only', antibiotic: 'carbon', lowSalinity: 'raised by changes' }

/** What is said beside every dose of an agent. */
export const cautionFor = (agent: string): string => `${cautions[agent] ?? ''} Follow the product’s label and a veterinarian; local law decides. Aerate. Test before dosing.`.trim()
/** What takes an agent out of a water, besides changes; null where nobody says. */
export const removalOf = (agent: string): string | null => removals[agent] ?? null
/** Days after which an agent is gone by itself; null while it stays until it is cleared. */
export const goneAfter = (agent: string): number | null => shippedAgents[agent]?.goneAfterDays ?? null
