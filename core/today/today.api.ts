import { answers, named, read } from '../commands/declare'
import { withPendingToday, type TodayView } from './todayView'

/** What the room needs now. */
export const todayApi = named({
  /** crates, what to prepare, runs, rechecks, fish in buckets and boxes, newcomers, unchecked tanks, not eating, losses, holds */
  readToday: read({ path: '/api/today', access: 'device', about: () => ['house', 'register', 'limit', 'tank', 'look', 'rescue', 'crate', 'bag', 'claim', 'preparation', 'run', 'recheck', 'vessel', 'introduction', 'plan', 'chore', 'kitchen', 'staff'], staysMs: 30_000, withPending: withPendingToday, answer: answers<TodayView>() }),
})
