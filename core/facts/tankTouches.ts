import type { Pending } from '../commands/pending'
import type { RecordLoss } from '../ledger/ledger.schema'
import type { RecordCheck } from '../rounds/rounds.schema'
import type { Touch } from './eventsOf'

/** A touch at a tank that nobody waits for. */
export type TankTouch = Extract<Touch, { command: 'recordCheck' | 'recordLoss' }>

// What happened in one moment stands in the order of recording.
const idOf = (key: string, index: number): string => `${String(index).padStart(6, '0')} ${key}`
/** The key that a touch which waits is sent with. */
export const keyOfTouch = (id: string): string => id.slice(id.indexOf(' ') + 1)

/** Of what waits on a device: the touches at tanks, in their order. A form waits for its answer, and shows nothing before. */
export function tankTouches(pending: readonly Pending[]): TankTouch[] {
  const touches = pending.filter(({ isTouch }) => isTouch)
  /** A look that is corrected may wait as well; then it goes by its key. */
  const named = (id: string | null): string | null => {
    const index = touches.findIndex(({ key }) => key === id)
    return id === null || index < 0 ? id : idOf(id, index)
  }
  return touches.flatMap(({ command, params, key, input }, index): TankTouch[] => {
    const id = idOf(key, index)
    if (command === 'recordCheck') return [{ command, key: id, input: { ...(input as RecordCheck), replacesId: named((input as RecordCheck).replacesId) } }]
    return command === 'recordLoss' ? [{ command, key: id, tankId: params.tankId ?? '', input: input as RecordLoss }] : []
  })
}
