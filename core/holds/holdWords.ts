import { groupBy } from '../collections/groupBy'
import { capital } from '../words/capital'
import { inARow } from '../words/inARow'
import { plural } from '../words/plural'
import { shownDay } from '../time/shownDay'
import type { HoldClock } from './holdClock'
import type { WhatIf } from './holdWhatIf'
import type { PairingProof } from './pairingEvidence'

const plainGates: Readonly<Record<string, string>> = { eating: 'eating', fillingOut: 'filling out', looked: 'a look', cleared: 'clear water', pairing: 'a passed pairing', decision: 'a decision', salinity: 'the salinity of the house', 'steps:dose': 'doses', 'steps:feed': 'medicated meals', 'steps:transfer': 'transfers' }

/** What a hold waits for, by the name of its gate; `days` are told by the day. */
export const gateWords = (name: string): string => plainGates[name] ?? `a reading of ${name.replace(/^reading:/, '')} in its range`
const gatesOf = (names: readonly string[]): string => inARow(names.filter((name) => name !== 'days').map(gateWords))
/** Gates besides the days, in words; null without any. */
export const gatesWords = (names: readonly string[]): string | null => gatesOf(names) || null

/**
 * A running hold in a sentence or two.
 * @param phaseName - as the policy calls the phase.
 * @returns null where no hold runs.
 */
export function clockWords({ status, day, of, earliest, waitsFor }: HoldClock, phaseName: string): string | null {
  if (earliest === null) return null
  if (status === 'ready') return `Ready since ${shownDay(earliest)}.`
  const gates = gatesOf(waitsFor)
  const waits = gates === '' ? '' : ` Waits for ${gates}.`
  if (day === null || of === null) return `All days served; waits for ${gates}.`
  if (of === 0) return `${capital(phaseName)}: waits for ${gates}; ready not before ${shownDay(earliest)}.`
  if (day > of && !waitsFor.includes('days')) return `${plural(of, 'day')} served; waits for ${gates}.`
  return `${capital(phaseName)} day ${day} of ${of}; ready not before ${shownDay(earliest)}.${waits}`
}

/** What began a hold again, as it is told. */
export type CauseStory =
  | { cause: 'sign'; word: string; tank: string }
  | { cause: 'addition'; lot: string; by: 'water' | 'tank' }
  | { cause: 'treatment' }
  | { cause: 'exposure'; what: string }
  | { cause: 'policy'; policy: string; reason: string }

export function causeWords(story: CauseStory): string {
  switch (story.cause) {
    case 'sign':
      return `sign ${story.word} in ${story.tank}`
    case 'addition':
      return `${story.lot} came into its ${story.by}`
    case 'treatment':
      return 'treatment'
    case 'exposure':
      return `breach (${story.what})`
    case 'policy':
      return `now ${story.policy}: ${story.reason}`
  }
}
/** A restart in a sentence. */
export const restartWords = ({ on, lost }: { on: string; lost: number }, story: CauseStory): string => `Began again on ${shownDay(on)}: ${causeWords(story)} (${plural(lost, 'day')} lost).`

/** Whose dates move, and to when, if something counts. */
export const ifItCountsWords = ({ lots, before, after }: { lots: readonly string[]; before: string; after: string }): string => `If it counts, ${inARow(lots)} ${lots.length === 1 ? 'restarts' : 'restart'}: ${shownDay(after)} instead of ${shownDay(before)}.`
/** Signs of one word in one tank that nobody has decided, and what it would mean if they counted. */
export const decideWords = ({ count, word, tank, when, lots, before, after }: { count: number; word: string; tank: string; when: string; lots: readonly string[]; before: string; after: string }): string =>
  `${count} to decide: ${word}, ${tank}, ${when}. ${ifItCountsWords({ lots, before, after })}`
/** A sign that was to be expected. */
export const expectedWords = (until: string, course: string): string => `A usual sign until ${until} after ${course}: noted, nothing restarts.`

/** A sentence names so many lots and counts the others. */
const mostNamed = 3
/** Fish without a hold that would stand with held fish. */
export function unheldWords(lots: readonly string[]): string {
  const named = lots.length > mostNamed + 1 ? [...lots.slice(0, mostNamed), `${lots.length - mostNamed} more lots`] : lots
  return `${inARow(named)} ${lots.length === 1 ? 'has' : 'have'} no hold and would stand with held fish: no clock would show it.`
}
/** What something would do to the dates of those who stand there: those that move alike share a sentence. */
export function whatIfWords({ rows, unprotected }: WhatIf, lotName: (lot: string) => string, what: string): string[] {
  const moving = rows.flatMap(({ lot, before, after, lost }) => (before === null || after === null || before === after ? [] : [{ lot, date: `${shownDay(before)} becomes ${shownDay(after)}`, days: plural(lost, 'day') }]))
  const moved = [...groupBy(moving, ({ date, days }) => `${days} ${date}`).values()].map((alike) => `${what}: ${alike[0]?.days} for ${inARow(alike.map(({ lot }) => lotName(lot)))} (${alike[0]?.date}).`)
  const bare = unprotected.length === 0 ? [] : [unheldWords([...new Set(unprotected.map(({ lot }) => lotName(lot)))])]
  return moved.length + bare.length === 0 ? ['Moves nobody’s clock.'] : [...moved, ...bare]
}
/** What a sign, or fish added, would mean today. */
export function exposedWords({ ifSign, ifAddition }: Pick<HoldClock, 'ifSign' | 'ifAddition'>): string | null {
  const parts = [...(ifSign === null ? [] : [`a sign today would mean ${shownDay(ifSign)}`]), ...(ifAddition === null ? [] : [`fish added today ${ifSign === null ? 'would mean ' : ''}${shownDay(ifAddition)}`])]
  return parts.length === 0 ? null : `${capital(parts.join('; '))}.`
}

/** Asks for the reason of an end before its time. */
export const endEarlyWords = ({ days, gates }: { days: number; gates: readonly string[] }): string => `${plural(days, 'day')} short${gates.length === 0 ? '' : `, and ${gatesOf(gates)}`}. Why?`
/** How a hold was ended. */
export const endedWords = ({ days, gates, reason }: { days: number; gates: readonly string[]; reason: string | null }): string =>
  days === 0 && gates.length === 0 ? 'Ended when it was ready.' : `Ended ${days > 0 ? `${plural(days, 'day')} early` : `without ${gatesOf(gates)}`}: ${reason ?? 'nobody said why'}.`
/** Said wherever fish are fed up before their hold. */
export const conditionWords = 'Feeding up adds time ahead; it never shortens a hold.'

/** A water that fish keep being added to. */
export const neverReadyWords = 'This water does not come ready while fish are added: hold in tanks of their own, or count by tank.'

const percent = (share: number): string => (share > 0 && share < 0.01 ? 'under 1' : share < 1 && share > 0.99 ? 'over 99' : String(Math.round(share * 100)))
/**
 * What a pairing proves so far, in words; the weaker of its two directions.
 * @param cleanDays - days without a sign.
 */
export function pairingWords({ verdict, show, risk, isWeak, fishPaired, fishAtRisk }: PairingProof, cleanDays: number): string {
  if (verdict === 'failed' || risk.likely === null) return 'A sign was seen that was not to be expected: the groups stay apart.'
  const { low, likely, high } = show.aToB.likely <= show.bToA.likely ? show.aToB : show.bToA
  const proof = `Clean for ${plural(cleanDays, 'day')}. If one group carried something, it would have shown with ${percent(likely)} % (${percent(low)}–${percent(high)}). Risk of merging about ${percent(risk.likely)} %, before ${percent(risk.before)} %; ${fishPaired} fish at risk instead of ${fishAtRisk}.`
  return isWeak ? `${proof} This proves little; more fish of each would.` : proof
}
