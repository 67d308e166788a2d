import { unheldWords } from '../holds/holdWords'
import { sourcesStateWords } from '../contacts/sourceKnown'
import { markedUnits, showChange, showSet, type Quantity } from '../units/units'
import type { MoveCode, MoveReason } from './move'
import type { MoveLevel } from './moveRules'
import { capital } from '../words/capital'

/** How lots, places and waters are called. */
export interface Names {
  lot: (id: string) => string
  place: (id: string) => string
  water: (id: string) => string
}

/** All reasons of one code as one line: what it says of each, one after the other. */
export interface MoveLine {
  code: MoveCode
  level: MoveLevel
  words: string
}

/** Reasons as lines to read, in their order; figures stand in them marked (`wordFigures`). */
export function moveLines(reasons: readonly MoveReason[], names: Names): MoveLine[] {
  const lines = new Map<MoveCode, MoveLine>()
  for (const each of reasons) {
    const words = capital(sentenceOf(each, names))
    const line = lines.get(each.code)
    if (line) line.words = `${line.words} ${words}`
    else lines.set(each.code, { code: each.code, level: each.level, words })
  }
  return [...lines.values()]
}

const bindWords: Record<string, string> = { oxygen: 'oxygen', ammonia: 'ammonia', temperature: 'the way back to their temperature', time: 'time' }
const unknownWords: Record<string, string> = { size: 'the size', weight: 'the weight', volume: 'the volume', temperature: 'the temperature', source: 'the source' }

/** One reason as one sentence. */
export function sentenceOf(each: MoveReason, names: Names): string {
  const text = (slot: string): string => String(each[slot] ?? '…')
  const number = (slot: string): number | null => (typeof each[slot] === 'number' ? each[slot] : null)
  const list = (slot: string): string => (Array.isArray(each[slot]) ? (each[slot] as readonly string[]).join(', ') : text(slot))
  const lot = (): string => names.lot(text('lot'))
  const lotsOf = (slot: string): string[] => (Array.isArray(each[slot]) ? (each[slot] as readonly string[]).map(names.lot) : [])
  const water = (slot = 'water'): string => names.water(text(slot))
  const within = (quantity: Quantity): string => {
    const show = (slot: string): string => (number(slot) === null ? '…' : showSet(quantity, number(slot) ?? 0, markedUnits))
    return `${text('species')}: ${show('have')}, bears ${show('min')} to ${show('max')}.`
  }
  const days = (slot: string): string => `${text(slot)} ${number(slot) === 1 ? 'day' : 'days'}`
  const sentences: Record<MoveCode, () => string> = {
    'not-there': () => `Only ${text('have')} of ${lot()} stand there.`,
    'same-place': () => 'They are there already.',
    retired: () => `${names.place(text('place'))} is no longer in use.`,
    eats: () => `${text('eater')} swallows ${text('eaten')}.`,
    hunts: () => `${text('eater')} hunts ${text('eaten')}.`,
    agent: () => `${text('agent')} in the water; ${text('species')} does not bear it.`,
    'agent-carried': () => `The water that goes along brings ${text('agent')} to ${text('species')}.`,
    salinity: () => within('salinity'),
    'water-kind': () => `${text('species')}: ${text('have')} water, needs ${text('need')}.`,
    temperature: () => within('temperature'),
    'water-unknown': () => `Nobody has said which water ${text('species')} lives in.`,
    'vessel-load': () => `The vessel bears them ${text('minutes')} min, not ${text('want')} (${bindWords[text('binds')] ?? text('binds')}).`,
    'sick-to-well': () => 'Fish with signs go to cleaner water.',
    'held-there': () => `${text('species')} of ${text('supplier')} is held there.`,
    'hold-open': () => `${lot()} is on day ${text('day')} of ${text('of')} of its hold.`,
    sources: () => `${text('a')} and ${text('b')} ${sourcesStateWords(text('state'))}; no pairing passed.`,
    'course-open': () => `The course of ${text('agent')} of ${lot()} is on day ${text('day')} of ${text('of')}.`,
    'not-clean': () => `The tank is ${text('state')}.`,
    'own-kind': () => `${text('species')} fights its own kind.`,
    'no-common': () => `${text('a')} and ${text('b')} bear no common ${text('what')}.`,
    'too-small': () => `${showSet('volume', number('litres') ?? 0, markedUnits)}; ${text('species')} needs ${showSet('volume', number('need') ?? 0, markedUnits)}.`,
    overload: () => `${Math.round(number('grams') ?? 0)} g of fish, room for ${Math.round(number('room') ?? 0)} g.`,
    'customer-tank': () => 'It is a customer’s tank.',
    poisons: () => `${text('species')} poisons the water it shares when frightened.`,
    promised: () => `${text('promised')} of ${lot()} are promised; ${text('free')} are free.`,
    'plan-fish-out': () => `${list('plans')} counts on fish of ${lot()}; ${text('free')} are free.`,
    'plan-place-ready': () => `${text('plan')} is ready to use this tank.`,
    'plan-water': () => `${text('why')}.`,
    restarts: () => `${lot()} loses ${days('days')} of its hold.`,
    unprotected: () => unheldWords(lotsOf('lots')),
    'pairing-open': () => `${names.lot(text('a'))} and ${names.lot(text('b'))} ${sourcesStateWords(text('state'))}: they stay apart until it is passed.`,
    'own-restart': () => `${lot()} begins its hold anew: ${days('days')}.`,
    'sources-lately': () => `${text('a')} and ${text('b')}: together for ${days('days')} only.`,
    'tools-bath': () => `${text('tools')} is in its bath: another set.`,
    'tools-dirty': () => `${text('tools')} was in ${water()}: another set, or its bath.`,
    'tools-zone': () => `${text('tools')} belongs to ${text('zone')}: another set.`,
    'order-back': () => `You come from ${water()}: wash, change the set.`,
    'wet-between-zones': () => 'Nothing wet goes between zones.',
    step: () => `${text('what') === 'salinity' ? 'Salinity' : 'Temperature'} ${(number('by') ?? 0) > 0 ? 'up' : 'down'} by ${showChange(text('what') === 'salinity' ? 'salinity' : 'temperature', Math.abs(number('by') ?? 0), markedUnits)}, at most ${showChange(text('what') === 'salinity' ? 'salinity' : 'temperature', number('limit') ?? 0, markedUnits)}: acclimate on the Bench first.`,
    'binder-copper': () => 'Copper, and a binder that changes it: what a copper kit shows means nothing.',
    binder: () => 'A binder works there: ammonia readings mean nothing.',
    fought: () => `${text('a')}${text('a') === text('b') ? '' : ` and ${text('b')}`} fought here or elsewhere.`,
    introduce: () => `${text('resident')} defends the place against ${text('newcomer')}: make an introduction plan.`,
    'eats-own': () => `The large ${text('species')} eat the small ones.`,
    nibbles: () => `${text('species')} may bite or eat ${text('prey')}.`,
    'agent-care': () => `${text('agent')} in the water; ${text('species')} bears it with care only.`,
    bully: () => `${text('resident')} and ${text('newcomer')}: one eats first, the other goes short.`,
    'group-left': () => `${text('n')} ${text('species')} are left, kept from ${text('min')}.`,
    'group-small': () => `${text('n')} ${text('species')} together there, kept from ${text('min')}.`,
    'moved-lately': () => `${lot()} was moved ${text('hours')} h ago.`,
    'plan-fish': () => `${list('plans')} counts on fish of ${lot()}; ${text('free')} are free.`,
    'plan-place': () => `${text('plan')} counts on this tank.`,
    'last-hospital': () => 'It is the last free hospital tank.',
    'dominant-out': () => `${lot()} ruled there: watch who takes over.`,
    'vessel-limit': () => `The vessel bears them ${text('minutes')} min (${bindWords[text('binds')] ?? text('binds')}); then it calls.`,
    shares: () => `With ${list('species')}.`,
    purpose: () => `It is a ${text('purpose')} tank.`,
    grazes: () => `${text('species')} eats ${text('what')}.`,
    card: () => 'A take-along card goes with them.',
    'not-known': () => `Not checked: ${unknownWords[text('what')] ?? text('what')} of ${text('what') === 'source' ? names.lot(text('of')) : text('what') === 'volume' || text('what') === 'temperature' ? names.place(text('of')) : text('of')}.`,
  }
  return sentences[each.code]()
}
