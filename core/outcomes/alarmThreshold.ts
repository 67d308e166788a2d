import gammaln from '@stdlib/math-base-special-gammaln'

/** What a step of a stream is held against: losses to be expected, how much they vary, and how many times as many are an alarm. */
export interface Usual {
  expected: number
  /** Variance of the losses of a step, in times of their mean; above 1. */
  dispersion: number
  ratio: number
}

/** Ratio where none is said. */
export const usualRatio = 2
/** A step of an empty room is still held against something. */
const leastExpected = 0.01
const above1 = (dispersion: number): number => Math.max(dispersion, 1.000001)

/** By how much a step speaks for raised losses: ln of how much likelier `dead` is then (negative binomial). */
export function stepWeight(dead: number, { expected, dispersion, ratio }: Usual): number {
  const phi = above1(dispersion)
  const usual = Math.max(expected, leastExpected) / (phi - 1)
  const raised = ratio * usual
  return gammaln(dead + raised) - gammaln(raised) - gammaln(dead + usual) + gammaln(usual) - (raised - usual) * Math.log(phi)
}

/** Chances of 0, 1, 2 ... dead in a step in usual times, until next to nothing is left. */
function chancesOf(expected: number, dispersion: number): number[] {
  const phi = above1(dispersion)
  const r = Math.max(expected, leastExpected) / (phi - 1)
  const chances = [Math.exp(-r * Math.log(phi))]
  let sum = chances[0] as number
  for (let dead = 1; dead <= 400 && sum < 1 - 1e-10; dead += 1) {
    const next = ((chances[dead - 1] as number) * (r + dead - 1) * (phi - 1)) / (dead * phi)
    chances.push(next)
    sum += next
  }
  return chances
}

/** Chance of at least so many dead in one step in usual times. */
export function tailOf(dead: number, expected: number, dispersion: number): number {
  const phi = above1(dispersion)
  const r = Math.max(expected, leastExpected) / (phi - 1)
  let [chance, below] = [Math.exp(-r * Math.log(phi)), 0]
  // A death that was attributed counts as a part of one: the tail is that of the whole fish it makes up.
  for (let each = 0; each < Math.ceil(dead - 1e-9); each += 1) {
    below += chance
    chance *= ((r + each) * (phi - 1)) / ((each + 1) * phi)
  }
  return Math.max(0, 1 - below)
}

/** States between 0 and the threshold. */
const usualStates = 200

/** Mean steps until a score that begins at 0 reaches the threshold (Brook & Evans 1972). */
function stepsToRing(threshold: number, usual: Usual, chances: readonly number[], states: number): number {
  const jumps = chances.map((_, dead) => (stepWeight(dead, usual) * states) / threshold)
  const rows = Array.from({ length: states }, () => new Float64Array(states))
  const leave = (row: Float64Array, to: number, chance: number): void => {
    if (to < states) row[to] = (row[to] as number) - chance
  }
  rows.forEach((row, from) => {
    row[from] = 1
    chances.forEach((chance, dead) => {
      const to = Math.max(0, from + (jumps[dead] as number))
      const [floor, part] = [Math.floor(to), to - Math.floor(to)]
      leave(row, floor, chance * (1 - part))
      leave(row, floor + 1, chance * part)
    })
  })
  return meanFromFirst(rows)
}

/**
 * Mean steps out of the first state of a chain, from its matrix of 1 less the chances to move: elimination from the last state
 * up. No pivots are needed: every row sums to no less than 0. A score falls by little at a time, so a row that is eliminated
 * has few entries, and this takes a tenth of the time of a library that knows nothing of it.
 */
function meanFromFirst(rows: Float64Array[]): number {
  const steps = rows.map(() => 1)
  for (let last = rows.length - 1; last > 0; last -= 1) {
    const eliminated = rows[last] as Float64Array
    const own = eliminated[last] as number
    const first = eliminated.findIndex((entry) => entry !== 0)
    for (let at = 0; at < last; at += 1) {
      const row = rows[at] as Float64Array
      const times = (row[last] as number) / own
      if (times === 0) continue
      for (let to = first; to < last; to += 1) row[to] = (row[to] as number) - times * (eliminated[to] as number)
      steps[at] = (steps[at] as number) - times * (steps[last] as number)
    }
  }
  return (steps[0] as number) / (rows[0]?.[0] as number)
}

export interface AlarmSetting {
  /** Chance below which a step is sudden by itself. */
  suddenTail: number
  threshold: number
  /** Mean steps between false alarms of each kind. */
  stepsToFalse: number
  /** Mean steps until it rings when losses are so many times the usual. */
  stepsToAlarm: { times: number; steps: number }[]
}

/**
 * Sets an alarm so that it rings falsely as often as the house allows, half for each kind. Source: docs/outcomes.md.
 * @param streams - waters, suppliers or species that are watched together.
 * @param halvings - how often the range of thresholds, 0.2 to 15, is halved.
 * @param states - of the chain by which it is reckoned.
 */
export function alarmThreshold({ stepsPerYear, streams, falseAlarmsPerYear, expected, dispersion, ratio = usualRatio, halvings = 40, states = usualStates }: { stepsPerYear: number; streams: number; falseAlarmsPerYear: number; expected: number; dispersion: number; ratio?: number; halvings?: number; states?: number }): AlarmSetting {
  const usual: Usual = { expected, dispersion, ratio }
  const stepsToFalse = (stepsPerYear * streams) / (falseAlarmsPerYear / 2)
  const usually = chancesOf(expected, dispersion)
  let [low, high] = [0.2, 15]
  for (let halving = 0; halving < halvings; halving += 1) {
    const middle = (low + high) / 2
    if (stepsToRing(middle, usual, usually, states) < stepsToFalse) low = middle
    else high = middle
  }
  return { suddenTail: 1 / stepsToFalse, threshold: high, stepsToFalse, stepsToAlarm: [2, 3, 5, 10].map((times) => ({ times, steps: stepsToRing(high, usual, chancesOf(expected * times, dispersion), states) })) }
}
