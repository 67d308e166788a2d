import { byText } from '../contacts/contact'
import { limitsFor } from '../acclimation/figures'
import { mostDelicate } from './handled'
import type { MoveReason } from './move'
import { reason, when, type Move } from './reasons'

/** Nets, hands and water that go along. */
export function carriedReasons({ from, to, tools = null, hands = null, waterGoesAlong, isOut, isTank }: Move): MoveReason[] {
  if (isOut) return []
  const reachedDoubt = to.doubt ?? 0
  const isElsewhere = (water: string): boolean => water !== from.waterId && water !== to.waterId
  const [dirtiest] = (tools?.carries ?? []).filter(({ water, doubt }) => doubt > reachedDoubt && isElsewhere(water)).sort((a, b) => b.doubt - a.doubt || byText(a.water, b.water))
  const [fromZone, toZone] = [from.zoneId ?? null, to.zoneId ?? null]
  return [
    ...(tools === null ? [] : tools.state === 'in bath' ? [reason('warn', 'tools-bath', { tools: tools.name, readyAt: tools.readyAt })] : dirtiest ? [reason('warn', 'tools-dirty', { tools: tools.name, water: dirtiest.water })] : []),
    ...(tools !== null && tools.zoneId !== null && tools.zoneId !== fromZone && tools.zoneId !== toZone ? [reason('warn', 'tools-zone', { tools: tools.name, zone: tools.zoneId })] : []),
    ...(hands !== null && hands.doubt > reachedDoubt && isElsewhere(hands.water) ? [reason('warn', 'order-back', { water: hands.water })] : []),
    ...when(isTank && waterGoesAlong === true && fromZone !== null && toZone !== null && fromZone !== toZone, reason('warn', 'wet-between-zones', { from: fromZone, to: toZone })),
  ]
}

const copper = 'copper'

/** What the fish pass from one water into the other, and what a binder hides. */
export function waterReasons({ items, from, to, now = 0, waterGoesAlong, isOut, isTank, limits }: Move): MoveReason[] {
  if (isOut) return []
  const { tempRise, tempFall, salinityRise, salinityFall } = limitsFor(limits, mostDelicate(items.map(({ animal }) => animal)), Infinity)
  const step = (what: string, before: number | null | undefined, after: number | null | undefined, rise: number, fall: number): MoveReason[] => {
    if (typeof before !== 'number' || typeof after !== 'number') return []
    const by = after - before
    const limit = by > 0 ? rise : fall
    return when(Math.abs(by) > limit + 1e-9, reason('warn', 'step', { what, by, limit }))
  }
  const [inTo, inFrom] = [(to.agents ?? []).includes(copper), (from.agents ?? []).includes(copper)]
  const [toBinder, fromBinder] = [to.binderUntil ?? 0, from.binderUntil ?? 0]
  const binder = isTank && toBinder > now ? [inTo || (inFrom && waterGoesAlong === true) ? reason('warn', 'binder-copper', { until: toBinder }) : reason('warn', 'binder', { until: toBinder })] : []
  const brought = when(isTank && waterGoesAlong === true && fromBinder > now && inTo, reason('warn', 'binder-copper', { until: fromBinder }))
  return [...step('temperature', from.tempC, to.tempC, tempRise, tempFall), ...step('salinity', from.salinityPpt, to.salinityPpt, salinityRise, salinityFall), ...binder, ...brought]
}
