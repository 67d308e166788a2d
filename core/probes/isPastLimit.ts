import type { ReadingRule } from '../rounds/roundRules'
import type { ProbedWater, ProbeMeasure } from './probe'

/**
 * Whether what a probe says is past the limit from which a tank is watched, as the round judges a reading. Where nobody
 * says what the water is kept at, nothing is past it.
 */
export function isPastLimit(measure: ProbeMeasure, value: number, water: ProbedWater, rules: readonly ReadingRule[]): boolean {
  const [rule, target] = [rules.find(({ kind }) => kind === measure), water[measure]]
  if (!rule || (rule.relative && target === null)) return false
  const off = value - (rule.relative ? (target ?? 0) : 0)
  return (rule.low !== null && off <= rule.low[1]) || (rule.high !== null && off >= rule.high[0])
}
