import type { InferType } from 'yup'
import { bounds, choice, identifier, strictObject, text, whole } from '../fields/fields.schema'
import { probeFaults, probeMeasures } from './probe'

/** A probe that hangs in a tank. *fault* is what a stand-in does. */
export const saveProbeSchema = strictObject({ name: text('Name', bounds.name), tankId: identifier('Tank'), measure: choice('Measures', probeMeasures), everyMin: whole('Minutes', 5, 240), fault: choice('Fault', probeFaults), version: whole('Version', 0, 1_000_000_000) })
export type SaveProbe = InferType<typeof saveProbeSchema>
export const retireProbeSchema = strictObject({ version: whole('Version', 0, 1_000_000_000) })
export type RetireProbe = InferType<typeof retireProbeSchema>
/** Asks every probe whose time has come. */
export const pollProbesSchema = strictObject({})
