import { dosingLimits, shippedAgents, shippedLadder } from '../dosing/agents'
import { doseCheck, type Dose, type DosedFish, type DosedWater, type DoseLabel } from '../dosing/doseCheck'
import { ladderStep, type Ladder, type LadderAsked, type LadderStep } from '../dosing/ladderStep'
import type { LevelEstimate } from '../dosing/levelEstimate'
import { isNeverDosed, levelOfWater, newestReading, type Measuring, type TreatedWater } from '../dosing/treatedWater'

/** What the house wrote down of its product, from the label; what it left out is the shipped ladder's. */
export interface ProductLabel extends DoseLabel {
  loMgL?: number | null
  partShare?: number | null
  raiseAfterH?: number | null
  stepShare?: number | null
  doneBelowMgL?: number | null
}
/** Where a ladder stands: by the clock of its fish, or by its doses where none are held by it. */
export type LadderStand = Pick<LadderAsked, 'stage' | 'hoursInStage' | 'isEating' | 'servedDays' | 'levelDays'>
export interface OfferAsked {
  agent: string
  label: ProductLabel | null
  water: Omit<DosedWater, 'isNeverDosed'>
  fish: readonly DosedFish[]
  /** What it went through; null where nobody knows how many litres it has. */
  treated: TreatedWater | null
  /** Null for a dose to the label's target. */
  stand: LadderStand | null
  nowMs: number
  leadOverrides?: boolean
}
/** What a screen offers: the check of the dose, and what a ladder does next. */
export interface DoseOffer {
  check: Dose
  step: LadderStep | null
  level: LevelEstimate | null
  /** What it was read with last; null if never or where nobody said. */
  kitRead: string | null
  /** The level that this dose goes for, mg/L; null where nothing is dosed now. */
  towardsMgL: number | null
}

const hourMs = 3_600_000
const hasNet = ({ netL }: { netL?: number | null }): boolean => netL != null

/** The top of the range that a product is kept in, mg/L: the label's, or a published one that is lower. */
export function limitOf(agent: string, label: ProductLabel | null): number | null {
  const known = [label?.hiMgL, shippedAgents[agent]?.hi].filter((each) => each != null)
  return known.length === 0 ? null : Math.min(...known)
}
/** How a product is measured: by its kit, around the range it is kept in. */
export const measuringOf = (agent: string, label: ProductLabel | null, tanks: DosedWater['tanks']): Measuring => ({ kit: shippedAgents[agent]?.kit ?? null, aboutMgL: limitOf(agent, label) ?? label?.targetMgL ?? 0, doseRel: tanks.every(hasNet) ? dosingLimits.doseRel : dosingLimits.grossRel })

/** The steps of a ladder for a product; null where its label says no target. */
export function ladderOf(agent: string, label: ProductLabel | null): Ladder | null {
  const target = label?.targetMgL
  if (target == null) return null
  const hi = limitOf(agent, label) ?? target
  return { target, lo: label?.loMgL ?? shippedAgents[agent]?.lo ?? target, hi, partShare: label?.partShare ?? shippedLadder.partShare, raiseAfterH: label?.raiseAfterH ?? shippedLadder.raiseAfterH, stepShare: label?.stepShare ?? shippedLadder.stepShare, doneBelow: label?.doneBelowMgL ?? shippedLadder.doneBelow, freshMgL: shippedLadder.freshMgL }
}

/** The level that a step of a ladder doses towards; null for one that doses nothing. */
function towards(step: LadderStep | null, ladder: Ladder | null): number | null {
  if (!step || !ladder) return null
  if (step.do === 'dosePart') return (ladder.partShare ?? shippedLadder.partShare) * ladder.target
  return step.do === 'raise' || step.do === 'doseUp' ? ladder.target : null
}

/** A dose that was cut short by the limit is read before the rest goes in. */
function isUnreadAfterCut({ doses, readings }: TreatedWater, kit: string | null): boolean {
  const cut = doses.filter(({ isCut = false }) => isCut).at(-1)
  return cut !== undefined && kit !== null && !readings.some((reading) => reading.kit === kit && reading.atMs > cut.atMs)
}

/**
 * Works out what a screen offers to put into a water now. The ladder says what is next, and every dose of it passes the
 * check: no amount without the reading that is asked for, and none that could pass the limit.
 * Source: docs/regimens.md#doses.
 */
export function offerDose({ agent, label, water, fish, treated, stand, nowMs, leadOverrides = false }: OfferAsked): DoseOffer {
  const measuring = measuringOf(agent, label, water.tanks)
  const isNew = treated === null || isNeverDosed(treated, nowMs)
  const estimate = treated && !isNew ? levelOfWater(treated, measuring, nowMs) : null
  const last = treated && measuring.kit !== null ? newestReading(treated, nowMs) : null
  // After a cut dose the readings of before say nothing of what may still go in.
  const ageH = estimate?.ageH != null && treated && isUnreadAfterCut(treated, measuring.kit) ? Infinity : (estimate?.ageH ?? null)
  const level = estimate && { ...estimate, ageH }
  const ladder = ladderOf(agent, label)
  const step = stand && ladder && treated ? ladderStep({ V: treated.volumeL, label: label ?? {}, ladder, ...stand, level: level ?? null, isNeverDosed: isNew, rel: measuring.doseRel ?? dosingLimits.doseRel }) : null
  const towardsMgL = stand ? towards(step, ladder) : (label?.targetMgL ?? null)
  const check = doseCheck({
    ...{ agent, fish, leadOverrides, water: { ...water, isNeverDosed: isNew } },
    label: label && { ...label, targetMgL: towardsMgL ?? label.targetMgL ?? null, hiMgL: limitOf(agent, label) },
    level: level && { c: level.c, sd: level.sd, ageH: level.ageH, kit: last?.kit ?? '', isJump: level.isJump },
  })
  const isDosing = !stand || towardsMgL !== null
  return { check: isDosing ? check : { ...check, rise: null, doseMg: null, productMl: null, productG: null, isCut: false }, step, level: estimate, kitRead: last?.kit ?? null, towardsMgL }
}

/** Hours since a moment. */
export const hoursSince = (atMs: number, nowMs: number): number => (nowMs - atMs) / hourMs
