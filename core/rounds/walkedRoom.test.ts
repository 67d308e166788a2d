import { expect, test } from '@jest/globals'
import { tries } from '../testing/tries'
import { walkRoom, type DayOf, type Outbreak, type Walked } from '../testing/walkedRoom'

const before = 21
const rules = ['act', 'watch', 'any sign', 'two days'] as const
type RuleName = (typeof rules)[number]
const says = (rule: RuleName, { level, anySign, twoDays }: DayOf['levels'][number]): boolean => ({ act: level === 'act', watch: level !== 'quiet', 'any sign': anySign, 'two days': twoDays })[rule]

/** How often a rule begins to call for somebody, in a week of a room where nothing is wrong; and tanks it calls for on a day. */
function inHealth({ days }: Walked, rule: RuleName): { episodes: number; tanks: number } {
  const counted = days.filter(({ day }) => day >= before)
  const begun = counted.flatMap(({ day, levels }) => levels.filter((now, index) => says(rule, now) && !says(rule, days[day - 1]?.levels[index] ?? now))).length
  return { episodes: (begun / counted.length) * 7, tanks: counted.reduce((sum, { levels }) => sum + levels.filter((now) => says(rule, now)).length, 0) / counted.length }
}

/** Days from the beginning of an outbreak until a rule first calls for one of its tanks. */
function until({ days, begins }: Walked, rule: RuleName): number {
  const found = days.find(({ day, levels }) => day >= begins.day && begins.tanks.some((tank) => says(rule, levels[tank] as DayOf['levels'][number])))
  return found ? found.day - begins.day : Infinity
}

const sorted = (values: readonly number[]): number[] => [...values].sort((a, b) => a - b)
const at = (values: readonly number[], share: number): number => sorted(values)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN
const mean = (values: readonly number[]): number => values.reduce((sum, each) => sum + each, 0) / values.length
const one = (value: number): string => value.toFixed(1)

const [healthyRooms, sickRooms] = [tries(40, 2), tries(60, 5)]

test('a walked room: false acts a week and days to detection, beside two rules of thumb', () => {
  const healthy = Array.from({ length: healthyRooms }, (_, seed) => walkRoom(seed + 1, before + 56, 'none', before))
  const of = (rule: RuleName) => ({ episodes: mean(healthy.map((room) => inHealth(room, rule).episodes)), tanks: mean(healthy.map((room) => inHealth(room, rule).tanks)) })
  const noted = mean(healthy.flatMap(({ days }) => days.map((day) => day.noted)))
  const lost = mean(healthy.flatMap(({ days }) => days.map((day) => day.lost)))
  const [act, watch, any, two] = rules.map(of) as [ReturnType<typeof of>, ReturnType<typeof of>, ReturnType<typeof of>, ReturnType<typeof of>]
  const lines = [`healthy, 64 tanks, something noted in ${one(noted)} of them and ${one(lost)} losses a day: episodes of act a week ${one(act.episodes)}, any sign ${one(any.episodes)} (${one(any.tanks)} tanks a day), two days running ${one(two.episodes)}; at watch ${one(watch.tanks)} tanks a day`]
  const found = Object.fromEntries((['spots', 'refusal', 'ammonia', 'ammonia unread'] as Outbreak[]).map((outbreak) => {
    const rooms = Array.from({ length: sickRooms }, (_, seed) => walkRoom(1000 + seed, before + 30, outbreak, before))
    const days = Object.fromEntries(rules.map((rule) => [rule, rooms.map((room) => until(room, rule))])) as Record<RuleName, number[]>
    lines.push(`${outbreak}, days until noticed, median (90 %): ${rules.map((rule) => `${rule} ${at(days[rule], 0.5)} (${at(days[rule], 0.9)})`).join(', ')}`)
    return [outbreak, days]
  })) as Record<Outbreak, Record<RuleName, number[]>>
  if (process.env.CRATE_LONG) process.stdout.write(`${lines.join('\n')}\n`)

  // What the table of the rules says, as far as one invented room is like another: docs/rounds.md.
  expect([noted > 8 && noted < 16, lost > 0.5 && lost < 1.5]).toEqual([true, true])
  expect(act.episodes).toBeLessThan(2.5)
  expect(any.episodes).toBeGreaterThan(10 * act.episodes)
  expect(two.episodes).toBeGreaterThan(3 * act.episodes)
  expect(watch.tanks).toBeLessThan(12)
  expect([at(found.spots.act, 0.5) <= 9, at(found.spots.watch, 0.5) <= 6]).toEqual([true, true])
  expect([at(found.refusal.act, 0.5) <= 6, at(found.refusal.watch, 0.5) <= 2]).toEqual([true, true])
  expect([at(found.ammonia.act, 0.5) <= 7, at(found.ammonia.watch, 0.5) <= 4]).toEqual([true, true])
  expect(at(found['ammonia unread'].act, 0.5)).toBeLessThanOrEqual(9)
})
