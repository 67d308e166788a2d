import { sourceKnown } from '../../core/contacts/sourceKnown'
import type { TankFacts } from '../../core/facts/facts'
import { metOf } from '../../core/moves/meetingReasons'
import type { SourcesMet } from '../../core/moves/move'
import type { MoveRules, SourcesRule } from '../../core/moves/moveRules'
import type { ChoiceTank } from '../../core/tankChoice/tankChoice'
import type { ContactsService } from '../contacts/contacts.service'
import type { FactsService } from '../facts/facts.service'

interface Collaborators {
  facts: Pick<FactsService, 'inUse' | 'tank'>
  contacts: Pick<ContactsService, 'meetings'>
  rules: () => MoveRules
}

/** Which sources have met, and where they may: one answer for choosing tanks and for the check of moves. */
export function createSourcesService({ facts, contacts, rules }: Collaborators) {
  /** What the zone of a tank says; unsaid, a water whose tanks all sell, show or grow mixes on purpose. */
  function ruleOf(tank: TankFacts, nowMs: number): SourcesRule {
    if (tank.sourcesRule) return tank.sourcesRule
    const alike = facts.inUse(nowMs).filter(({ zoneId, water }) => (tank.zoneId === null ? water.id === tank.water.id : zoneId === tank.zoneId))
    return alike.every(({ purpose }) => purpose === null || purpose === 'sale' || purpose === 'display' || purpose === 'grow-out') ? 'warn' : rules().sourcesRule
  }

  const met = (nowMs: number): SourcesMet[] =>
    contacts.meetings(nowMs).map(({ a, b, togetherMinutes }) => (togetherMinutes > 0 ? { a, b, state: 'together', days: Math.floor(togetherMinutes / 1440) } : { a, b, state: 'contact', days: null }))

  /** Sources on the water of a tank that those which come have not lived with, where its zone leaves that to a lead. */
  function unmetAt(tank: TankFacts, coming: readonly string[], known: readonly SourcesMet[], nowMs: number): NonNullable<ChoiceTank['unmet']> {
    const there = new Set(facts.inUse(nowMs).flatMap(({ water, lots }) => (water.id === tank.water.id ? lots.flatMap(({ origin }) => sourceKnown(origin) ?? []) : [])))
    return coming.flatMap((source) => [...there].filter((other) => other !== source).flatMap((other) => {
      const { state } = metOf(known, source, other)
      return state === 'contact' || state === 'never' ? [{ source, other, state }] : []
    }))
  }

  return {
    ruleOf,
    met,

    /** Tanks with the sources that must not come to those on their water without a lead. */
    withUnmet<T extends ChoiceTank>(tanks: readonly T[], suppliers: readonly string[], nowMs: number): T[] {
      const coming = [...new Set(suppliers.flatMap((supplier) => sourceKnown(supplier) ?? []))]
      const apart = coming.length === 0 ? [] : tanks.flatMap(({ id }) => facts.tank(id, nowMs) ?? []).filter((tank) => ruleOf(tank, nowMs) === 'lead')
      if (apart.length === 0) return [...tanks]
      const known = met(nowMs)
      const unmet = new Map(apart.map((tank) => [tank.tankId, unmetAt(tank, coming, known, nowMs)]))
      return tanks.map((tank) => ({ ...tank, ...(unmet.has(tank.id) ? { unmet: unmet.get(tank.id) ?? [] } : {}) }))
    },
  }
}
export type SourcesService = ReturnType<typeof createSourcesService>
