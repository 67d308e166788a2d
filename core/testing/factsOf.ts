import type { LotFacts, Look, TankFacts } from '../facts/facts'
import { noHandling } from '../species/handling'

/** A lot that settled long ago, for tests that change what they are about. */
export const lotFacts = (change: Partial<LotFacts> = {}): LotFacts => ({
  ...{ lotId: 'a', lotCode: '12-01', speciesId: 's', species: 'Cherry barb', origin: 'Hollow Reed', quantity: 10, expected: 10_000_000, sinceMs: 0, arrivedAtMs: 0, isBeforeBooks: false, hold: null },
  ...{ noted: { sizeCm: null, strain: null, water: null, atMs: 0 }, book: { handling: noHandling, firstMealDays: 1, bearsHunger: null, firstFoods: null, ways: { shareSeen: null, tolerance: null, habits: [], mouth: 'small', massG: 1, tradedCm: null, adultCm: null } } },
  ...{ lastAnswer: null, lastMeal: null, refusals: 0, losses: [], doses: [], ...change },
})

/** A tank with a water of its own and nobody in it, likewise. */
export const tankFacts = (change: Partial<TankFacts> = {}): TankFacts => ({
  ...{ tankId: 't1', code: 'R1-01', kind: 'glass', systemId: 'sys', rack: 'R1', shelf: 1, position: 1, netVolumeL: 60, purpose: null, state: null, zoneId: null, isRetired: false, agents: [] },
  water: { id: 't1', isAlone: true, kind: 'fresh', tempC: 25, salinityPpt: 0.3, ph: 7.5, alkalinityMeqL: 3 },
  ...{ lots: [], perhaps: [], looks: [], losses: [], fights: [], readings: [], doses: [], decisions: [], ...change },
})

/** A look at which all was well, likewise. */
export const lookAt = (change: Partial<Look> = {}): Look => ({ id: 'l', on: '2031-05-04', number: 1, ate: 'all', signs: [], marks: [], answers: [], counts: [], seen: null, expected: 10, note: null, atMs: 0, recordedAtMs: 0, ...change })
