import gammaIncomplete from '@stdlib/math-base-special-gammainc'
import { Matrix, solve } from 'ml-matrix'
import { z95 } from './wilson'

/** How long one fish (or a group of `weight`) was seen; sold, moved out or still alive is no death, but the end of seeing. */
export interface Seen {
  time: number
  isDeath: boolean
  weight?: number
}

export interface SurvivalAt {
  survival: number
  /** Standard error (Greenwood 1926). */
  standardError: number
  /** 95 % interval on the log-log scale; null where it is not defined, at 0 and 1. */
  low: number | null
  high: number | null
  atRisk: number
  deaths: number
}

const weightOf = ({ weight = 1 }: Seen): number => weight
const sum = (rows: readonly Seen[]): number => rows.reduce((all, row) => all + weightOf(row), 0)
const deathTimes = (rows: readonly Seen[]): number[] => [...new Set(rows.filter((row) => row.isDeath).map((row) => row.time))].sort((a, b) => a - b)
const atRiskAt = (rows: readonly Seen[], time: number): number => sum(rows.filter((row) => row.time >= time))
const deathsAt = (rows: readonly Seen[], time: number): number => sum(rows.filter((row) => row.isDeath && row.time === time))

/** Share that survives beyond a time (Kaplan & Meier 1958). Whoever goes out of sight at the moment of a death was still at risk. */
export function survivalAt(rows: readonly Seen[], time: number): SurvivalAt {
  let [survival, greenwood] = [1, 0]
  for (const at of deathTimes(rows).filter((each) => each <= time)) {
    const [risk, deaths] = [atRiskAt(rows, at), deathsAt(rows, at)]
    survival *= 1 - deaths / risk
    greenwood += deaths / (risk * (risk - deaths))
  }
  const isBetween = survival > 0 && survival < 1
  const theta = isBetween ? (z95 * Math.sqrt(greenwood)) / Math.log(survival) : 0
  return {
    survival,
    standardError: survival === 0 ? 0 : survival * Math.sqrt(greenwood),
    low: isBetween ? survival ** Math.exp(-theta) : null,
    high: isBetween ? survival ** Math.exp(theta) : null,
    atRisk: atRiskAt(rows, time),
    deaths: deathsAt(rows, time),
  }
}

export interface LogRank {
  chi2: number
  degrees: number
  p: number
  observed: number[]
  expected: number[]
}

/** Upper tail of the chi-square distribution. */
export const chiSquareTail = (chi2: number, degrees: number): number => (chi2 <= 0 ? 1 : gammaIncomplete(chi2 / 2, degrees / 2, true, true))

/**
 * Compares the survival of groups (Mantel 1966). Fish of one bag are not independent, so `p` is too small for them: compare
 * shipments.
 */
export function logRank(groups: readonly (readonly Seen[])[]): LogRank {
  const [all, last] = [groups.flat(), groups.length - 1]
  const expected = groups.map(() => 0)
  const variance = Matrix.zeros(Math.max(1, last), Math.max(1, last))
  for (const time of deathTimes(all)) {
    const [risks, deaths] = [groups.map((group) => atRiskAt(group, time)), deathsAt(all, time)]
    const total = risks.reduce((sumOf, risk) => sumOf + risk, 0)
    risks.forEach((risk, g) => (expected[g] = (expected[g] ?? 0) + (deaths * risk) / total))
    if (total <= 1) continue
    const spread = (deaths * (total - deaths)) / (total - 1)
    for (let g = 0; g < last; g += 1) for (let h = 0; h < last; h += 1) variance.set(g, h, variance.get(g, h) + spread * ((risks[g] ?? 0) / total) * ((g === h ? 1 : 0) - (risks[h] ?? 0) / total))
  }
  const observed = groups.map((group) => sum(group.filter((row) => row.isDeath)))
  const excess = Matrix.columnVector(observed.slice(0, last).map((each, g) => each - (expected[g] ?? 0)))
  const chi2 = last < 1 || deathTimes(all).length === 0 ? 0 : excess.transpose().mmul(solve(variance, excess, true)).get(0, 0)
  return { chi2, degrees: last, p: chiSquareTail(chi2, last), observed, expected }
}
