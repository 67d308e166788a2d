import { groupBy } from '../collections/groupBy'
import { byText } from '../contacts/contact'
import { addDays, daysBetween } from '../time/daysBetween'

/** When work comes round again. */
export interface ChoreRule {
  kind: ChoreRuleKind
  /** *every*, *fixed*: so many days. *once* comes round no more. */
  days?: number
  /** *weekdays*: 1 is Monday, 7 Sunday. */
  weekdays?: readonly number[]
  /** *arrivals*: after so many fish. */
  fish?: number
  /** *fixed*, *weekdays*: done so many days early it counts for the day. */
  earlyDays?: number
}
export const choreRuleKinds = ['every', 'fixed', 'weekdays', 'arrivals', 'once'] as const
export type ChoreRuleKind = (typeof choreRuleKinds)[number]

/** Things of one kind that are used up, and how many. */
export interface ItemCount {
  item: string
  count: number
}
export interface ChoreAt {
  place: string
  uses?: readonly ItemCount[]
}
export interface RecurringChore {
  chore: string
  rule: ChoreRule
  startOn: string
  places: readonly ChoreAt[]
}
export interface ChoresAsked {
  on: string
  chores: readonly RecurringChore[]
  done?: readonly { chore: string; place: string; on: string }[]
  arrivals?: readonly { on: string; fish: number }[]
  stock?: readonly ItemCount[]
}
export interface DueChore {
  chore: string
  place: string
  dueOn: string
  lateDays: number
}
export interface ChoresDue {
  due: DueChore[]
  /** What to take along for all that is due. */
  carry: ItemCount[]
  /** What of it is not in the store room. */
  short: { item: string; missing: number }[]
}

/**
 * Says which work is due at which place, and what to carry there. However often it was missed, it is due once.
 * Source: docs/chores.md#when-work-is-due.
 * @example choresDue({ on: '2031-05-09', chores: [{ chore: 'lamp', rule: { kind: 'every', days: 3 }, startOn: '2031-05-01', places: [{ place: 'D1' }] }] }).due[0].lateDays // 8
 */
export function choresDue({ on, chores, done = [], arrivals = [], stock = [] }: ChoresAsked): ChoresDue {
  const last = new Map<string, string>()
  for (const each of done) if (each.on <= on && each.on > (last.get(placeKey(each)) ?? '')) last.set(placeKey(each), each.on)
  const met = arrivals.filter((each) => each.on <= on)
  const rows = chores.flatMap(({ chore, rule, startOn, places }) =>
    places.flatMap(({ place, uses = [] }) => {
      const dueOn = nextOn(rule, startOn, last.get(placeKey({ chore, place })) ?? null, met)
      return dueOn === null || dueOn > on ? [] : [{ chore, place, dueOn, lateDays: daysBetween(dueOn, on), uses }]
    }),
  )
  const carry = [...groupBy(rows.flatMap(({ uses }) => uses), ({ item }) => item)].map(([item, uses]) => ({ item, count: uses.reduce((sum, { count }) => sum + count, 0) })).sort((a, b) => byText(a.item, b.item))
  const onHand = new Map(stock.map(({ item, count }) => [item, count]))
  return {
    due: rows.map(({ uses: _uses, ...row }) => row).sort((a, b) => byText(a.dueOn, b.dueOn) || byText(a.chore, b.chore) || byText(a.place, b.place)),
    carry,
    short: carry.map(({ item, count }) => ({ item, missing: count - (onHand.get(item) ?? 0) })).filter(({ missing }) => missing > 0),
  }
}

const placeKey = ({ chore, place }: { chore: string; place: string }): string => JSON.stringify([chore, place])

/**
 * The day on which work is due next at one place.
 * @param lastOn - when it was last done there; null for never.
 * @param arrivals - of days up to today.
 * @returns null where nobody can tell yet (too few fish came), or no calendar day is left.
 */
export function nextOn(rule: ChoreRule, startOn: string, lastOn: string | null, arrivals: readonly { on: string; fish: number }[]): string | null {
  const { days = 1, weekdays = [], fish = 1, earlyDays = 0 } = rule
  if (rule.kind === 'arrivals') return reachedOn(fish, lastOn === null ? (each) => each >= startOn : (each) => each > lastOn, arrivals)
  if (lastOn === null && rule.kind !== 'weekdays') return startOn
  if (rule.kind === 'once') return null
  if (rule.kind === 'every') return addDays(lastOn ?? startOn, days)
  // The first day of the rule after this one.
  const after = lastOn === null ? addDays(startOn, -1) : addDays(lastOn, earlyDays)
  if (after === null) return null
  if (rule.kind === 'fixed') return addDays(startOn, Math.max(0, Math.floor(daysBetween(startOn, after) / days) + 1) * days)
  const from = addDays(after, 1)
  const first = from !== null && from > startOn ? from : startOn
  const [next] = [0, 1, 2, 3, 4, 5, 6].flatMap((offset) => addDays(first, offset) ?? []).filter((each) => weekdays.includes(weekdayOf(each)))
  return next ?? null
}

/** 1 is Monday, 7 Sunday. */
export const weekdayOf = (on: string): number => ((new Date(`${on}T00:00:00Z`).getUTCDay() + 6) % 7) + 1

function reachedOn(fish: number, counts: (on: string) => boolean, arrivals: readonly { on: string; fish: number }[]): string | null {
  const days = [...arrivals].filter(({ on }) => counts(on)).sort((a, b) => byText(a.on, b.on))
  const sums = days.map((_, index) => days.slice(0, index + 1).reduce((sum, each) => sum + each.fish, 0))
  return days[sums.findIndex((sum) => sum >= fish)]?.on ?? null
}
