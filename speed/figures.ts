/** Reads the value below which a share of the values lies. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN
}

export interface Figures {
  median: number
  p95: number
}

/** Median and 95th percentile of timings in milliseconds. */
export function figuresOf(timingsMs: readonly number[]): Figures {
  return { median: quantile(timingsMs, 0.5), p95: quantile(timingsMs, 0.95) }
}

const cell = (value: number): string => value.toFixed(2).padStart(8)

/** Prints two timings beside each other, their ratio, and the aim it is held against. */
export function report(what: string, floorName: string, ours: Figures, floor: Figures, aim: number): void {
  console.log(`\n${what}`)
  console.log(`  ${'ms'.padEnd(34)}  median      p95`)
  console.log(`  ${'ours'.padEnd(34)}${cell(ours.median)} ${cell(ours.p95)}`)
  console.log(`  ${floorName.padEnd(34)}${cell(floor.median)} ${cell(floor.p95)}`)
  const ratio = ours.median / floor.median
  console.log(`  ${'ratio'.padEnd(34)}${cell(ratio)} ${cell(ours.p95 / floor.p95)}   aim: median below ${aim}, ${ratio < aim ? 'met' : 'NOT met'}`)
}

/** Times one call, in milliseconds. */
export async function timed(work: () => unknown): Promise<number> {
  const start = performance.now()
  await work()
  return performance.now() - start
}
