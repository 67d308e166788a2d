import type { Pending } from '../commands/pending'
import type { RecordLoss } from '../ledger/ledger.schema'
import type { RecordCheck } from '../rounds/rounds.schema'
import type { Touch } from './eventsOf'

/** A touch at a tank that nobody waits for. */
export type TankTouch = Extract<Touch, { command: 'recordCheck' | 'recordLoss' }>

/** Of what waits on a device: the touches at tanks, in their order. A form waits for its answer, and shows nothing before. */
export function tankTouches(pending: readonly Pending[]): TankTouch[] {
  return pending.filter(({ isTouch }) => isTouch).flatMap(({ command, params, key, input }, index): TankTouch[] => {
    // What happened in one moment stands in the order of recording.
    const id = `${String(index).padStart(6, '0')} ${key}`
    if (command === 'recordCheck') return [{ command, key: id, input: input as RecordCheck }]
    return command === 'recordLoss' ? [{ command, key: id, tankId: params.tankId ?? '', input: input as RecordLoss }] : []
  })
}
