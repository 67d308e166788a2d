import { array, type InferType } from 'yup'
import { identifier, optionalWhole, strictObject, text, whole, yesNo } from '../fields/fields.schema'

const version = () => whole('Version', 0, 1_000_000_000)
const rackName = () => text('Rack', 8)

/** Tanks change their places together: one command with the version of each. Codes stay on the glass. */
export const arrangeTanksSchema = strictObject({
  tanks: array()
    .of(strictObject({ id: identifier('Tank'), rack: rackName(), shelf: whole('Shelf', 1, 30), position: whole('Position', 1, 99), version: version() }).required('A tank is missing'))
    .typeError('Tanks must be a list')
    .defined('Tanks are missing')
    .nonNullable('Tanks are missing')
    .min(1, 'No tank is named')
    .max(100, 'At most 100 tanks at once'),
})
export type ArrangeTanks = InferType<typeof arrangeTanksSchema>

/** The floor is a grid of half metres. */
export const mostSteps = 200
const step = (label: string) => whole(label, 0, mostSteps)

/** Where racks stand on the floor, and how many shelves and places they have; version 0 of one that nobody placed yet. */
export const arrangeRacksSchema = strictObject({
  racks: array()
    .of(strictObject({ rack: rackName(), shelves: whole('Shelves', 1, 30), perShelf: whole('Places on a shelf', 1, 99), x: optionalWhole('Across', 0, mostSteps), y: optionalWhole('Down', 0, mostSteps), isTurned: yesNo('Turned'), version: version() }).required('A rack is missing'))
    .typeError('Racks must be a list')
    .defined('Racks are missing')
    .nonNullable('Racks are missing')
    .min(1, 'No rack is named')
    .max(100, 'At most 100 racks at once'),
})
export type ArrangeRacks = InferType<typeof arrangeRacksSchema>

/** Where hands are washed and buckets filled: the whole list, as it is to be. */
export const placeSinksSchema = strictObject({
  sinks: array().of(strictObject({ x: step('Across'), y: step('Down') }).required('A sink is missing')).typeError('Sinks must be a list').defined('Sinks are missing').nonNullable('Sinks are missing').max(20, 'At most 20 sinks'),
})
export type PlaceSinks = InferType<typeof placeSinksSchema>
