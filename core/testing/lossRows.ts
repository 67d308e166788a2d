import type { LossRow } from '../outcomes/lossRow'

/** Numbers of 0 to below 1, the same for the same seed. */
export type Next = () => number

/** Crates whose fish die alike: shares of a beta with the likeness of crate mates, by sums of small steps (Pólya's urn). */
export function drawnCrates(next: Next, { group, crates, loss, icc, fish = [5, 65], stratum }: { group: string; crates: number; loss: number; icc: number; fish?: readonly [number, number]; stratum?: string }): LossRow[] {
  return Array.from({ length: crates }, (_, index) => {
    const n = Math.floor(fish[0] + next() * (fish[1] - fish[0] + 1))
    return { crate: `${group}${stratum ?? ''}-${index}`, group, n, out: deathsOf(next, n, loss, icc), until: 30, ...(stratum === undefined ? {} : { strata: [stratum] }) }
  })
}

/** Each death makes the next of the same crate likelier, by as much as mates are alike. */
function deathsOf(next: Next, n: number, loss: number, icc: number): LossRow['out'] {
  const weight = icc === 0 ? Infinity : 1 / icc - 1
  const days = new Map<number, number>()
  let dead = 0
  for (let fish = 0; fish < n; fish += 1) {
    const chance = weight === Infinity ? loss : (loss * weight + dead) / (weight + fish)
    if (next() >= chance) continue
    dead += 1
    const day = Math.floor(next() ** 2 * 14)
    days.set(day, (days.get(day) ?? 0) + 1)
  }
  return [...days].sort(([one], [other]) => one - other).map(([day, many]) => ({ day, dead: many, gone: 0 }))
}
