import type { Limits } from '../limits/houseLimits'
import type { Slots } from '../tankChoice/company'
import type { MoveAsked, MoveCode, MoveItem, MoveOccupant, MoveReason, LotOnWater } from './move'
import type { MoveLevel, MoveRules } from './moveRules'

/** A move with everything that several reasons ask of it. */
export interface Move extends MoveAsked {
  limits: Limits
  rules: MoveRules
  isOut: boolean
  isTank: boolean
  isVessel: boolean
  /** Into a water of its own: inside one water nothing meets anything new. */
  isOtherWater: boolean
  occupants: readonly MoveOccupant[]
  onWater: readonly LotOnWater[]
}

export function readMove(asked: MoveAsked, limits: Limits, rules: MoveRules): Move {
  const { from, to } = asked
  const kind = to.kind ?? 'tank'
  const occupants = to.occupants ?? []
  return {
    ...asked,
    ...{ limits, rules, occupants },
    ...{ isOut: kind === 'outside', isTank: kind === 'tank', isVessel: kind === 'vessel' },
    isOtherWater: kind !== 'outside' && from.waterId !== to.waterId,
    onWater: to.onWater ?? occupants.map((each) => ({ lot: each.lot, source: sourceOf(each), heldDays: each.heldDays ?? null })),
  }
}

/** Where fish were before they came here. */
export const sourceOf = ({ source, supplier }: Pick<MoveItem, 'source' | 'supplier'>): string | null => (source === undefined ? supplier : source)

export const reason = (level: MoveLevel, code: MoveCode, slots: Slots | Record<string, string | number | null | readonly string[]> = {}): MoveReason => ({ code, level, ...slots })

/** A reason where it holds. */
export const when = (holds: boolean, ...reasons: MoveReason[]): MoveReason[] => (holds ? reasons : [])

/** Kinds that move, each with its number. */
export function kindsOf(items: readonly MoveItem[]): { animal: MoveItem['animal']; count: number; items: MoveItem[] }[] {
  const kinds = new Map<string, { animal: MoveItem['animal']; count: number; items: MoveItem[] }>()
  for (const item of items) {
    const kind = kinds.get(item.animal.species)
    kinds.set(item.animal.species, kind ? { ...kind, count: kind.count + item.n, items: [...kind.items, item] } : { animal: item.animal, count: item.n, items: [item] })
  }
  return [...kinds.values()]
}
