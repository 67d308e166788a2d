import { showSet, markedUnits } from '../units/units'
import { saltToAddG } from '../water/salt'
import type { ChoreKind, ChorePlace } from './chores.schema'
import type { ChoreRule } from './choresDue'

/** The water that is changed: what it is kept at, null where nobody says. */
export interface ChangedWater {
  tempC: number | null
  salinityPpt: number | null
}

/** From so salty on, fresh water is no water change. */
const saltyPpt = 1

/** What a chore asks for at a place, in words; figures stand in them marked. */
export function choreAsks(kind: ChoreKind, { litres, fromTankId }: Pick<ChorePlace, 'litres' | 'fromTankId'>, water: ChangedWater | null, sourceCode: string | null): string | null {
  if (kind === 'decor') return 'soiled decor comes to the shop, is bleached and rinsed there, never at the customer’s'
  if (kind === 'visit') return 'soiled decor comes back to the shop: never bleached there'
  if (kind !== 'water change' || litres === null) return null
  const at = [water?.tempC == null ? null : showSet('temperature', water.tempC, markedUnits), water?.salinityPpt == null || water.salinityPpt < saltyPpt ? null : showSet('salinity', water.salinityPpt, markedUnits)].filter((each) => each !== null).join(', ')
  const much = showSet('volume', litres, markedUnits)
  if (fromTankId !== null) return `${much} with water of ${sourceCode ?? 'another tank'}: a contact between both`
  const saltG = water?.salinityPpt == null || water.salinityPpt < saltyPpt ? null : saltToAddG(litres, 0, water.salinityPpt, water.tempC ?? 25)
  return `${much}${at === '' ? '' : ` at ${at}`}${saltG === null ? '' : `: ${saltWords(saltG)} of salt mix`}`
}

const saltWords = (grams: number): string => (grams < 995 ? `${Math.round(grams / 5) * 5} g` : `${(grams / 1000).toFixed(2)} kg`)

const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const
const days = (count: number): string => (count === 1 ? 'every day' : `every ${count} days`)

/** How a chore comes round, in words. */
export function ruleWords({ kind, days: each = 1, weekdays = [], fish = 1 }: { [Field in keyof ChoreRule]: ChoreRule[Field] | null }): string {
  if (kind === 'every') return `${days(each ?? 1)} after it was done`
  if (kind === 'fixed') return `${days(each ?? 1)}, by the calendar`
  if (kind === 'weekdays') return [...(weekdays ?? [])].sort((a, b) => a - b).map((day) => weekdayNames[day - 1] ?? '').join(', ')
  return kind === 'arrivals' ? `after every ${fish ?? 1} fish that come` : 'once'
}
