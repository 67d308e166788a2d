import { minuteOf } from '../contacts/contact'
import type { CourseSpecies } from '../rounds/expectedCourse'
import type { RunOfLot } from '../rounds/lotEvents'
import type { RoundRules } from '../rounds/roundRules'
import type { Arrive, Course, HoldEvent, Move } from './holdEvents'
import { usualAfter, usualAlways, type UsualSigns } from './usualSigns'

/** What is known of lots that says what is usual for them. */
export interface UsualFor {
  runsOf(lotId: string): readonly RunOfLot[]
  speciesOf(lotId: string): CourseSpecies
  rules: RoundRules
}
/** A movement so soon after a run, or before it, is part of it. */
const sameMin = 120

const covers = ({ startedAtMs, outAtMs }: RunOfLot, at: number): boolean => at >= minuteOf(startedAtMs) - sameMin && (outAtMs === null || at <= minuteOf(outAtMs) + sameMin)

/** What is usual after fish came to a place: by the run that brought them, or by the move alone. */
function afterMovement({ kind, lot, at }: Arrive | Move, { runsOf, speciesOf, rules }: UsualFor): UsualSigns[] {
  const species = speciesOf(lot)
  const run = runsOf(lot).find((each) => each.kind === 'acclimation' && covers(each, at))
  const school = run?.schoolKey ?? null
  return [
    ...usualAfter(kind === 'arrive' || run?.isDelivery ? 'arrival' : 'move', school, species, rules),
    ...(run?.isCrossing ? usualAfter('crossing', school, species, rules) : []),
    ...(kind === 'arrive' ? usualAlways(species, rules) : []),
  ]
}

/**
 * Signs that are to be expected: of every lot, after what happened to it. A hold notes them and begins nothing again.
 * @param events - the movements of a room; others are passed over.
 */
export function courseEvents(events: readonly HoldEvent[], usual: UsualFor): Course[] {
  return events
    .filter((event): event is Arrive | Move => event.kind === 'arrive' || event.kind === 'move')
    .flatMap((event) => afterMovement(event, usual).map((course, index): Course => ({ kind: 'course', id: `${event.id}:usual${index}`, at: event.at, ...(event.recordedAt === undefined ? {} : { recordedAt: event.recordedAt }), lot: event.lot, tank: event.kind === 'arrive' ? event.tank : event.to, ...course })))
}
