import { array, type InferType } from 'yup'
import { optionalDay } from '../fields/days.schema'
import { bounds, optionalMeasure, optionalText, strictObject, text, whole } from '../fields/fields.schema'

/** What the sender did with fish of a line, version 2 of the packing list; all of it may be left out. */
export const toldFields = () => ({
  held: strictObject({ days: whole('Days held', 0, 9999), of: whole('Days of the hold', 0, 9999), school: optionalText('School of holding', bounds.name).optional() })
    .nullable()
    .optional()
    .default(undefined),
  agents: array()
    .of(strictObject({ agent: text('Agent', bounds.name), lastOn: optionalDay('Last day of an agent').optional() }))
    .typeError('Agents must be a list')
    .max(20, 'At most 20 agents')
    .optional(),
  lastFedOn: optionalDay('Last fed').optional(),
})

export interface ToldOfLine {
  held?: { days: number; of: number; school?: string | null | undefined } | null | undefined
  agents?: { agent: string; lastOn?: string | null | undefined }[] | undefined
  lastFedOn?: string | null | undefined
}

/** What the sender says of the water the fish came out of, and of how to take them in. */
export const waterFields = () =>
  strictObject({
    tempC: optionalMeasure('Temperature', '°C', -2, 45).optional(),
    salinityPpt: optionalMeasure('Salinity', 'ppt', 0, 60).optional(),
    ph: optionalMeasure('pH', '', 3, 11).optional(),
    alkalinityMeqL: optionalMeasure('Alkalinity', 'meq/L', 0, 20).optional(),
  })

export type ToldWater = InferType<ReturnType<typeof waterFields>>

/** One list of several that belong together: number n of so many. */
export const partFields = () => strictObject({ n: whole('Part', 1, 99), of: whole('Parts', 1, 99) })

/** Says in words what the sender did with fish; empty where nothing was told. */
export function toldWords({ held, agents, lastFedOn }: ToldOfLine): string[] {
  return [
    ...(held ? [`held there ${held.days} of ${held.of} days${held.school ? `, ${held.school}` : ''}`] : []),
    ...(agents && agents.length > 0 ? [`agents there: ${agents.map(({ agent, lastOn }) => `${agent}${lastOn ? ` until ${lastOn}` : ''}`).join(', ')}`] : []),
    ...(lastFedOn ? [`last fed ${lastFedOn}`] : []),
  ]
}
