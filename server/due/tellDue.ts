import { meets, type ThingName } from '../../core/commands/things'
import type { Changes } from '../events/changes'
import type { DueService } from './due.service'

/** Touches that come together are reckoned together. */
const gatherMs = 250

/** What due work comes from; a look at a tank makes none. */
const sources: readonly ThingName[] = ['house', 'limit', 'register', 'tank', 'crate', 'bag', 'claim', 'preparation', 'run', 'recheck']

interface Collaborators {
  changes: Changes
  due: DueService
  now: () => number
  onError: (error: unknown) => void
}

/**
 * Tells devices when work that waits has become another: the clock strip stands on every screen, and would be read anew
 * by all of them after every touch, though few touches change it. Nobody listening, nothing is reckoned.
 */
export function tellDue({ changes, due, now, onError }: Collaborators): void {
  let [timer, told]: [NodeJS.Timeout | null, string | null] = [null, null]
  function reckon(): void {
    timer = null
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
    else if (timer === null && meets(touched, sources)) {
      timer = setTimeout(reckon, gatherMs)
      timer.unref()
    }
  })
}
