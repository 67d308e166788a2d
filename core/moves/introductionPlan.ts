import { byText } from '../contacts/contact'
import type { Limits } from '../limits/houseLimits'
import type { Tolerance } from '../setup/words'
import { eats } from '../tankChoice/company'
import type { Animal } from '../tankChoice/tankChoice'
import { gramsOf, mostDelicate, type Handled } from './handled'
import { shippedMoveRules, type MoveRules } from './moveRules'
import { vesselLimit } from './vesselLimit'

/** Fish of one kind that stand in the tank, or that are to come into it. */
export interface Introduced extends Animal {
  id: string
  n?: number
  tolerance?: Tolerance
  /** Whether somebody knows that it rules the tank, or that it does not. */
  isDominant?: boolean | null
}

export interface Introducing {
  tank: { netVolumeL: number | null; tempC: number; salinityPpt: number; ph: number | null; isShared: boolean }
  residents: readonly Introduced[]
  newcomers: readonly Introduced[]
  vessels: readonly { id: string; litres: number; air?: boolean }[]
  has: { box?: boolean; mirror?: boolean; divider?: boolean }
  /** Lifts that this tank bears today. */
  liftsLeft?: number
  roomC?: number
}

export const introductionModes = ['do not', 'plain', 'out', 'divider', 'not yet'] as const
export type IntroductionMode = (typeof introductionModes)[number]
/** Steps in the order in which they are told where they fall into one minute. */
export const introductionSteps = ['fill-vessels', 'dominants-out', 'subdominants-out', 'change', 'rearrange', 'divider-in', 'newcomers-in', 'subdominants-back', 'dominants-back', 'divider-out', 'lights-off', 'mirror-on', 'look'] as const
export type IntroductionStepCode = (typeof introductionSteps)[number]

export interface IntroductionStep {
  code: IntroductionStepCode
  /** Minutes from the beginning, and how long it takes. */
  at: number
  minutes: number
  litres?: number
}

export type IntroductionReason =
  | { code: 'eats'; eater: string; eaten: string }
  | { code: 'guessed' | 'no-box' | 'shared-water' | 'weight-unknown' | 'too-many-to-catch' | 'vessels-short' | 'no-divider' | 'nobody-dominant' | 'too-small-to-matter' }

export interface IntroductionPlan {
  mode: IntroductionMode
  dominants: string[]
  isGuessed: boolean
  /** Those that are taken out. */
  subdominants: string[]
  vessels: { id: string; litres: number; fish: string[]; minutes: number }[]
  /** How long the first fish is out of its tank. */
  outMinutes: number
  steps: IntroductionStep[]
  reasons: IntroductionReason[]
}

const bold = ['territorial', 'fights its own kind', 'fin nipper']

/**
 * Plans how fish come into a tank whose residents defend it; whether they may is asked of the move check first. House
 * guidance, and no promise of peace. Source: docs/moves.md.
 */
export function introductionPlan(introducing: Introducing, limits: Limits, rules: MoveRules = shippedMoveRules): IntroductionPlan {
  const { residents, newcomers, has, tank } = introducing
  const nothing = { dominants: [], isGuessed: false, subdominants: [], vessels: [], outMinutes: 0, steps: [] }
  const eaten = residents.flatMap((resident) => newcomers.flatMap((newcomer) => [whoEats(resident, newcomer), whoEats(newcomer, resident)].flatMap((each) => each ?? [])))
  if (eaten.length > 0) return { ...nothing, mode: 'do not', reasons: inOrder(eaten) }

  const { dominants, isGuessed, subdominants } = ranks(residents, rules)
  const known = { ...nothing, dominants: dominants.map(({ id }) => id), isGuessed }
  const after = (from: number): IntroductionStep[] => [{ code: 'lights-off', at: from, minutes: limits.darkHours * 60 }, ...looks(from, rules)]
  const harmless = dominants.length === 0 ? 'nobody-dominant' : areJuvenile(newcomers, dominants, rules) ? 'too-small-to-matter' : null
  if (harmless !== null) return { ...known, mode: 'plain', steps: [{ code: 'newcomers-in', at: 0, minutes: 0 }, ...after(0)], reasons: [{ code: harmless }] }

  const said: IntroductionReason[] = [...(isGuessed ? [{ code: 'guessed' as const }] : []), ...(has.box ? [] : [{ code: 'no-box' as const }]), ...(tank.isShared ? [{ code: 'shared-water' as const }] : [])]
  const outs = [...(subdominants.length > 0 ? [subdominants] : []), []].map((subs) => takeOut(introducing, dominants, subs, limits, rules))
  const out = outs.find((each) => each.ok)
  if (out?.ok) return { ...known, ...outSteps(introducing, out, after, rules), mode: 'out', reasons: inOrder(said) }

  const [last] = outs.slice(-1)
  const why: IntroductionReason[] = last && !last.ok ? [{ code: last.why }] : []
  if (!has.divider) return { ...known, mode: 'not yet', reasons: inOrder([...said, ...why, { code: 'no-divider' }]) }
  const apart = rules.dividerDays * 1440
  const steps: IntroductionStep[] = [
    { code: 'divider-in', at: 0, minutes: rules.fillMinutes },
    { code: 'newcomers-in', at: rules.fillMinutes, minutes: 0 },
    ...looks(rules.fillMinutes, rules).filter(({ at }) => at < apart),
    { code: 'divider-out', at: apart, minutes: 0 },
    ...after(apart),
  ]
  return { ...known, mode: 'divider', steps: byTime(steps), reasons: inOrder([...said, ...why]) }
}

const whoEats = (eater: Animal, eaten: Animal): IntroductionReason | null => (eats(eater, eaten) ? { code: 'eats', eater: eater.species, eaten: eaten.species } : null)

/** Each once, in the order of their text. */
function inOrder(reasons: readonly IntroductionReason[]): IntroductionReason[] {
  return [...new Map(reasons.map((each) => [JSON.stringify(each), each])).entries()].sort(([a], [b]) => byText(a, b)).map(([, each]) => each)
}

const byTime = (steps: readonly IntroductionStep[]): IntroductionStep[] => [...steps].sort((a, b) => a.at - b.at || introductionSteps.indexOf(a.code) - introductionSteps.indexOf(b.code))

const looks = (from: number, { introLooks }: MoveRules): IntroductionStep[] => introLooks.map((minutes) => ({ code: 'look', at: from + minutes, minutes: 0 }))

const longestOf = (fish: readonly Introduced[]): number => Math.max(...fish.map(({ sizeCm }) => sizeCm ?? -Infinity))

/** Who rules the tank: whom somebody named, else the longest of those that are bold. */
function ranks(residents: readonly Introduced[], { dominantShare, subdominantShare }: MoveRules): { dominants: Introduced[]; isGuessed: boolean; subdominants: Introduced[] } {
  const bolds = residents.filter(({ temperament, isDominant }) => bold.includes(temperament ?? '') && isDominant !== false)
  const named = residents.filter(({ isDominant }) => isDominant === true)
  const longest = longestOf(bolds)
  const dominants = named.length > 0 ? named : bolds.filter(({ sizeCm }) => sizeCm === null || sizeCm >= dominantShare * longest)
  const longestDominant = longestOf(dominants)
  const subdominants = bolds.filter((fish) => !dominants.includes(fish) && fish.sizeCm !== null && fish.sizeCm >= subdominantShare * longestDominant)
  return { dominants, isGuessed: named.length === 0 && dominants.length > 0, subdominants }
}

/** Juveniles are left alone. */
function areJuvenile(newcomers: readonly Introduced[], dominants: readonly Introduced[], { juvenileShare }: MoveRules): boolean {
  const longest = longestOf(dominants)
  return dominants.every(({ sizeCm }) => sizeCm !== null) && newcomers.every(({ sizeCm }) => sizeCm !== null && sizeCm < juvenileShare * longest)
}

type TakenOut = { ok: true; dominants: number; subs: readonly Introduced[]; subdominants: number; vessels: IntroductionPlan['vessels']; outMinutes: number; changeL: number } | { ok: false; why: 'weight-unknown' | 'too-many-to-catch' | 'vessels-short' }

const countOf = (fish: readonly Introduced[]): number => fish.reduce((sum, { n = 1 }) => sum + n, 0)

/** Finds a vessel for each fish that has to come out, no two of a kind in one. */
function takeOut({ tank, vessels, liftsLeft, roomC }: Introducing, dominants: readonly Introduced[], subs: readonly Introduced[], limits: Limits, rules: MoveRules): TakenOut {
  const singles = [dominants, subs].flatMap((group) =>
    group
      .flatMap((fish) => Array.from({ length: fish.n ?? 1 }, () => ({ fish, grams: gramsOf(fish, rules) })))
      .sort((a, b) => (b.grams ?? 0) - (a.grams ?? 0) || byText(a.fish.id, b.fish.id)),
  )
  if (singles.some(({ grams }) => grams === null)) return { ok: false, why: 'weight-unknown' }
  if (singles.length > Math.min(rules.introMostOut, liftsLeft ?? rules.liftsPerDay)) return { ok: false, why: 'too-many-to-catch' }
  const counts = { dominants: countOf(dominants), subdominants: countOf(subs) }
  const changeL = tank.isShared || tank.netVolumeL === null ? 0 : Math.round(rules.introChangeShare * tank.netVolumeL)
  const outMinutes = singles.length * rules.perFishMinutes + Math.ceil(changeL / rules.changeLPerMin) + rules.rearrangeMinutes + rules.settleMinutes + (counts.subdominants > 0 ? rules.subSettleMinutes : 0)
  const held = vessels.map((vessel) => ({ ...vessel, litres: vessel.litres * rules.vesselFillShare, fish: [] as (Handled & { id: string; grams: number })[] }))
  const bears = (vessel: (typeof held)[number], fish: readonly (Handled & { grams: number })[]): number =>
    vesselLimit({ litres: vessel.litres, tempC: tank.tempC, salinityPpt: tank.salinityPpt, ph: tank.ph, air: vessel.air ?? true, fish: fish.map(({ grams }) => ({ n: 1, massG: grams })), tolerance: mostDelicate(fish), ...(roomC === undefined ? {} : { roomC }) }, limits).minutes
  for (const { fish, grams } of singles) {
    const one = { ...fish, grams: grams ?? 0 }
    const [vessel] = held
      .filter((each) => !each.fish.some(({ species }) => species === fish.species) && bears(each, [...each.fish, one]) >= outMinutes)
      .sort((a, b) => a.fish.length - b.fish.length || b.litres - a.litres || byText(a.id, b.id))
    if (vessel === undefined) return { ok: false, why: 'vessels-short' }
    vessel.fish.push(one)
  }
  const used = held.filter(({ fish }) => fish.length > 0).sort((a, b) => b.litres - a.litres || byText(a.id, b.id))
  return { ok: true, ...counts, subs, outMinutes, changeL, vessels: used.map((vessel) => ({ id: vessel.id, litres: vessel.litres, fish: vessel.fish.map(({ id }) => id), minutes: bears(vessel, vessel.fish) })) }
}

/** Out, the water, the stones, in and back: each step begins when the last one ends. */
function outSteps({ has }: Introducing, { dominants, subdominants, subs, vessels, outMinutes, changeL }: Extract<TakenOut, { ok: true }>, after: (from: number) => IntroductionStep[], rules: MoveRules): Pick<IntroductionPlan, 'subdominants' | 'vessels' | 'outMinutes' | 'steps'> {
  const inTurn: Omit<IntroductionStep, 'at'>[] = [
    { code: 'fill-vessels', minutes: rules.fillMinutes, litres: vessels.reduce((sum, { litres }) => sum + litres, 0) },
    { code: 'dominants-out', minutes: dominants * rules.perFishMinutes },
    ...(subdominants > 0 ? [{ code: 'subdominants-out' as const, minutes: subdominants * rules.perFishMinutes }] : []),
    ...(changeL > 0 ? [{ code: 'change' as const, minutes: Math.ceil(changeL / rules.changeLPerMin), litres: changeL }] : []),
    { code: 'rearrange', minutes: rules.rearrangeMinutes },
    { code: 'newcomers-in', minutes: rules.settleMinutes },
    ...(subdominants > 0 ? [{ code: 'subdominants-back' as const, minutes: rules.subSettleMinutes }] : []),
    { code: 'dominants-back', minutes: 0 },
  ]
  let at = 0
  const steps = inTurn.map((step): IntroductionStep => {
    const begun = { ...step, at }
    at += step.minutes
    return begun
  })
  const afterwards = after(at)
  const dark = afterwards.find(({ code }) => code === 'lights-off')?.minutes ?? 0
  // In the dark a mirror does nothing.
  const mirror: IntroductionStep[] = has.mirror ? [{ code: 'mirror-on', at: at + dark, minutes: rules.mirrorMinutes }] : []
  return { subdominants: subs.map(({ id }) => id), vessels, outMinutes, steps: byTime([...steps, ...afterwards, ...mirror]) }
}
