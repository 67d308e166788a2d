import { nominalOf, targetOf } from '../../core/acclimation/question'
import type { RunView } from '../../core/bench/benchView'
import type { RunNow } from '../../core/bench/followRun'
import { mostLitres, runKindWords } from '../../core/bench/runPlan'
import { stepStarts } from '../../core/bench/runRecord'
import { showChange } from '../../core/units/units'
import { formatSpan, formatTimer } from '../ui/format'

/** Who is on the bench, and where they go. */
export const runTitle = ({ sources }: RunView): string => {
  const species = [...new Set(sources.map((each) => each.species))].join(', ')
  return `${sources.reduce((sum, { quantity }) => sum + quantity, 0)} ${species}`
}
export const runTo = ({ tank, toOutside }: RunView): string => tank?.code ?? toOutside ?? ''
export const runWay = ({ plan }: RunView): string => plan.school?.name ?? runKindWords[plan.kind]

const dayMs = 86_400_000

/** The timer of the step in hand, in figures and in words. */
export function timerOf({ dueAtMs, step, stepStartedAtMs }: RunNow, atMs: number): { figure: string; words: string; isOver: boolean } {
  if (!step) return { figure: 'done', words: 'every step is done', isOver: false }
  if (dueAtMs === null) return { figure: formatTimer(atMs - stepStartedAtMs), words: 'since the step before', isOver: false }
  if (!Number.isFinite(dueAtMs)) return { figure: '–', words: 'nothing flows', isOver: true }
  const left = dueAtMs - atMs
  // Nobody waits for the seconds of days.
  const figure = Math.abs(left) < 2 * dayMs ? formatTimer(left) : `${left < 0 ? '+' : ''}${formatSpan(Math.abs(left))}`
  return { figure, words: left < 0 ? 'over its time' : 'left', isOver: left <= 0 }
}

/** What the lane of a vessel shows: how full, how near the tank's water, and when it was read. */
export function laneOf(run: RunView, now: RunNow, atMs: number): { filled: number; mixed: number; readings: number[]; words: string } {
  const { plan, events } = run
  const most = mostLitres(plan.startL, plan.steps)
  const [from, to] = [nominalOf(plan.question), targetOf(plan.question)]
  const water = now.water.now
  const salt = Math.abs(from.salinityPpt - to.salinityPpt)
  const warmth = Math.abs(from.tempC - to.tempC)
  const near = !water ? 1 : salt > 1 ? 1 - Math.abs(water.salinityPpt - to.salinityPpt) / salt : plan.steps.length > 0 && now.litres > plan.startL ? 1 - plan.startL / now.litres : warmth > 0.5 ? 1 - Math.abs(water.tempC - to.tempC) / warmth : 0.5
  const end = Math.max(atMs, now.outAtMs ?? stepStarts(run).at(-1) ?? atMs)
  const words = `${showChange('volume', now.litres, now.units)} in the vessel, ${Math.round(100 * near)} % of the way to the tank’s water`
  return { words, filled: now.fish === 'tank' ? 1 : Math.max(0.08, now.litres / most), mixed: near, readings: events.filter(({ kind }) => kind === 'reading').map((event) => (event.atMs - run.startedAtMs) / Math.max(1, end - run.startedAtMs)) }
}
