import type { HoldPolicy } from '../holds/policy'
import { askingWords, shippedPolicies } from '../holds/shippedHolds'

/** A room in which histories are made up: two quarantines and a rack. */
export const heldTanks = { 'Q1-01': 'quarantine 1', 'Q1-02': 'quarantine 1', 'Q2-01': 'quarantine 2', 'Q2-02': 'quarantine 2', 'S1-01': 'sale' }
/** A minute of the first day, in the morning. */
export const startAt = 32256540

/** Policies that houses of other schools would make. */
export const housePolicies: readonly HoldPolicy[] = [
  { id: 'byLooks', name: 'By looks', start: 'placed', phases: [{ id: 'watch', kind: 'watch', days: 5, counts: 'looked' }], onSign: { back: 'watch', reach: 'lot', words: ['spots', 'thin'] }, onAddition: { by: 'water', from: 'any', back: 'watch' }, onTreatment: null, release: [], agents: [] },
  { id: 'twoParts', name: 'Two parts', start: 'opened', phases: [{ id: 'first', kind: 'observe', days: 4 }, { id: 'second', kind: 'watch', days: 6 }, { id: 'third', kind: 'watch', days: 2, gates: [{ gate: 'looked', withinDays: 2 }] }], onSign: { back: 'second', reach: 'tank', words: askingWords }, onAddition: { by: 'tank', from: 'any', back: 'first' }, onTreatment: { back: 'third' }, release: [{ gate: 'eating', answers: 1, atLeast: 'some', withinDays: 4 }], agents: [] },
]
export const policyIds = [...shippedPolicies, ...housePolicies].map(({ id }) => id)
