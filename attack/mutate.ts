import type { Random } from './random'

/** What no field expects, and what every object has. */
const strange: (() => unknown)[] = [
  ...[null, true, false, 0, -1, 0.5, -0, 1e308, Number.MAX_SAFE_INTEGER + 1, '', ' ', '0', 'null', '\ud800', 'a\udfff', '\u0000', '\u202e', 'toString', 'constructor', '__proto__', 'hasOwnProperty', '../../etc', "';--", '{{7*7}}'].map((value) => () => value),
  () => [],
  () => ({}),
  () => [null],
  () => [[]],
  () => [{}],
  () => ({ toString: 1, valueOf: null }),
  () => JSON.parse('{"__proto__":{"role":"lead"}}') as unknown,
  () => Array.from({ length: 500 }, () => null),
  () => Array.from({ length: 300 }, () => ({})),
  () => 'z'.repeat(20_000),
  () => nested(40),
]

const nested = (depth: number): unknown => (depth === 0 ? 1 : [nested(depth - 1)])

/** Every place in a value, as the path of keys that leads there. */
function placesOf(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (value === null || typeof value !== 'object') return [path]
  const entries = Array.isArray(value) ? value.slice(0, 3).map((each, index) => [index, each] as const) : Object.entries(value)
  return [path, ...entries.flatMap(([key, each]) => placesOf(each, [...path, key]))]
}

/** Changes a body in one to three places: something strange there, the field gone, one too many, or an end of what numbers can be. */
export function mutated(body: unknown, random: Random): unknown {
  let changed = structuredClone(body)
  for (let times = 1 + random.below(3); times > 0; times -= 1) changed = changedAt(changed, random.pick(placesOf(changed)), random)
  return changed
}

function changedAt(body: unknown, path: readonly (string | number)[], random: Random): unknown {
  if (path.length === 0) return random.chance(0.2) ? random.pick(strange)() : withMore(body, random)
  const holder = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string | number, unknown>)[key], body) as Record<string | number, unknown>
  const key = path.at(-1) as string | number
  const old = holder[key]
  if (random.chance(0.15) && !Array.isArray(holder)) delete holder[key]
  else if (typeof old === 'number' && random.chance(0.4)) holder[key] = random.pick([old + 1, old - 1, -old, old * 1000, old + 0.5])
  else if (Array.isArray(old) && random.chance(0.5)) holder[key] = [...old, random.pick(strange)(), ...old]
  else holder[key] = random.pick(strange)()
  return body
}

const withMore = (body: unknown, random: Random): unknown => (body !== null && typeof body === 'object' && !Array.isArray(body) ? { ...body, [random.pick(['extra', 'id', 'constructor', 'role', 'x'.repeat(200)])]: random.pick(strange)() } : body)
