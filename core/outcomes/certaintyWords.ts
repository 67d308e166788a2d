import { plural } from '../words/plural'
import type { HangsOn, Mix } from './compareGroups'
import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** How sure one can be, in words with fixed thresholds. */
export const certainties = ['too few to tell', 'cannot be separated', 'cannot tell', 'about the same', 'leans to', 'likely', 'clear'] as const
export type Certainty = (typeof certainties)[number]
export type Reason = 'crates' | 'deaths' | 'arrangements' | 'many comparisons' | 'mix' | 'curves cross' | 'hangs on one crate' | 'hangs on one event' | 'wide' | 'shared tanks' | 'new this month'

/** The figures that are judged: those of like held against like where it was used, else the raw ones. */
export interface Judged {
  a: string
  b: string
  crates: readonly [number, number]
  dead: number
  day: number
  used?: 'raw' | 'adjusted' | 'none'
  test: { arrangements: number; excess: number } | null
  p?: number | null
  q: number | null
  comparisons?: number
  difference: number | null
  low: number | null
  high: number | null
  mix?: Mix | null
  hangsOn?: HangsOn | null
  attributed?: number
  /** Whether crates were shared out by a trial, or only seen. */
  basis: 'observed' | 'designed'
  /** In the monthly sheet: the word of a month ago, null where there was none. Missing elsewhere. */
  before?: Certainty | null
  /** Crates of each that would settle a difference that matters; left out of the sentence when missing. */
  settle?: number | null
  limits?: Partial<OutcomeRules>
}

export interface Said {
  word: Certainty
  /** The group that is better off; null while nobody can say. */
  better: string | null
  reasons: Reason[]
  sentence: string
}

type Verdict = Pick<Said, 'word' | 'reasons'>

/** Says in words what a comparison is worth. Source: docs/outcomes.md. */
export function certaintyWords(judged: Judged): Said {
  const rules = outcomeRules(judged.limits)
  const { word, reasons } = verdictOf(judged, rules)
  const isApart = word === 'leans to' || word === 'likely' || word === 'clear'
  const better = isApart ? ((judged.difference ?? 0) > 0 ? judged.a : judged.b) : null
  return { word, better, reasons, sentence: [firstWords(judged, word, better, reasons), ...inOrder(reasons, word).map((reason) => wordsOf(reason, judged)), lastWords(judged, word, isApart, rules)].join('') }
}

function verdictOf(judged: Judged, rules: OutcomeRules): Verdict {
  const { crates, dead, used = 'raw', test, q, p = null, difference, low, high, mix = null } = judged
  if (Math.min(...crates) < rules.minCrates) return { word: 'too few to tell', reasons: ['crates'] }
  if (dead < rules.minDeaths) return { word: 'too few to tell', reasons: ['deaths'] }
  if (used === 'none' || difference === null || low === null || high === null) return { word: 'cannot be separated', reasons: [] }
  if (test === null || 2 / test.arrangements > rules.leans) return { word: 'too few to tell', reasons: ['arrangements'] }
  if (q === null || q > rules.leans) {
    const isSame = low >= -rules.marginShare && high <= rules.marginShare
    const reasons: Reason[] = [...(p !== null && p <= rules.likely ? (['many comparisons'] as const) : []), ...(mix?.kind === 'explained' ? (['mix'] as const) : [])]
    return { word: isSame ? 'about the same' : 'cannot tell', reasons }
  }
  if (difference * test.excess >= 0) return { word: 'cannot tell', reasons: ['curves cross'] }
  const word = q <= rules.clear ? 'clear' : q <= rules.likely ? 'likely' : 'leans to'
  return lessSure({ word, reasons: mix?.kind === 'reversed' ? ['mix'] : [] }, judged, rules)
}

const oneDown: Partial<Record<Certainty, Certainty>> = { clear: 'likely', likely: 'leans to', 'leans to': 'cannot tell' }

/** What takes from a verdict, in its order. */
function lessSure(verdict: Verdict, { hangsOn = null, low, high, attributed = 0, before }: Judged, rules: OutcomeRules): Verdict {
  let { word } = verdict
  const reasons = [...verdict.reasons]
  const isAbove = (): boolean => word === 'likely' || word === 'clear'
  if (hangsOn) {
    word = oneDown[word] ?? word
    reasons.push(hangsOn.kind === 'crate' ? 'hangs on one crate' : 'hangs on one event')
  }
  if (isAbove() && (low ?? 0) <= 0 && (high ?? 0) >= 0) {
    word = 'leans to'
    reasons.push('wide')
  }
  if (isAbove() && attributed > rules.attributedShare) {
    word = 'leans to'
    reasons.push('shared tanks')
  }
  if (before !== undefined && word === 'clear' && before !== 'likely' && before !== 'clear') {
    word = 'likely'
    reasons.push('new this month')
  }
  return { word, reasons }
}

/** A share of fish as people say it: whole fish in a hundred. */
export const inAHundred = (share: number): number => Math.round(Math.abs(100 * share))
/** The larger end of an interval, rounded up: by how much two may differ at most. */
export const atMost = (low: number, high: number): number => Math.ceil(100 * Math.max(Math.abs(low), Math.abs(high)) - 1e-9)

function spanOf(low: number, high: number): string {
  if (low < 0 && high > 0) return `from ${inAHundred(low)} fewer to ${inAHundred(high)} more`
  return high > 0 ? `from ${inAHundred(low)} to ${inAHundred(high)} more` : `from ${inAHundred(high)} to ${inAHundred(low)} fewer`
}

const whenOf = (day: number): string => (day === 0 ? 'at opening' : `on day ${day}`)

function firstWords({ a, b, crates, dead, day, difference, low, high }: Judged, word: Certainty, better: string | null, [reason]: readonly Reason[]): string {
  const [d, l, h] = [difference ?? 0, low ?? 0, high ?? 0]
  if (word === 'too few to tell') {
    if (reason === 'crates') return `Too few to tell: ${plural(crates[0], 'crate')} of ${a} against ${crates[1]} of ${b}.`
    return reason === 'deaths' ? `Too few to tell: ${plural(Math.round(dead), 'death')} in all.` : 'Too few to tell: too few crates to rule out chance.'
  }
  if (word === 'cannot be separated') return `Cannot be separated: ${a} and ${b} have no fish of the same kind to compare.`
  if (word === 'cannot tell') return `Cannot tell: ${whenOf(day)} there may be ${spanOf(l, h)} in a hundred alive of ${a} than of ${b}.`
  if (word === 'about the same') return `About the same: ${whenOf(day)} ${a} and ${b} differ by at most ${atMost(l, h)} in a hundred.`
  const [other, span] = better === a ? [b, spanOf(l, h)] : [a, spanOf(-h, -l)]
  const lead = { 'leans to': 'Leans to', likely: 'Likely', clear: 'Clear for' }[word]
  return `${lead} ${better}: ${inAHundred(d)} in a hundred more alive ${whenOf(day)} than ${other} (${span}).`
}

/** Curves that cross are said first: they are why nobody can tell. */
const inOrder = (reasons: readonly Reason[], word: Certainty): Reason[] => (word === 'cannot tell' ? [...reasons].sort((one, other) => Number(other === 'curves cross') - Number(one === 'curves cross')) : [...reasons])

function wordsOf(reason: Reason, { a, b, mix, hangsOn, attributed = 0, comparisons = 0 }: Judged): string {
  if (reason === 'curves cross') return ' The curves cross.'
  if (reason === 'hangs on one crate') return ` Hangs on crate ${hangsOn?.id}.`
  if (reason === 'hangs on one event') return ` Hangs on one event: ${hangsOn?.id}.`
  if (reason === 'shared tanks') return ` ${inAHundred(attributed)} in a hundred of the deaths were attributed, not seen.`
  if (reason === 'new this month') return ' New this month: look again next month.'
  if (reason === 'many comparisons') return ` Of ${comparisons} comparisons made, one like this comes by chance.`
  if (reason === 'mix' && mix) return ` Over all fish ${mix.kind === 'reversed' ? 'it looks the other way round' : 'they look apart'}, because of the mix: ${mix.stratum} is ${inAHundred(mix.shareA)} in a hundred of ${a} and ${inAHundred(mix.shareB)} of ${b}.`
  return ''
}

function lastWords({ settle, basis }: Judged, word: Certainty, isApart: boolean, { marginShare }: OutcomeRules): string {
  if (settle != null && (word === 'too few to tell' || word === 'cannot tell')) return ` About ${plural(settle, 'crate')} of each would settle a difference of ${inAHundred(marginShare)} in a hundred.`
  return isApart && basis === 'observed' ? ' Seen, not tried: other things may differ too.' : ''
}
