import type { InferType } from 'yup'
import { bounds, choice, optionalMeasure, strictObject, text, whole } from '../fields/fields.schema'

export const waters = ['fresh', 'brackish', 'marine'] as const
export type Water = (typeof waters)[number]
export const tankKinds = ['glass', 'tub'] as const
export type TankKind = (typeof tankKinds)[number]
/** What a tank is there for; one without a purpose may be used for anything. */
export const tankPurposes = ['sale', 'quarantine', 'hospital', 'grow-out', 'display', 'customer'] as const
export type TankPurpose = (typeof tankPurposes)[number]
/** Whether a tank may take fish: an empty tank is not a clean tank. */
export const tankStates = ['ready', 'not clean after illness', 'out of order'] as const
export type TankState = (typeof tankStates)[number]

/** What makes catching easy or hard. */
export const tankCorners = ['square', 'rounded'] as const
export type TankCorners = (typeof tankCorners)[number]
export const tankDecors = ['bare', 'some', 'heavy'] as const
export type TankDecor = (typeof tankDecors)[number]

/** Whether the tanks of a system hang on one water. What nobody said counts as shared, because that is what harms no fish. */
export const sharings = ['one water', 'each its own'] as const
export type Sharing = (typeof sharings)[number]

/** A new system with its tanks, coded by rack: `R1-01`, `R1-02` and so on. */
export const addSystemSchema = strictObject({
  name: text('Name', bounds.name),
  water: choice('Water', waters),
  sharing: choice('Water of its tanks', sharings),
  sumpL: optionalMeasure('Sump', 'L', 0, 100_000),
  rack: text('Rack', 8).matches(/^[A-Z][A-Z0-9]{0,7}$/, 'Rack must be a capital letter, then letters or digits, such as R1'),
  tankCount: whole('Tanks', 1, 99),
  perShelf: whole('Tanks on a shelf', 1, 20),
  tankKind: choice('Kind of tank', tankKinds),
  netVolumeL: optionalMeasure('Net volume of a tank', 'L', 0.5, 100_000),
})
export type AddSystem = InferType<typeof addSystemSchema>
