import { urgencyAt, type DueItem } from '../due/due'
import type { KitchenView } from './kitchenView'
import { nextStep, type NextStep } from './nextStep'

const hourMs = 3_600_000
/** What nobody ticked off so long after its time was done without a word, or will not be done any more. */
const forgottenMs = 3 * hourMs

const words = ({ step, what }: NextStep): string => {
  const names = what.join(', ')
  if (step === 'thaw') return `${names} out of the freezer`
  if (step === 'soak') return 'mix and soak the bowls'
  return step === 'give' ? `feed ${names}` : `leftovers of ${names} out`
}

/** What a feed asks for next, as work that waits; nothing once it is done, or nobody ticks it off. */
export function feedDue(view: Pick<KitchenView, 'foods' | 'soaks' | 'soaked' | 'racks' | 'outs' | 'feed'>, nowMs: number): DueItem[] {
  const { feed } = view
  const next = nextStep(view)
  if (next.step === 'nothing' || next.step === 'done' || nowMs > (next.byMs ?? feed.atMs) + forgottenMs) return []
  const { on, feedId, name } = feed
  return [{ id: `feed ${on} ${feedId} ${next.step} ${next.what.join(' ')}`, kind: 'feed', what: words(next), detail: null, about: name, where: null, to: `/kitchen?feed=${feedId}`, sinceMs: null, byMs: next.byMs, urgency: urgencyAt(next.byMs, nowMs), done: null }]
}
