import { packingListFormat } from './packingListName'

/** What is known of one kind of fish that leaves; whatever is null or left out is not known. */
export interface CardLine {
  species: string
  count: number
  bags: number
  perBag?: number | null
  origin?: string | null
  strain?: string | null
  identity?: string | null
  sizeCm?: number | null
  ateBefore?: string | null
  /** Days of its hold that it served here; null when it was not held. */
  held?: { days: number; of: number; school: string | null } | null
  /** What stood in its water here, and on which day last. */
  agents?: readonly { agent: string; lastOn: string | null }[] | null
  lastFedOn?: string | null
}

export interface CardWater {
  tempC?: number | null | undefined
  salinityPpt?: number | null | undefined
  ph?: number | null | undefined
  alkalinityMeqL?: number | null | undefined
}

/** What goes along with fish that leave. Never on it: who takes them, who packed them, what they cost. */
export interface Leaving {
  room: string
  /** ISO 8601. */
  packedAt: string
  /** The same as people here read it. */
  packedLocal: string
  water?: CardWater | null
  lines: readonly CardLine[]
  method?: string | null
  note?: string | null
}

export interface CardCode {
  /** What the code holds: a whole packing list of some of the lines, ASCII only. */
  text: string
  bytes: number
  /** Smallest QR version that holds it at level M; null above 40. */
  version: number | null
  species: string[]
  /** Fields that had to stay out. */
  dropped: string[]
  fits: boolean
}

export interface TakeAlongCard {
  json: Record<string, unknown>
  text: string[]
  codes: CardCode[]
}

/** Bytes that a code holds at most: version 20 at level M, 42 mm at 0.4 mm a module. ISO/IEC 18004. */
export const mostBytesInCode = 666
/** Bytes in byte mode at level M, versions 1 to 40. ISO/IEC 18004. */
const capacities = [14, 26, 42, 62, 84, 106, 122, 152, 180, 213, 251, 287, 331, 362, 412, 450, 504, 560, 624, 666, 711, 779, 857, 911, 997, 1059, 1125, 1190, 1264, 1370, 1452, 1538, 1628, 1722, 1809, 1911, 1989, 2099, 2213, 2331]
/** What a code does without, one after the other, until it fits; never the water, the hold or the agents. */
const dispensable = ['note', 'method', 'lastFedOn', 'sizeCm', 'strain', 'identity', 'perBag', 'ateBefore'] as const
const versionTwoOfLine = ['held', 'agents', 'lastFedOn'] as const

/**
 * Writes the card that goes along with fish: as a packing list that the next room can read, as text, and as QR codes, each of
 * which is a whole list of its lines. Source: docs/formats.md.
 * @param mostBytes - bytes that one code may hold.
 */
export function takeAlongCard(leaving: Leaving, mostBytes = mostBytesInCode): TakeAlongCard {
  return { json: listOf(leaving, leaving.lines), text: textOf(leaving), codes: codesOf(leaving, mostBytes) }
}

function listOf({ room, packedAt, water, method, note }: Leaving, lines: readonly CardLine[], part: { n: number; of: number } | null = null): Record<string, unknown> {
  const written = lines.map(({ species, count, bags, perBag, origin, strain, identity, sizeCm, ateBefore, held, agents, lastFedOn }) =>
    known({ ...{ species, count, bags, perBag, origin, strain, identity, sizeCm, ateBefore }, held: held && { days: held.days, of: held.of, school: held.school }, agents: agents?.map(({ agent, lastOn }) => ({ agent, lastOn })), lastFedOn }),
  )
  const ours = water && { tempC: water.tempC, salinityPpt: water.salinityPpt, ph: water.ph, alkalinityMeqL: water.alkalinityMeqL }
  const list = known({ format: packingListFormat, version: 1, part, supplier: room, packedAt, water: ours, method, note, lines: written })
  const isSecond = 'water' in list || 'method' in list || written.some((line) => versionTwoOfLine.some((field) => field in line))
  return { ...list, version: isSecond ? 2 : 1 }
}

/** Leaves out what nobody knows, at every depth. */
function known(fields: object): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([name, value]: [string, unknown]) => {
      if (value === null || value === undefined) return []
      if (Array.isArray(value)) return value.length === 0 ? [] : [[name, value.map((each: unknown) => (typeof each === 'object' && each !== null ? known(each) : each))]]
      if (typeof value !== 'object') return [[name, value]]
      const inner = known(value)
      return Object.keys(inner).length === 0 ? [] : [[name, inner]]
    }),
  )
}

/** The list as a code holds it: no spaces, and every letter from U+007F on written out. */
const inCode = (list: Record<string, unknown>): string => JSON.stringify(list).replace(/[\u007f-\uffff]/g, (letter) => `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`)

function codesOf(leaving: Leaving, mostBytes: number): CardCode[] {
  const groups: CardLine[][] = []
  for (const line of leaving.lines) {
    const last = groups.at(-1)
    if (last && inCode(listOf(leaving, [...last, line], { n: 9, of: 9 })).length <= mostBytes) last.push(line)
    else groups.push([line])
  }
  // All in one code needs no part, and is a little shorter for it.
  if (leaving.lines.length > 0 && inCode(listOf(leaving, leaving.lines)).length <= mostBytes) groups.splice(0, groups.length, [...leaving.lines])
  return groups.map((lines, index) => codeOf(leaving, lines, groups.length === 1 ? null : { n: index + 1, of: groups.length }, mostBytes))
}

function codeOf(leaving: Leaving, lines: readonly CardLine[], part: { n: number; of: number } | null, mostBytes: number): CardCode {
  const dropped: string[] = []
  let [whole, rest] = [leaving, lines]
  let text = inCode(listOf(whole, rest, part))
  for (const field of dispensable) {
    if (text.length <= mostBytes) break
    const isOfList = field === 'note' || field === 'method'
    const wasThere = isOfList ? Boolean(whole[field]) : rest.some((line) => line[field] !== null && line[field] !== undefined)
    if (!wasThere) continue
    dropped.push(field)
    if (isOfList) whole = { ...whole, [field]: null }
    else rest = rest.map((line) => ({ ...line, [field]: null }))
    text = inCode(listOf(whole, rest, part))
  }
  const version = capacities.findIndex((bytes) => bytes >= text.length) + 1 || null
  return { text, bytes: text.length, version, species: lines.map(({ species }) => species), dropped, fits: text.length <= mostBytes }
}

function textOf({ room, packedLocal, water, lines, method, note }: Leaving): string[] {
  const figures = waterWords(water ?? {})
  // With one kind its name is said once.
  const about = (species: string, what: string): string => (lines.length === 1 ? `${what.charAt(0).toUpperCase()}${what.slice(1)}` : `${species} ${what}`)
  return [
    `${room} · packed ${packedLocal}`,
    ...lines.map(lineWords),
    ...(figures === '' ? [] : [`Our water: ${figures}`]),
    ...(method ? [`Suggested: ${method}`] : []),
    ...lines.flatMap(({ species, ateBefore, lastFedOn }) => (ateBefore ? [`${about(species, 'eats')}: ${ateBefore}${lastFedOn ? ` (last fed ${lastFedOn})` : ''}`] : [])),
    ...lines.map(({ species, held }) => `${about(species, 'held here')}: ${held ? `${held.days} of ${held.of} days${held.school ? `, ${held.school}` : ''}` : 'not held'}`),
    ...lines.map(({ species, agents }) => `${about(species, 'agents')}: ${agents && agents.length > 0 ? agents.map(({ agent, lastOn }) => `${agent}${lastOn ? ` until ${lastOn}` : ''}`).join(', ') : 'none on record'}`),
    ...(note ? [note] : []),
    'Keep new fish apart and watch them. A record of what was done here, no promise of health.',
  ]
}

function lineWords({ species, count, bags, strain, origin }: CardLine): string {
  return `${count} ${species}${strain ? ` (${strain})` : ''}${origin && origin !== 'unknown' ? `, ${origin}` : ''} · ${bags} ${bags === 1 ? 'bag' : 'bags'}`
}

/** Writes the figures of a water that are known, one decimal at most; empty where none is. */
export function waterWords({ tempC, salinityPpt, ph, alkalinityMeqL }: CardWater): string {
  const figure = (value: number | null | undefined, words: (shown: string) => string): string[] => (value === null || value === undefined ? [] : [words(String(Number(value.toFixed(1))))])
  return [...figure(tempC, (shown) => `${shown} °C`), ...figure(salinityPpt, (shown) => `${shown} ppt`), ...figure(ph, (shown) => `pH ${shown}`), ...figure(alkalinityMeqL, (shown) => `alkalinity ${shown} meq/L`)].join(', ')
}
