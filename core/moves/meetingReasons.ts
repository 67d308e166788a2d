import type { MoveReason, SourcesMet } from './move'
import { reason, sourceOf, when, type Move } from './reasons'

/** What a move does to holds and courses, and which sources it brings together. */
export function meetingReasons(move: Move): MoveReason[] {
  const { items, from, to, onWater, isOut, isTank, isOtherWater, occupants, pairings = [] } = move
  const meets = isTank && isOtherWater
  const isHospital = to.purpose === 'hospital'
  const [leftDoubt, reachedDoubt] = [from.doubt ?? 0, to.doubt ?? 0]
  const moved = new Set(items.map(({ lot }) => lot))
  const hasFree = onWater.some(({ heldDays }) => (heldDays ?? null) === null)
  return [
    ...when(meets && !isHospital && onWater.length > 0 && leftDoubt >= 2 && reachedDoubt < leftDoubt, reason('lead', 'sick-to-well', { from: leftDoubt, to: reachedDoubt })),
    ...occupants.flatMap((there) => when(meets && items.some((item) => isHeldStranger(item, there)), reason('lead', 'held-there', { species: there.animal.species, supplier: there.supplier }))),
    ...items.flatMap(({ lot, heldDays = null, holdDays = null, course = null, restartsOnMove = false }) => [
      ...when(heldDays !== null && (isOut || (meets && !isHospital && hasFree)), reason('lead', 'hold-open', { lot, day: heldDays, of: holdDays })),
      ...(course !== null && (isOut || (meets && !(to.agents ?? []).includes(course.agent))) ? [reason('lead', 'course-open', { lot, agent: course.agent, day: course.day, of: course.of })] : []),
      ...when(meets && restartsOnMove && heldDays !== null && heldDays >= 1, reason('warn', 'own-restart', { lot, days: heldDays })),
      ...when(isTank && (to.ownLost?.[lot] ?? 0) > 0, reason('warn', 'own-restart', { lot, days: to.ownLost?.[lot] ?? 0 })),
    ]),
    ...(meets ? onWater.flatMap(({ lot, heldDays, restarts, lostDays }) => when(!moved.has(lot) && (lostDays ?? heldDays ?? 0) >= 1 && restarts !== false, reason('warn', 'restarts', { lot, days: lostDays ?? heldDays ?? 0 }))) : []),
    ...when(isTank && (to.unprotected ?? []).length > 0, reason('warn', 'unprotected', { lots: to.unprotected ?? [] })),
    ...pairings.flatMap(({ lots: [a, b], state, tankId }) => {
      const isMeeting = meets && to.id !== tankId && ((moved.has(a) && onWater.some(({ lot }) => lot === b)) || (moved.has(b) && onWater.some(({ lot }) => lot === a)))
      return when(isMeeting, reason('lead', 'pairing-open', { a, b, state }))
    }),
    ...(meets ? sourceReasons(move) : []),
  ]
}

/** Somebody who does not come from the same supplier is held there; who is not known is no stranger, and said. */
const isHeldStranger = ({ supplier }: { supplier: string | null }, there: { supplier: string | null; heldDays?: number | null }): boolean =>
  (there.heldDays ?? null) !== null && supplier !== null && there.supplier !== null && there.supplier !== supplier

function sourceReasons({ items, to, onWater, occupants, isPairing, met = [], rules }: Move): MoveReason[] {
  const level = to.sourcesRule ?? rules.sourcesRule
  if (isPairing) return []
  const known = (sources: readonly (string | null | undefined)[]): string[] => [...new Set(sources.flatMap((each) => each ?? []))]
  const [movers, residents] = [known(items.map(sourceOf)), known(onWater.map(({ source }) => source))]
  return movers.flatMap((a) =>
    residents.flatMap((b): MoveReason[] => {
      const isSaid = occupants.some((there) => sourceOf(there) === b && items.some((item) => sourceOf(item) === a && isHeldStranger(item, there)))
      if (a === b || isSaid) return []
      const { state, days } = metOf(met, a, b)
      if (state === 'passed') return []
      if (state === 'together') return when((days ?? 0) < rules.metDays, reason('warn', 'sources-lately', { a, b, days: days ?? 0 }))
      return level === 'off' ? [] : [reason(level, 'sources', { a, b, state })]
    }),
  )
}

/** How two sources stand to each other; those of which nothing is recorded never met. */
export const metOf = (met: readonly SourcesMet[], a: string, b: string): Pick<SourcesMet, 'state' | 'days'> => met.find((each) => (each.a === a && each.b === b) || (each.a === b && each.b === a)) ?? { state: 'never', days: null }
