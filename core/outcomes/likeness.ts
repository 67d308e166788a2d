import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** Losses of one crate (or of one crate's fish in one group). */
export interface CrateLoss {
  group: string
  crate: string
  dead: number
  /** Fish watched: those that went out of sight alive count half. */
  of: number
}

export interface Likeness {
  /** As these crates have it by themselves, 0 to 0.5. */
  raw: number
  /** Drawn towards the house's by the weight of a few crates. */
  icc: number
  crates: number
  groups: number
}

/** How alike fish of one crate die beside those of other crates of their group, by analysis of variance (Donner 1986). */
export function likeness({ rows, limits }: { rows: readonly CrateLoss[]; limits?: Partial<OutcomeRules> }): Likeness {
  const { icc: house, iccPriorCrates } = outcomeRules(limits)
  const known = rows.filter(({ of }) => of > 0)
  const groups = groupsOf(known)
  const [crates, fish] = [known.length, known.reduce((sum, { of }) => sum + of, 0)]
  const free = crates - groups.length
  const raw = rawLikeness(groups, { crates, fish, free }) ?? house
  return { raw, icc: (free * raw + iccPriorCrates * house) / (free + iccPriorCrates), crates, groups: groups.length }
}

/** Rows by their group, in the order in which groups come. */
export function groupsOf<Row extends CrateLoss>(rows: readonly Row[]): Row[][] {
  const groups = new Map<string, Row[]>()
  for (const row of rows) {
    const group = groups.get(row.group)
    if (group) group.push(row)
    else groups.set(row.group, [row])
  }
  return [...groups.values()]
}

/** Null where these crates say nothing about it: one crate a group, one fish a crate, or all alike to the last. */
function rawLikeness(groups: readonly (readonly CrateLoss[])[], { crates, fish, free }: { crates: number; fish: number; free: number }): number | null {
  if (free <= 0 || fish <= crates) return null
  let [between, within, crowded] = [0, 0, 0]
  for (const rows of groups) {
    const [dead, of] = [rows.reduce((sum, row) => sum + row.dead, 0), rows.reduce((sum, row) => sum + row.of, 0)]
    for (const row of rows) {
      const share = row.dead / row.of
      between += row.of * (share - dead / of) ** 2
      within += row.of * share * (1 - share)
      crowded += row.of ** 2 / of
    }
  }
  const [msb, msw, usualSize] = [between / free, within / (fish - crates), (fish - crowded) / free]
  const divisor = msb + (usualSize - 1) * msw
  return divisor === 0 ? null : Math.min(0.5, Math.max(0, (msb - msw) / divisor))
}
