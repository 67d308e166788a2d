import { moveCodes, type MoveCode } from './move'
import { shippedMoveRules, sourcesRules, type MoveRules } from './moveRules'

/** What a house changed, as it stands in Setup: single numbers, and levels of single reasons. */
export type MoveRuleChanges = Partial<MoveRules>

/** Reasons whose level a house may set; the others are what the books cannot do, or need a lead. */
export const softCodes: readonly MoveCode[] = moveCodes.slice(moveCodes.indexOf('restarts'))
const softLevels = ['note', 'warn', 'lead', 'off'] as const

/** The rules in force. */
export const withChanges = (changes: MoveRuleChanges): MoveRules => ({ ...shippedMoveRules, ...changes })

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)
const isAmount = (value: unknown): boolean => typeof value === 'number' && Number.isFinite(value) && value >= 0

/**
 * Checks what a house wants to be other than shipped.
 * @returns the changes, or in plain words what is wrong with them.
 * @example readMoveRules({ liftsPerDay: 4, levels: { shares: 'off' } }).ok // true
 */
export function readMoveRules(value: unknown): { ok: true; changes: MoveRuleChanges } | { ok: false; problems: string[] } {
  if (!isRecord(value)) return { ok: false, problems: ['The rules must be one object, such as {"liftsPerDay": 4}'] }
  const problems = Object.entries(value).flatMap(([name, given]) => problemsOf(name, given))
  return problems.length > 0 ? { ok: false, problems } : { ok: true, changes: value as MoveRuleChanges }
}

function problemsOf(name: string, given: unknown): string[] {
  const shipped = (shippedMoveRules as Record<string, unknown>)[name]
  if (shipped === undefined) return [`There is no rule ${name}`]
  if (name === 'sourcesRule') return (sourcesRules as readonly unknown[]).includes(given) ? [] : [`${name} must be one of: ${sourcesRules.join(', ')}`]
  if (name === 'levels') return isRecord(given) ? Object.entries(given).flatMap(([code, level]) => levelProblems(code, level)) : ['levels must be an object, such as {"shares": "off"}']
  if (Array.isArray(shipped)) return Array.isArray(given) && given.length > 0 && given.length <= 20 && given.every(isAmount) ? [] : [`${name} must be a list of numbers`]
  if (isRecord(shipped)) return isRecord(given) && Object.keys(shipped).every((key) => isAmount(given[key])) && Object.keys(given).length === Object.keys(shipped).length ? [] : [`${name} must have numbers for ${Object.keys(shipped).join(', ')}`]
  return isAmount(given) ? [] : [`${name} must be a number of 0 or more`]
}

function levelProblems(code: string, level: unknown): string[] {
  if (!(moveCodes as readonly string[]).includes(code)) return [`There is no reason ${code}`]
  if (!(softCodes as readonly string[]).includes(code)) return [`${code} always needs a lead, or is what the books cannot do`]
  return (softLevels as readonly unknown[]).includes(level) ? [] : [`${code} must be one of: ${softLevels.join(', ')}`]
}
