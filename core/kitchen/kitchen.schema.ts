import type { InferType } from 'yup'
import { day } from '../fields/days.schema'
import { bounds, choice, identifier, instant, optionalIdentifier, optionalText, optionalWhole, strictObject, text } from '../fields/fields.schema'
import { stockChangeFields, type StockChanged } from '../stock/stock.schema'

/** What is done of a feed, in its order. */
export const kitchenSteps = ['thaw', 'soak', 'give', 'out'] as const
export type KitchenStep = (typeof kitchenSteps)[number]

/** Something of a feed is done. Of a food that is taken out of the freezer, *pieces* come off its stock. */
export const tickKitchenSchema = strictObject({
  feedOn: day('Day'),
  feedId: identifier('Feed'),
  step: choice('Step', kitchenSteps),
  /** The food's id, the rack, or minutes after the feed; *all* for soaking. */
  what: text('What', 64),
  pieces: optionalWhole('Pieces', 0, 100_000),
  happenedAtMs: instant('Time it happened'),
})
export type TickKitchen = InferType<typeof tickKitchenSchema>
export const undoTickSchema = strictObject({})

/** Why the stock of a food became another: a feed took it out, or that was taken back. */
export type StockWhy = StockChanged | 'thawed' | 'not thawed'
/** Pieces of a food: counted anew, come in, or thrown away. */
export const changeFoodStockSchema = strictObject(stockChangeFields())
export type ChangeFoodStock = InferType<typeof changeFoodStockSchema>

/** How fish are fed otherwise; *every other day* is said of a tank, the others of a lot. */
export const orderKinds = ['conditioning', 'medicated', 'without food', 'every other day'] as const
export type OrderKind = (typeof orderKinds)[number]
/** For so many days at most, the first of them included. Nobody goes without food because it was forgotten. */
export const mostOrderDays: Readonly<Record<OrderKind, number | null>> = { conditioning: null, medicated: 60, 'without food': 14, 'every other day': null }

export const orderFeedingSchema = strictObject({
  kind: choice('How', orderKinds),
  lotId: optionalIdentifier('Lot'),
  tankId: optionalIdentifier('Tank'),
  /** The food with the medicine in it. */
  foodId: optionalIdentifier('Food'),
  days: optionalWhole('Days', 1, 365),
  note: optionalText('Note', bounds.note),
})
  .test('whom', '', ({ kind, lotId, tankId }, { createError }) => {
    if (!orderKinds.includes(kind)) return true
    const [asked, other, word] = kind === 'every other day' ? ([tankId, lotId, 'tank'] as const) : ([lotId, tankId, 'lot'] as const)
    return (asked !== null && other === null) || createError({ path: `${word}Id`, message: `Say which ${word}: ${kind} is said of a ${word}` })
  })
  .test('days', '', ({ kind, days }, { createError }) => {
    const most = orderKinds.includes(kind) ? mostOrderDays[kind] : null
    return most === null || (typeof days === 'number' && days <= most) || createError({ path: 'days', message: `Say for how many days, at most ${most}` })
  })
  .test('food', '', ({ kind, foodId }, { createError }) => !orderKinds.includes(kind) || (kind === 'medicated') === (foodId !== null) || createError({ path: 'foodId', message: kind === 'medicated' ? 'Say which food has the medicine in it' : 'Only medicated food is named' }))
export type OrderFeeding = InferType<typeof orderFeedingSchema>
export const endFeedingSchema = strictObject({})
