import type { Pending } from '../commands/pending'
import type { TickKitchen } from './kitchen.schema'
import type { KitchenView, TickView } from './kitchenView'

/** Shows a feed with what was ticked off on this device and has not reached the server. */
export function withPendingTicks(view: KitchenView, pending: readonly Pending[]): KitchenView {
  return pending.reduce((shown, { command, key, params, input }) => {
    if (command === 'undoTick') return withTick(shown, (done) => (done?.id === params.tickId ? null : done))
    const tick = input as TickKitchen
    if (command !== 'tickKitchen' || tick.feedOn !== view.feed.on || tick.feedId !== view.feed.feedId) return shown
    const made: TickView = { id: key, step: tick.step, what: tick.what, pieces: tick.pieces ?? 0, by: '', atMs: tick.happenedAtMs }
    return withTick(shown, (done, step, what) => (done === null && step === tick.step && what === tick.what ? made : done))
  }, view)
}

function withTick(view: KitchenView, done: (now: TickView | null, step: TickView['step'], what: string) => TickView | null): KitchenView {
  return {
    ...view,
    foods: view.foods.map((food) => ({ ...food, done: done(food.done, 'thaw', food.foodId) })),
    soaked: done(view.soaked, 'soak', 'all'),
    racks: view.racks.map((rack) => ({ ...rack, done: done(rack.done, 'give', rack.rack) })),
    outs: view.outs.map((out) => ({ ...out, done: done(out.done, 'out', out.what) })),
  }
}
