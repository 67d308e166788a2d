import { dosingLimits, shippedLadder } from './agents'
import { riseTo } from './rise'
import { changesNeeded } from './waterChange'

/** How a medicine is stepped in and out: mg/L, shares and hours. */
export interface Ladder {
  target: number
  lo: number
  hi: number
  partShare?: number
  raiseAfterH?: number
  stepShare?: number
  doneBelow?: number
  freshMgL?: number
}
export interface LadderAsked {
  V: number
  label: { strengthMgPerMl?: number | null }
  ladder: Ladder
  stage: 'enter' | 'part' | 'level' | 'down'
  hoursInStage: number
  isEating: boolean
  servedDays: number
  levelDays: number
  level?: { c: number; sd: number; ageH: number | null; isJump: boolean } | null
  isNeverDosed?: boolean
  rel?: number
}
export interface LadderStep {
  do: 'read' | 'changeDown' | 'dosePart' | 'wait' | 'waitEating' | 'raise' | 'doseUp' | 'hold' | 'stepDown' | 'done'
  doseMg: number | null
  productMl: number | null
  changeL: number | null
  changes: number | null
  waitH: number | null
  days: number | null
}
const nothing = { doseMg: null, productMl: null, changeL: null, changes: null, waitH: null, days: null }

/**
 * Says what is next on a ladder of doses; every dose still passes `doseCheck`.
 * Source: docs/regimens.md#ladder; house guidance, the range of the label.
 */
export function ladderStep({ V, label, ladder, stage, hoursInStage, isEating, servedDays, levelDays, level, isNeverDosed = false, rel = dosingLimits.doseRel }: LadderAsked): LadderStep {
  const { target, lo, hi, partShare, raiseAfterH, stepShare, doneBelow, freshMgL } = { ...shippedLadder, ...ladder }
  const { c, sd } = level ?? { c: 0, sd: 0 }
  const dose = (what: LadderStep['do'], to: number): LadderStep => {
    const doseMg = V * riseTo(to, { c, sd }, hi, rel).rise
    return { ...nothing, do: what, doseMg, productMl: label.strengthMgPerMl == null ? null : doseMg / label.strengthMgPerMl }
  }
  const isUnread = !level || level.ageH === null || level.ageH > dosingLimits.doseReadingH || level.isJump
  if (isUnread && !(stage === 'enter' && isNeverDosed)) return { ...nothing, do: 'read' }
  if (c > hi) return { ...nothing, do: 'changeDown', changeL: V * Math.min(1, (c - target) / (c - freshMgL)), changes: 1 }
  if (stage === 'enter') return dose('dosePart', partShare * target)
  if (stage === 'part') {
    if (hoursInStage < raiseAfterH) return { ...nothing, do: 'wait', waitH: raiseAfterH - hoursInStage }
    return isEating ? dose('raise', target) : { ...nothing, do: 'waitEating' }
  }
  if (stage === 'level' && servedDays < levelDays) return c < lo ? dose('doseUp', target) : { ...nothing, do: 'hold', days: levelDays - servedDays }
  if (c <= doneBelow) return { ...nothing, do: 'done' }
  const changes = changesNeeded(c, doneBelow, stepShare, freshMgL)
  return { ...nothing, do: 'stepDown', changeL: V * stepShare, changes: Number.isFinite(changes) ? changes : null }
}

/** What a house does about a level when it changes water. */
export type RedoseSchool = 'asIs' | 'redose' | 'premix'
/** What goes into the water, or the new water, so that a change of a share leaves a level where the house wants it. */
export function redoseAfterChange({ V, f, level, cn = 0, school }: { V: number; f: number; level: number; cn?: number; school: RedoseSchool }): { doseMg: number; mixMgPerL: number; levelAfter: number } {
  const after = level * (1 - f) + f * cn
  if (school === 'asIs') return { doseMg: 0, mixMgPerL: cn, levelAfter: after }
  return school === 'premix' ? { doseMg: 0, mixMgPerL: level, levelAfter: level } : { doseMg: Math.max(0, V * (level - after)), mixMgPerL: cn, levelAfter: Math.max(level, after) }
}
