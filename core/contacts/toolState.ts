import { byText } from './contact'

/** A tool set was in a water. */
export interface ToolUse {
  at: number
  water: string
}

/** A tool set lay in disinfectant; minutes are the contact time by the label of the product. */
export interface ToolBath {
  inAt: number
  /** Null while it lies there. */
  outAt: number | null
  needMinutes: number
}

export interface ToolState {
  state: 'clean' | 'used' | 'in bath'
  /** When the bath that it lies in will have been long enough. */
  readyAt: number | null
  /** Waters it was in since it was last clean. */
  carries: string[]
  /** Minutes at which it was clean. */
  clears: number[]
}

/**
 * What a tool set carries at a minute: a bath counts once it has lasted as long as its label asks, with no use meanwhile.
 * Source: docs/contacts.md.
 * @param dryMinutes - null: drying alone counts for nothing.
 */
export function toolState({ uses, baths, dryMinutes = null, at }: { uses: readonly ToolUse[]; baths: readonly ToolBath[]; dryMinutes?: number | null; at: number }): ToolState {
  const used = uses.filter((use) => use.at <= at).sort((a, b) => a.at - b.at)
  const over = baths
    .filter(({ inAt, outAt, needMinutes }) => inAt <= at && (outAt === null || outAt >= inAt + needMinutes) && !used.some((use) => use.at > inAt && use.at <= inAt + needMinutes))
    .map(({ inAt, needMinutes }) => inAt + needMinutes)
  const dried = dryMinutes === null ? [] : used.flatMap((use) => (used.some((next) => next.at > use.at && next.at <= use.at + dryMinutes) ? [] : [use.at + dryMinutes]))
  const clears = [...new Set([...over, ...dried].filter((minute) => minute <= at))].sort((a, b) => a - b)
  const coming = over.filter((minute) => minute > at)
  const last = clears.at(-1) ?? -Infinity
  const carries = [...new Set(used.filter((use) => use.at > last).map(({ water }) => water))].sort(byText)
  return { state: coming.length > 0 ? 'in bath' : carries.length > 0 ? 'used' : 'clean', readyAt: coming.length > 0 ? Math.max(...coming) : null, carries, clears }
}
