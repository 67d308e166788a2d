import { urgencyAt, type DueItem } from '../due/due'
import { plural } from '../words/plural'
import type { PairingView, ToDecide } from './holdsView'

const ofHolds = { kind: 'hold' as const, to: '/holds', sinceMs: null, done: null }

/** Signs and breaches that wait for a word: once, however many. */
export function decideDue(asked: readonly Pick<ToDecide, 'word' | 'tankCode' | 'lastMs'>[]): DueItem[] {
  const [first] = asked
  if (!first) return []
  const about = [first.word, first.tankCode].filter(Boolean).join(', ')
  return [{ ...ofHolds, id: 'hold decide', what: asked.length === 1 ? 'one thing to decide' : `${asked.length} things to decide`, detail: 'until then no hold on that water is ready', about, where: null, sinceMs: first.lastMs, byMs: null, urgency: 'soon' }]
}

/** Fish that may be let go: once, however many. */
export function readyDue(ready: readonly { species: string; tankCode: string }[]): DueItem[] {
  const [first] = ready
  if (!first) return []
  return [{ ...ofHolds, id: 'hold ready', what: ready.length === 1 ? 'ready: let them go' : `${plural(ready.length, 'group is ready', 'groups are ready')}: let them go`, detail: 'or the next fish that come beside them begin their days again', about: `${first.tankCode} ${first.species}${ready.length > 1 ? ' and others' : ''}`, where: null, byMs: null, urgency: 'soon' }]
}

/** The day on which the hold of a tank may be ready, for calendars: not before, and nobody promises it. */
export const holdDayDue = ({ tankId, tankCode, about, atMs }: { tankId: string; tankCode: string; about: string; atMs: number }): DueItem => ({
  ...{ ...ofHolds, kind: 'hold day', id: `hold day ${tankId}`, what: 'hold may be ready', detail: 'not before this day', about, where: tankCode, byMs: atMs, urgency: 'later' },
})

/** The first planned look of a pairing that nobody made, and which of them it is; undefined once all are. */
export function nextLook(looks: PairingView['looks']): (PairingView['looks'][number] & { nth: number }) | undefined {
  const index = looks.findIndex(({ isMade }) => !isMade)
  const look = looks[index]
  return look && { ...look, nth: index + 1 }
}

/** The next look that a pairing asks for; a missed one is asked for now. */
export function pairingDue({ id, state, tankCode, lots, looks }: Pick<PairingView, 'id' | 'state' | 'tankCode' | 'lots' | 'looks'>, nowMs: number): DueItem[] {
  const look = nextLook(looks)
  if (state !== 'running' || !look) return []
  return [{ ...ofHolds, id: `hold pairing ${id} ${look.h}`, what: `pairing: look ${look.nth} of ${looks.length}`, detail: look.isMissed ? 'missed; look now' : null, about: lots.join(' with '), where: tankCode, to: `/room/${tankCode}`, byMs: look.dueAtMs, urgency: urgencyAt(look.dueAtMs, nowMs) }]
}
