import type { OwnAnswer } from '../facts/facts'
import { hoursAgo } from '../time/hoursAgo'
import { lookAtTank } from './levelAsked'
import type { RoundRules } from './roundRules'
import type { Ate, Sign } from './rounds.schema'
import { coursesAt, type LotInTank } from './seenInTank'
import type { ExpectedCourse } from './expectedCourse'

/** So finely a window is drawn: hours, or so many parts of a long time. */
const [stepH, mostSteps] = [4, 120]

/** What was usual over a time, for a picture. */
export interface UsualOver {
  /** From each moment on: whether eating nothing, and eating some, was usual, and which share usually shows itself. */
  appetite: { atMs: number; least: Ate }[]
  shareSeen: { atMs: number; share: number }[]
  /** While slight signs were usual. */
  signs: { sign: Sign; fromMs: number; toMs: number }[]
}

/**
 * What was usual in a tank over a time, after what happened to the fish that stand in it now. Where several lots stand, what
 * is usual for one of them is.
 * @param looks - what was answered meanwhile: a full meal ends what explains a refusal.
 */
export function usualOver(lots: readonly LotInTank[], looks: readonly { atMs: number; ate: Ate; answers: OwnAnswer[] }[], { fromMs, toMs }: { fromMs: number; toMs: number }, rules: RoundRules): UsualOver {
  const stepMs = Math.max(stepH * 3_600_000, (toMs - fromMs) / mostSteps)
  const moments = Array.from({ length: Math.floor((toMs - fromMs) / stepMs) + 1 }, (_, step) => fromMs + step * stepMs)
  const rounds = looks.map((look) => lookAtTank({ ...look, marks: [] }, toMs))
  const courses = coursesAt(lots, rounds, moments.map((atMs) => hoursAgo(atMs, toMs)), rules)
  const at = (step: number): ExpectedCourse[] => courses.flatMap((course) => course[step] ?? [])
  const least = (step: number): Ate => (at(step).some(({ ateNoneLeftH }) => ateNoneLeftH > 0) ? 'none' : at(step).some(({ ateSomeLeftH }) => ateSomeLeftH > 0) ? 'some' : 'most')
  const share = (step: number): number => Math.min(1, ...at(step).map(({ shareSeen }) => shareSeen))
  return {
    appetite: changes(moments, least).map(({ atMs, is }) => ({ atMs, least: is })),
    shareSeen: changes(moments, share).map(({ atMs, is }) => ({ atMs, share: is })),
    signs: windows(moments, (step) => new Set(at(step).flatMap(({ signs }) => [...signs].filter(([, { slightLeftH }]) => slightLeftH === null || slightLeftH > 0).map(([sign]) => sign))), toMs),
  }
}

/** Moments at which something became another, with what it was from then on. */
function changes<T>(moments: readonly number[], of: (step: number) => T): { atMs: number; is: T }[] {
  const all = moments.map((atMs, step) => ({ atMs, is: of(step) }))
  return all.filter(({ is }, step) => step === 0 || all[step - 1]?.is !== is)
}

/** While each sign was usual, without a break. */
function windows(moments: readonly number[], of: (step: number) => ReadonlySet<Sign>, toMs: number): UsualOver['signs'] {
  const open = new Map<Sign, number>()
  const closed: UsualOver['signs'] = []
  moments.forEach((atMs, step) => {
    const usual = of(step)
    for (const [sign, fromMs] of open) {
      if (usual.has(sign)) continue
      closed.push({ sign, fromMs, toMs: atMs })
      open.delete(sign)
    }
    for (const sign of usual) if (!open.has(sign)) open.set(sign, atMs)
  })
  return [...closed, ...[...open].map(([sign, fromMs]) => ({ sign, fromMs, toMs }))].sort((a, b) => (a.sign < b.sign ? -1 : a.sign > b.sign ? 1 : a.fromMs - b.fromMs))
}
