import { array, lazy, mixed, number, ValidationError, type ISchema } from 'yup'
import { choice, strictObject, text, whole } from '../fields/fields.schema'
import { validated } from '../fields/validated'
import { mealAnswers, phaseCounts, phaseKinds, stepKinds, type Gate, type HoldPolicy } from './policy'
import { policyProblems } from './policyProblems'

// A policy of the house's own as it comes in: what no clock could be played by is refused with where it stands.

const days = (label: string) => number().typeError(`${label} must be a number of days`)
const figure = (label: string) => number().typeError(`${label} must be a number`).nullable().defined(`${label} is missing (null leaves it open)`)
const listOf = <T>(label: string, of: ISchema<T>, most: number) => array().of(of).typeError(`${label} must be a list`).max(most, `${label} may have at most ${most} entries`)

const gateShapes: Readonly<Record<Gate['gate'], Parameters<typeof strictObject>[0]>> = {
  eating: { answers: whole('Answers', 1, 30), atLeast: choice('At least', mealAnswers), withinDays: whole('Within days', 0, 365) },
  looked: { withinDays: whole('Within days', 0, 365) },
  steps: { of: choice('Steps of', stepKinds), times: whole('Times', 1, 100), everyH: number().typeError('Hours must be a number').moreThan(0, 'Hours must be above 0').max(2000, 'Hours must be at most 2000').optional(), lateH: number().typeError('Hours must be a number').min(0, 'Hours must not be below 0').max(500, 'Hours must be at most 500').optional() },
  reading: { what: text('Reading', 40), lo: figure('From'), hi: figure('To'), withinDays: whole('Within days', 0, 365) },
  fillingOut: {},
  cleared: {},
  pairing: {},
}
const gate = () => lazy((value: unknown) => {
  const name = value !== null && typeof value === 'object' && !Array.isArray(value) ? (value as { gate?: unknown }).gate : undefined
  const shape = typeof name === 'string' && Object.hasOwn(gateShapes, name) ? gateShapes[name as Gate['gate']] : undefined
  return shape ? strictObject({ gate: text('Gate', 20), ...shape }) : mixed().test('gate', 'There is no such gate', () => false)
})

const level = strictObject({ what: text('Reading', 40), lo: figure('From'), hi: figure('To'), gapDays: whole('Days between readings', 0, 60) }).optional().default(undefined)
const phase = strictObject({ id: text('Phase', 40), kind: choice('Kind', phaseKinds), days: days('Days').required('Days are missing'), counts: mixed<string>().optional().test('counts', `Days count as one of: ${phaseCounts.join(', ')}`, (value) => value === undefined || (phaseCounts as readonly string[]).includes(value)), level, gates: listOf('Gates', gate() as unknown as ISchema<unknown>, 8).optional(), wishDays: days('Days').min(0, 'Days must not be below 0').max(730, 'Days must be at most 730').optional() }).required('A phase is missing')
const back = { back: text('Phase to begin again', 40) }
const rule = (shape: Parameters<typeof strictObject>[0]) => strictObject({ ...shape, ...back }).nullable().default(null)

const policySchema = strictObject({
  id: text('Id', 40).matches(/^[A-Za-z][A-Za-z0-9-]*$/, 'Id takes letters, digits and -'),
  name: text('Name', 60),
  start: choice('Start', ['placed', 'opened'] as const),
  phases: listOf('Phases', phase, 12).required('Phases are missing'),
  onSign: rule({ reach: choice('Reach', ['lot', 'tank', 'water'] as const), words: listOf('Words', text('Word', 40), 60).required('Words are missing') }),
  onAddition: rule({ by: choice('By', ['water', 'tank'] as const), from: choice('From', ['any', 'held'] as const) }),
  onTreatment: rule({}),
  release: listOf('Release', gate() as unknown as ISchema<unknown>, 8).required('What release asks for is missing'),
  agents: listOf('Agents', text('Agent', 40), 10).required('Agents are missing'),
})

export type ReadPolicy = { ok: true; policy: HoldPolicy } | { ok: false; problems: string[] }

/** Reads a policy of the house's own; says what is wrong with one that is none, or that never ends. */
export function readPolicy(value: unknown): ReadPolicy {
  try {
    const policy = validated(policySchema as never, value) as HoldPolicy
    const problems = policyProblems(policy)
    return problems.length > 0 ? { ok: false, problems } : { ok: true, policy }
  } catch (error) {
    if (error instanceof ValidationError) return { ok: false, problems: error.errors }
    throw error
  }
}
