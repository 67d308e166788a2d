import { groupBy } from '../collections/groupBy'
import { byText } from '../contacts/contact'
import type { Look, SignDecision, TankFacts } from '../facts/facts'
import type { MovementKind } from '../ledger/movement'
import { plural } from '../words/plural'
import type { HandoverRow, HandoverSection } from './handoverView'

export type RowMark = 'harm' | 'watch'

/** Fish that somebody else moved, lost, counted or took in. */
export interface MovedFish {
  kind: MovementKind
  quantity: number
  species: string
  /** Codes of tanks; null where it is no tank. */
  from: string | null
  to: string | null
  cause: string | null
  reason: string | null
  by: string
}
export interface Happened {
  moved: readonly MovedFish[]
  /** Tanks with what was seen and decided there since. */
  tanks: readonly Pick<TankFacts, 'code' | 'looks' | 'decisions'>[]
  pins: readonly { tankCode: string; words: string; by: string }[]
  runs: readonly { id: string; number: number; species: string; isEnded: boolean; by: string }[]
  /** Places of chores that were done, and racks that were fed. */
  chores: readonly { chore: string; place: string; by: string }[]
  fed: readonly { feed: string; on: string; racks: number; by: string }[]
  /** Breaches and whatever was done against a rule. */
  against: readonly { words: string; to: string | null; by: string }[]
  /** What else was written, by the command's name. */
  written: readonly { name: string; times: number }[]
}

const row = (words: string, more: Partial<HandoverRow> = {}): HandoverRow => ({ words, detail: null, to: null, mark: null, ...more })
const sumOf = (rows: readonly { quantity: number }[]): number => rows.reduce((sum, { quantity }) => sum + quantity, 0)
const names = (rows: readonly { by: string }[]): string => [...new Set(rows.map(({ by }) => by))].sort(byText).join(', ')
const tank = (code: string | null): string | null => (code === null ? null : `/room/${code}`)

/** What happened, in the order in which it matters to whoever comes in. Empty sections are left out. */
export function handoverSections(happened: Happened, sinceMs: number): HandoverSection[] {
  const { moved } = happened
  const sections = [
    { title: 'Lost', rows: lost(moved) },
    { title: 'Seen at tanks', rows: seen(happened.tanks, sinceMs) },
    { title: 'Decided about signs', rows: happened.tanks.flatMap(({ code, decisions }) => decisions.filter(({ atMs }) => atMs > sinceMs).map((decision) => decided(code, decision))) },
    { title: 'Against a rule', rows: happened.against.map(({ words, to, by }) => row(words, { detail: by, to, mark: 'watch' })) },
    { title: 'Notes on the glass', rows: happened.pins.map(({ tankCode, words, by }) => row(`${tankCode}: ${words}`, { detail: by, to: tank(tankCode) })) },
    { title: 'On the bench', rows: happened.runs.map(({ id, number, species, isEnded, by }) => row(`run ${number} ${isEnded ? 'ended' : 'begun'}: ${species}`, { detail: by, to: `/bench/runs/${id}` })) },
    { title: 'Fish that came, moved, left', rows: [...came(moved), ...moves(moved), ...left(moved), ...counted(moved)] },
    { title: 'Kitchen and chores', rows: [...happened.fed.map(({ feed, racks, by }) => row(`${feed}: ${plural(racks, 'rack')} fed`, { detail: by, to: '/kitchen' })), ...chores(happened.chores)] },
    { title: 'Also written', rows: also(happened.written) },
  ]
  return sections.filter(({ rows }) => rows.length > 0)
}

function lost(moved: readonly MovedFish[]): HandoverRow[] {
  const losses = moved.filter(({ kind }) => kind === 'loss' || kind === 'dead-in-bag')
  return [...groupBy(losses, ({ from, species }) => JSON.stringify([from, species]))].map(([, same]) => {
    const [{ from = null, species = '' } = {}] = same
    const causes = [...new Set(same.flatMap(({ kind, cause }) => (kind === 'dead-in-bag' ? ['dead in the bag'] : (cause ?? []))))]
    return row(`${from ?? 'in bags'}: ${sumOf(same)} ${species}`, { detail: [causes.join(', '), names(same)].filter(Boolean).join('; '), to: tank(from), mark: 'harm' })
  })
}

/** The newest look of each tank at which something was seen, not eaten or noted. */
function seen(tanks: Happened['tanks'], sinceMs: number): HandoverRow[] {
  return tanks.flatMap(({ code, looks }) => {
    const since = looks.filter(({ recordedAtMs }) => recordedAtMs > sinceMs)
    const words = [...new Set(since.flatMap(lookWords))]
    return words.length === 0 ? [] : [row(`${code}: ${words.join('; ')}`, { to: tank(code), mark: since.some(({ signs }) => signs.length > 0) ? 'watch' : null })]
  })
}

const lookWords = ({ ate, signs, note }: Look): string[] => [...(signs.length > 0 ? [signs.join(', ')] : []), ...(ate === 'none' || ate === 'some' ? [`ate ${ate}`] : []), ...(note === null ? [] : [`“${note}”`])]

const decidedAs = { confirmed: 'confirmed, holds on its water began again', dismissed: 'dismissed', known: 'taken as known' } as const
const decided = (code: string, { sign, as, by, note }: SignDecision): HandoverRow => row(`${code}: ${sign} ${decidedAs[as]}`, { detail: [by, note].filter(Boolean).join(': '), to: tank(code) })

function came(moved: readonly MovedFish[]): HandoverRow[] {
  const arrived = moved.filter(({ kind, to }) => (kind === 'arrive' || kind === 'born') && to !== null)
  return arrived.length === 0 ? [] : [row(`${sumOf(arrived)} fish came`, { detail: `${[...groupBy(arrived, ({ to }) => to)].map(([to, same]) => `${to ?? ''} ${sumOf(same)} ${[...new Set(same.map(({ species }) => species))].join(', ')}`).slice(0, 6).join('; ')}` })]
}

function moves(moved: readonly MovedFish[]): HandoverRow[] {
  return [...groupBy(moved.filter(({ kind, from, to }) => kind === 'move' && to !== null && from !== to), ({ from, to }) => JSON.stringify([from, to]))].map(([, same]) => {
    const [{ from = null, to = null } = {}] = same
    return row(`${from ?? 'from bags'} to ${to ?? ''}: ${[...groupBy(same, ({ species }) => species)].map(([species, rows]) => `${sumOf(rows)} ${species}`).join(', ')}`, { detail: names(same), to: tank(to) })
  })
}

function left(moved: readonly MovedFish[]): HandoverRow[] {
  const gone = moved.filter(({ kind }) => kind === 'release')
  return [...groupBy(gone, ({ reason }) => reason)].map(([reason, same]) => row(`${sumOf(same)} fish ${reason ?? 'left'}`, { detail: names(same) }))
}

function counted(moved: readonly MovedFish[]): HandoverRow[] {
  return [...groupBy(moved.filter(({ kind }) => kind === 'count-correction'), ({ from, to }) => from ?? to)].map(([code, same]) => row(`${code ?? ''} counted: ${same.map(({ from, quantity, species }) => `${from === null ? '+' : '−'}${quantity} ${species}`).join(', ')}`, { detail: names(same), to: tank(code) }))
}

const chores = (done: Happened['chores']): HandoverRow[] => [...groupBy(done, ({ chore }) => chore)].map(([chore, same]) => row(`${chore}: ${same.map(({ place }) => place).join(', ')}`, { detail: names(same), to: '/chores' }))

/** Commands that no other section tells of, in words; whatever is not named here is looked up in the audit. */
const otherWords: Readonly<Record<string, (times: number) => string>> = {
  createCrate: (times) => `${plural(times, 'crate')} announced`,
  recordBags: (times) => `bags opened, in ${plural(times, 'entry', 'entries')}`,
  closeCrate: (times) => `${plural(times, 'crate')} closed`,
  makePlan: (times) => `${plural(times, 'plan')} made`,
  bookStocktake: (times) => `${plural(times, 'stocktake')} booked`,
  bookSales: (times) => `${plural(times, 'day')} of sales booked`,
  beginIntroduction: (times) => `${plural(times, 'introduction')} begun`,
  changeLimit: (times) => `${plural(times, 'house limit')} changed`,
  orderFeeding: (times) => `${plural(times, 'lot or tank', 'lots or tanks')} fed otherwise`,
}
const also = (written: Happened['written']): HandoverRow[] => written.flatMap(({ name, times }) => (otherWords[name] ? [row(otherWords[name](times))] : []))
