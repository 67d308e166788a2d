import { meets } from '../../core/commands/things'
import type { Changes } from '../events/changes'
import { dueSources } from '../../core/due/dueSources'
import type { DueService } from './due.service'

/** Touches that come together are reckoned together. */
const gatherMs = 250

interface Collaborators {
  changes: Changes
  due: DueService
  now: () => number
  /** Whether there is a room to ask still. */
  isOpen: () => boolean
  onError: (error: unknown) => void
}

/**
 * Tells devices when work that waits has become another: the clock strip stands on every screen, and would be read anew
 * by all of them after every touch, though few touches change it. Nobody listening, nothing is reckoned.
 */
export function tellDue({ changes, due, now, isOpen, onError }: Collaborators): void {
  let [timer, told]: [NodeJS.Timeout | null, string | null] = [null, null]
  function reckon(): void {
    timer = null
    if (!isOpen()) return
    try {
      const { items, broken } = due.view(now())
      const stands = JSON.stringify([items, broken])
      if (stands !== told) changes.tell({ command: 'due', params: {}, touched: ['due'] })
      told = stands
    } catch (error) {
      // A touch that was recorded is not to end the process because of what shows it.
      onError(error)
    }
  }
  changes.listen(({ touched }) => {
    // Whoever comes later reads for themselves how it stands then.
    if (changes.devices() === 0) told = null
    else if (timer === null && meets(touched, dueSources)) {
      timer = setTimeout(reckon, gatherMs)
      timer.unref()
    }
  })
}
