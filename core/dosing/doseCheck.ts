import { byText } from '../contacts/contact'
import { dosingLimits, sensitivityOf, shippedAgents, shippedMatrix, type Verdict } from './agents'
import { riseTo } from './rise'

/** What the label says, as the house entered it; both counted the same way, or no dose is worked out. */
export interface DoseLabel {
  strengthMgPerMl?: number | null
  /** Share of a powder that is the agent. */
  activeShare?: number | null
  strengthBasis?: string | null
  targetMgL?: number | null
  targetBasis?: string | null
  hiMgL?: number | null
}
export interface DosedWater {
  kind: 'fresh' | 'brackish' | 'marine'
  tanks: readonly { netL?: number | null; grossL?: number | null }[]
  sumpL?: number | null
  /** rockOrSand, carbon, uv, binder, livingFilter, plants. */
  contents?: readonly string[]
  /** Agents that are in it. */
  agents?: readonly string[]
  alkalinityMeqL?: number | null
  oxygenMgL?: number | null
  salinityPpt?: number | null
  isNeverDosed?: boolean
}
export interface DosedFish {
  group: string | null
  sensitivities?: readonly string[]
  /** The species' own words per agent. */
  book?: Readonly<Record<string, string>>
  isWeak?: boolean
}
export interface DoseAsked {
  agent: string
  label?: DoseLabel | null
  water: DosedWater
  fish: readonly DosedFish[]
  level?: { c: number; sd: number; ageH: number | null; kit: string; isJump: boolean } | null
  leadOverrides?: boolean
}
export interface DoseReason {
  code: string
  answer: Verdict
}
export interface Dose {
  answer: 'allow' | 'warn' | 'refuse'
  override: 'none' | 'tick' | 'lead' | 'nobody'
  reasons: DoseReason[]
  volumeL: number | null
  rise: number | null
  doseMg: number | null
  productMl: number | null
  productG: number | null
  isCut: boolean
}

const { doseReadingH, doseRel, grossRel, grossShare, softWaterMeqL, lowOxygenMgL, loweredSalinityPpt } = dosingLimits
const rank: Readonly<Record<Verdict, number>> = { X: 0, R: 1, W: 2, A: 3 }

function ofFish(agent: string, { group, sensitivities = [], book = {}, isWeak = false }: DosedFish): DoseReason[] {
  const row = (code: string): DoseReason => ({ code, answer: shippedMatrix[code]?.[agent] ?? 'A' })
  const own: Readonly<Record<string, DoseReason>> = { forbidden: { code: 'bookForbidden', answer: 'R' }, 'with care': { code: 'bookSensitive', answer: 'W' } }
  const said = own[book[agent] ?? '']
  return [
    ...(group === null ? [row('unknownSpecies')] : group === 'other' ? [] : [row(group)]),
    ...(isWeak ? [row('weakFish')] : []),
    ...(sensitivities.includes(sensitivityOf[agent] ?? '') ? [row('bookSensitive')] : []),
    ...(said ? [said] : []),
  ]
}

function ofWater(agent: string, { kind, contents = [], agents = [], alkalinityMeqL, oxygenMgL, salinityPpt }: DosedWater): DoseReason[] {
  const codes = [
    ...contents,
    ...agents.map((present) => `with:${present}`),
    ...(alkalinityMeqL != null && alkalinityMeqL < softWaterMeqL ? ['softWater'] : []),
    ...(oxygenMgL != null && oxygenMgL < lowOxygenMgL ? ['lowOxygen'] : []),
    ...(kind === 'marine' && salinityPpt != null && salinityPpt < loweredSalinityPpt ? ['loweredSalinity'] : []),
  ]
  return codes.map((code) => ({ code, answer: shippedMatrix[code]?.[agent] ?? 'A' }))
}

const hasNet = ({ netL }: { netL?: number | null }): boolean => netL != null
const unlabelled = (label: DoseLabel | null | undefined): boolean => !label || (label.strengthMgPerMl == null && label.activeShare == null) || label.targetMgL == null

/** What keeps a number from being worked out: litres, label, a reading. */
function ofFigures({ agent, label, water: { tanks, isNeverDosed = false }, level }: DoseAsked): DoseReason[] {
  const kit = shippedAgents[agent]?.kit
  const x = (code: string): DoseReason[] => [{ code, answer: 'X' }]
  const isUnknown = tanks.length === 0 || tanks.some(({ netL, grossL }) => netL == null && grossL == null)
  const volume: DoseReason[] = isUnknown ? x('noVolume') : tanks.every(hasNet) ? [] : [{ code: 'grossVolume', answer: 'W' }]
  const labelled = unlabelled(label) ? x('noLabel') : label?.strengthBasis !== label?.targetBasis ? x('basis') : []
  const isRead = level?.ageH != null && level.ageH <= doseReadingH
  const read = kit === undefined || isNeverDosed ? [] : !isRead ? x('readFirst') : level.kit !== kit ? x('wrongKit') : level.isJump ? x('readAgain') : []
  return [...volume, ...labelled, ...read]
}

/** Reasons once each, the gravest first. */
function sortedReasons(reasons: readonly DoseReason[]): DoseReason[] {
  const worst = new Map<string, DoseReason>()
  for (const reason of reasons) if (reason.answer !== 'A' && rank[reason.answer] < rank[worst.get(reason.code)?.answer ?? 'A']) worst.set(reason.code, reason)
  return [...worst.values()].sort((a, b) => rank[a.answer] - rank[b.answer] || byText(a.code, b.code))
}

function answerTo(reasons: readonly DoseReason[], hasInvertebrate: boolean, leadOverrides: boolean): Pick<Dose, 'answer' | 'override'> {
  const worst = reasons[0]?.answer ?? 'A'
  if (worst === 'A') return { answer: 'allow', override: 'none' }
  if (worst === 'W') return { answer: 'warn', override: 'tick' }
  if (worst === 'X' || hasInvertebrate) return { answer: 'refuse', override: 'nobody' }
  return { answer: leadOverrides ? 'warn' : 'refuse', override: 'lead' }
}

function amounts({ agent, label, water: { tanks, sumpL, isNeverDosed = false }, level }: DoseAsked): Pick<Dose, 'volumeL' | 'rise' | 'doseMg' | 'productMl' | 'productG' | 'isCut'> {
  const { kit, hi: shippedHi } = shippedAgents[agent] ?? {}
  const volumeL = tanks.reduce((sum, { netL, grossL }) => sum + (netL ?? grossShare * (grossL ?? 0)), sumpL ?? 0)
  const known = level && kit !== undefined && !isNeverDosed ? level : { c: 0, sd: 0 }
  const { rise, isCut } = riseTo(label?.targetMgL ?? 0, known, label?.hiMgL ?? shippedHi ?? null, tanks.every(hasNet) ? doseRel : grossRel)
  const doseMg = volumeL * rise
  return { volumeL, rise, doseMg, productMl: label?.strengthMgPerMl == null ? null : doseMg / label.strengthMgPerMl, productG: label?.activeShare == null ? null : doseMg / 1000 / label.activeShare, isCut }
}

/**
 * Says whether an agent may go into a water, and how much of it. It never prescribes: strength and target are the label's,
 * and local law and a veterinarian decide. The dose goes to all of the water, not to the tank.
 * Source: docs/regimens.md#doses; the table of refusals is trade and house guidance, copper with invertebrates and in soft water published.
 */
export function doseCheck(asked: DoseAsked): Dose {
  const { agent, water, fish, leadOverrides = false } = asked
  const isDosed = shippedAgents[agent]?.isNoDose !== true
  const reasons = sortedReasons([...fish.flatMap((each) => ofFish(agent, each)), ...ofWater(agent, water), ...(isDosed ? ofFigures(asked) : [])])
  const answer = answerTo(reasons, fish.some(({ group }) => group === 'invertebrate'), leadOverrides)
  const none = { volumeL: null, rise: null, doseMg: null, productMl: null, productG: null, isCut: false }
  return { ...answer, reasons, ...(answer.answer === 'refuse' || !isDosed ? none : amounts(asked)) }
}
