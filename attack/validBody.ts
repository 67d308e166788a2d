import type { Random } from './random'

/** What of a schema is needed to write a body that it takes. */
interface Part {
  type: string
  fields?: Record<string, Part>
  innerType?: Part
  spec: { nullable: boolean; optional: boolean }
  tests: readonly { OPTIONS?: { name?: string; message?: unknown; params?: Record<string, unknown> } }[]
}

/** Ids that stand in the room, by the field that may name them. */
export type Pools = Record<string, readonly string[]>

/**
 * Writes a body that a schema takes, at an end of what it allows as often as in between. Ids are those of the room, so
 * that what is written gets past the schema and into the books.
 */
export function validBody(schema: unknown, random: Random, pools: Pools): unknown {
  return valueOf(schema as Part, '', random, pools)
}

function valueOf(part: Part, name: string, random: Random, pools: Pools): unknown {
  if (part.spec.nullable && random.chance(0.25)) return null
  if (part.fields) return Object.fromEntries(Object.entries(part.fields).flatMap(([field, inner]) => (inner.spec.optional && random.chance(0.4) ? [] : [[field, valueOf(inner, field, random, pools)]])))
  if (part.type === 'array') return listOf(part, name, random, pools)
  if (part.type === 'boolean') return random.chance(0.5)
  if (part.type === 'number') return numberOf(part, name, random)
  if (part.type === 'mixed') return random.pick(wordsOf(part))
  return textOf(part, name, random, pools)
}

const paramOf = (part: Part, test: string): number | undefined => part.tests.find(({ OPTIONS }) => OPTIONS?.name === test)?.OPTIONS?.params?.[test] as number | undefined

/** The words of a closed list stand in what its schema says of a wrong one. */
function wordsOf(part: Part): string[] {
  const said = String(part.tests.find(({ OPTIONS }) => OPTIONS?.name === 'choice')?.OPTIONS?.message ?? '')
  return said.split('must be one of: ')[1]?.split(', ') ?? ['unknown']
}

function listOf(part: Part, name: string, random: Random, pools: Pools): unknown[] {
  const [least, most] = [paramOf(part, 'min') ?? 0, paramOf(part, 'max') ?? 3]
  const length = random.chance(0.03) ? Math.min(most, 200) : Math.min(most, least + random.below(3))
  const values = Array.from({ length }, () => (part.innerType ? valueOf(part.innerType, name.replace(/s$/, ''), random, pools) : null))
  return typeof values[0] === 'string' ? [...new Set(values)] : values
}

function numberOf(part: Part, name: string, random: Random): number {
  if (/AtMs$/.test(name)) return Date.now() - random.below(random.chance(0.1) ? 3_000_000_000 : 3_000_000)
  if (name === 'version') return 1 + random.below(3)
  if (name === 'stepIndex' || name === 'roundNumber') return random.below(3)
  const [least, most] = [paramOf(part, 'min') ?? 0, paramOf(part, 'max') ?? 100]
  const isWhole = part.tests.some(({ OPTIONS }) => OPTIONS?.name === 'integer')
  const value = random.pick([least, most, least + (most - least) * random.share(), least + (Math.min(most, least + 12) - least) * random.share()])
  return isWhole ? Math.round(value) : value
}

const names = ['Cherry barb', 'Kuhli loach', 'Öresund', 'Élodie', '山田の魚', 'Рыба', 'قرش', 'Koi 🐟', "O'Brien; DROP", '%_\\', '=1+1', 'x'.repeat(80)]

function textOf(part: Part, name: string, random: Random, pools: Pools): string {
  const pool = pools[name] ?? pools[name.replace(/Id$/, '')]
  if (pool && pool.length > 0) return random.pick(pool)
  const most = paramOf(part, 'max') ?? 64
  if (name === 'code' || name === 'rack') return `Z${random.below(99)}`
  if (name === 'image') return 'AAAA'
  if (name === 'timeZone') return random.pick(['UTC', 'Europe/Oslo', 'Asia/Kathmandu'])
  if (name === 'pin') return String(1000 + random.below(9000))
  return random.pick(random.chance(0.1) ? ['y'.repeat(most)] : names).slice(0, most)
}
