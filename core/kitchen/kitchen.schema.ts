import type { InferType } from 'yup'
import { bounds, choice, identifier, instant, optionalIdentifier, optionalText, optionalWhole, strictObject, text, whole } from '../fields/fields.schema'

/** A calendar day, such as 2031-05-04. */
const day = (label: string) => text(label, 10).test('day', `${label} must be a day such as 2031-05-04`, (value) => !value || (/^\d{4}-\d\d-\d\d$/.test(value) && !Number.isNaN(Date.parse(value))))

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

export const stockWhys = ['counted', 'bought', 'thrown away', 'thawed', 'not thawed'] as const
export type StockWhy = (typeof stockWhys)[number]
/** Pieces of a food: counted anew, come in, or thrown away. */
export const changeFoodStockSchema = strictObject({ why: choice('What happened', ['counted', 'bought', 'thrown away'] as const), pieces: whole('Pieces', 0, 100_000) })
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
