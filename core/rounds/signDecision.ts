import type { LotFacts, SignDecision, TankFacts } from '../facts/facts'
import { evenCauses } from '../pools/hazard'
import { signRule, type RoundRules } from './roundRules'
import type { DecidedSign, Sign } from './rounds.schema'

const hourMs = 3_600_000
/** Of a sign that was not seen for so long nobody decides any more. */
const decidedWithinMs = 168 * hourMs
/** A sign that was away for longer is another one, and asks anew. */
export const sameSignMs = 48 * hourMs

/** A sign as it was seen in a tank, from its first look to its last. */
export interface SignEpisode {
  sign: DecidedSign
  /** Null where the whole tank is meant. */
  lotId: string | null
  /** The largest of its looks; fish found dead are clear. */
  severity: number
  firstMs: number
  lastMs: number
}

/** A sign that somebody may decide about, or has. */
export interface AskedSign extends SignEpisode {
  /** Whether holds would begin again if it is one. */
  asksHold: boolean
  decision: Pick<SignDecision, 'id' | 'as' | 'untilMs' | 'note' | 'by' | 'atMs'> | null
}

type Seen = Pick<TankFacts, 'looks' | 'losses'>

/** Moments at which a sign was seen, newest first; of the whole tank's deaths those of any lot. */
function seenAt({ looks, losses }: Seen, sign: DecidedSign, lotId: string | null): { atMs: number; severity: number }[] {
  if (sign === 'death') return losses.filter(({ cause, lotId: of }) => !(evenCauses as readonly (string | null)[]).includes(cause) && (lotId === null || lotId === of)).map(({ atMs }) => ({ atMs, severity: 2 }))
  return looks.flatMap(({ atMs, marks }) => marks.filter((mark) => mark.sign === sign && mark.lotId === lotId).map(({ severity }) => ({ atMs, severity })))
}

/** A sign of the last week with all looks that belong to it; null where it was not seen. */
export function signEpisode(seen: Seen, sign: DecidedSign, lotId: string | null, nowMs: number): SignEpisode | null {
  const all = seenAt(seen, sign, lotId)
  const [last] = all
  if (!last || nowMs - last.atMs > decidedWithinMs) return null
  const end = all.findIndex(({ atMs }, index) => index > 0 && (all[index - 1]?.atMs ?? atMs) - atMs > sameSignMs)
  const own = end === -1 ? all : all.slice(0, end)
  return { sign, lotId, severity: Math.max(...own.map(({ severity }) => severity)), firstMs: own.at(-1)?.atMs ?? last.atMs, lastMs: last.atMs }
}

/** What was decided of a sign as it stands: the newest word that stands for its last look. What was slight when it was dismissed and is clear now asks anew. */
export function decisionOf(decisions: readonly SignDecision[], { sign, lotId, severity, lastMs }: SignEpisode, nowMs: number): SignDecision | null {
  const stands = (each: SignDecision): boolean => (each.as === 'known' ? (each.untilMs ?? 0) > nowMs : each.firstMs <= lastMs && lastMs <= each.lastMs) && (each.as === 'confirmed' || each.severity >= severity)
  return decisions.filter((each) => each.sign === sign && each.lotId === lotId && stands(each)).sort((a, b) => b.atMs - a.atMs)[0] ?? null
}

/** Signs that a lead takes as known just now. */
export const knownSigns = ({ decisions }: Pick<TankFacts, 'decisions'>, nowMs: number): { sign: Sign; severity: number; lot: string | null }[] =>
  decisions.flatMap(({ as, sign, severity, lotId, untilMs }) => (as === 'known' && sign !== 'death' && (untilMs ?? 0) > nowMs ? [{ sign, severity, lot: lotId }] : []))

/**
 * Signs of a tank that somebody decides about: those that count in its level, and those that were decided.
 * @param counted - signs and losses among the reasons of its level, with whose they are.
 * @param isHeld - whether a hold runs on its water; one that is ready begins again as well.
 */
export function askedSigns(tank: Seen & Pick<TankFacts, 'decisions'>, counted: readonly { sign: DecidedSign; lotId: string | null }[], isHeld: boolean, nowMs: number, rules: RoundRules): AskedSign[] {
  const all = [...counted, ...tank.decisions.map(({ sign, lotId }) => ({ sign, lotId }))]
  const once = all.filter((each, index) => all.findIndex(({ sign, lotId }) => sign === each.sign && lotId === each.lotId) === index)
  return once.flatMap(({ sign, lotId }): AskedSign[] => {
    const episode = signEpisode(tank, sign, lotId, nowMs)
    if (!episode) return []
    const decided = decisionOf(tank.decisions, episode, nowMs)
    const decision = decided && { id: decided.id, as: decided.as, untilMs: decided.untilMs, note: decided.note, by: decided.by, atMs: decided.atMs }
    return [{ ...episode, asksHold: isHeld && (sign === 'death' || signRule(rules, sign).asksHold === true), decision }]
  })
}

/** How a sign is called, with whose it is. */
export const signWords = ({ sign, severity, lotId }: Pick<SignEpisode, 'sign' | 'severity' | 'lotId'>, lots: readonly Pick<LotFacts, 'lotId' | 'lotCode' | 'species'>[]): string => {
  const lot = lotId === null ? null : lots.find((each) => each.lotId === lotId)
  return [sign === 'death' ? 'found dead' : sign, ...(sign !== 'death' && severity > 1 ? ['clear'] : []), ...(lotId === null ? [] : [lot ? `${lot.species} ${lot.lotCode}` : 'a lot that left'])].join(', ')
}
