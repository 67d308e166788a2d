import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { hazardAt } from '../pools/hazard'
import type { LevelAsked, Neighbour, TankLevelName } from '../rounds/levelReason'
import type { LookAtTank, LotInTank, SeenSign } from '../rounds/seenInTank'
import type { Ate, Sign } from '../rounds/rounds.schema'
import { tankLevel } from '../rounds/tankLevel'

// An invented room that is walked once a day: 64 tanks on 15 waters, small things noted in some of them, a fish lost now and
// then, new lots every week; and, where one is asked for, an outbreak. What the rule of the round makes of it stands beside
// two rules of thumb: any sign is act, and the same two days running.

const [tanksInRoom, watersInRoom, lotsAWeek, lookDays] = [64, 15, 7, 10]
/** A small thing is noted for so many days on average; newly, in so many of a hundred tanks a day. */
const [noteDays, notePerDay] = [2.2, 0.09]
const clearShare = 0.12
const notable: readonly (readonly [Sign | Ate, number])[] = [['most', 10], ['some', 6], ['none', 2], ['hiding', 5], ['chased', 4], ['pale', 3], ['frayed fins', 3], ['clamped fins', 2], ['wound', 2], ['spits food', 2], ['fast breathing', 1], ['rubbing', 1], ['thin', 2], ['stringy faeces', 1], ['dark', 1]]

export type Outbreak = 'none' | 'spots' | 'refusal' | 'ammonia' | 'ammonia unread'

interface Lot {
  id: number
  fish: number
  cameOn: number
}
interface Note {
  what: Sign | Ate
  severity: number
  lot: number | null
  untilDay: number
}
interface Tank {
  water: number
  lots: Lot[]
  note: Note | null
  /** Of the outbreak: since when signs can be seen on it; infected before. */
  infectedOn: number | null
  looks: { day: number; signs: SeenSign[]; ate: { ate: Ate; lot?: string }[] }[]
  losses: { day: number; quantity: number; cause: string }[]
}

/** How a rule stood on a day. */
export interface DayOf {
  day: number
  levels: { level: TankLevelName; anySign: boolean; twoDays: boolean }[]
  /** Fish that the outbreak has killed so far. */
  dead: number
  lost: number
  noted: number
}

export interface Walked {
  days: DayOf[]
  /** Tanks that the outbreak is in from the beginning. */
  begins: { day: number; tanks: number[] }
}

/** Walks a room for so many days; an outbreak begins after `before` of them. */
export function walkRoom(seed: number, forDays: number, outbreak: Outbreak, before = 21, noise = 1): Walked {
  const generator = xoroshiro128plus(seed)
  const chance = (): number => (generator.next() >>> 0) / 2 ** 32
  const within = (least: number, most: number): number => least + Math.floor(chance() * (most - least + 1))
  const oneOf = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)] as T
  let lotId = 0
  const newLot = (day: number): Lot => ({ id: (lotId += 1), fish: within(5, 18), cameOn: day })
  const tanks = Array.from({ length: tanksInRoom }, (_, index): Tank => ({ water: index % watersInRoom, lots: Array.from({ length: within(1, 2) }, () => newLot(-within(20, 120))), note: null, infectedOn: null, looks: [], losses: [] }))
  // An outbreak needs a water of several tanks, and for a refusal a tank of two lots.
  const [at] = tanks.flatMap((tank, index) => (tank.lots.length === 2 ? [index] : []))
  const begins = { day: before, tanks: outbreak === 'none' ? [] : outbreak.startsWith('ammonia') ? tanks.flatMap(({ water }, index) => (water === 0 ? [index] : [])) : [at ?? 0] }
  const sick = begins.tanks[0] ?? 0
  const readings = new Map<number, { day: number; value: number }[]>()
  const walked: DayOf[] = []
  let dead = 0

  for (let day = 0; day < forDays; day += 1) {
    const since = day - before
    const isOut = outbreak !== 'none' && since >= 0
    const nh3 = 0.004 + (isOut && outbreak.startsWith('ammonia') ? 0.005 * since : 0)
    live(day)
    if (isOut) spread(day, since)
    const noted = tanks.filter((tank, index) => look(tank, index, day, isOut, nh3)).length
    if (isOut && outbreak === 'ammonia' && since % 2 === 0) readings.set(0, [...(readings.get(0) ?? []), { day, value: Math.max(0, nh3 + (chance() + chance() + chance() - 1.5) * 0.008) }])
    walked.push({ day, levels: day < before - 1 ? [] : judge(day), dead, lost: tanks.reduce((sum, { losses }) => sum + losses.filter((loss) => loss.day === day).length, 0), noted })
  }
  return { days: walked, begins }

  /** A day of the healthy room: fish come, now and then one dies, small things begin. */
  function live(day: number): void {
    for (let lot = 0; lot < lotsAWeek; lot += 1) {
      if (chance() >= 1 / 7) continue
      const tank = oneOf(tanks.filter((_, index) => !begins.tanks.includes(index)))
      tank.lots = [...tank.lots.slice(-1), newLot(day)]
    }
    for (const tank of tanks) {
      for (const lot of tank.lots) {
        if (chance() >= lot.fish * 0.0006 * hazardAt(day - lot.cameOn)) continue
        tank.losses.push({ day, quantity: 1, cause: chance() < 0.15 ? 'jumped' : 'found dead' })
        lot.fish = Math.max(1, lot.fish - 1)
      }
      if (tank.note && tank.note.untilDay <= day) tank.note = null
      if (tank.note || chance() >= notePerDay * noise) continue
      const total = notable.reduce((sum, [, weight]) => sum + weight, 0)
      let left = chance() * total
      const [what] = notable.find(([, weight]) => (left -= weight) < 0) ?? ['hiding' as const]
      const isMeal = what === 'none' || what === 'some' || what === 'most'
      // A tank that eats nothing at one look does so once: fish that go on refusing are no small thing.
      tank.note = { what, severity: chance() < clearShare ? 2 : 1, lot: chance() < 0.3 ? oneOf(tank.lots).id : null, untilDay: day + (isMeal ? 1 : Math.max(1, Math.round(-Math.log(1 - chance()) * noteDays))) }
    }
  }

  /** What an outbreak does in a day. */
  function spread(day: number, since: number): void {
    if (outbreak === 'spots') {
      const first = tanks[sick] as Tank
      first.infectedOn ??= day
      const onWater = tanks.filter(({ water }) => water === first.water)
      const shedding = onWater.filter(({ infectedOn }) => infectedOn !== null && day - infectedOn >= 5).length
      for (const tank of onWater) if (tank.infectedOn === null && chance() < 0.12 * shedding) tank.infectedOn = day
      for (const tank of onWater) if (tank.infectedOn !== null && day - tank.infectedOn >= 9 && chance() < 0.5) kill(tank, day)
    }
    if (outbreak === 'refusal' && since >= 14 && chance() < 0.6) kill(tanks[sick] as Tank, day)
  }

  function kill(tank: Tank, day: number): void {
    tank.losses.push({ day, quantity: 1, cause: 'found dead' })
    dead += 1
  }

  /** Somebody looks at a tank; answers whether anything was noted. */
  function look(tank: Tank, index: number, day: number, isOut: boolean, nh3: number): boolean {
    const signs: SeenSign[] = []
    const ate: { ate: Ate; lot?: string }[] = [{ ate: 'all' }]
    const { note } = tank
    if (note && (note.what === 'most' || note.what === 'some' || note.what === 'none')) ate[0] = { ate: note.what }
    else if (note) signs.push({ sign: note.what as Sign, severity: note.severity, lot: note.lot === null ? null : String(note.lot) })
    // What newcomers show, and does not yet mean anything.
    for (const lot of tank.lots) {
      const age = day - lot.cameOn
      if (age <= 1 && chance() < 0.6) signs.push({ sign: 'hiding', severity: 1, lot: String(lot.id) })
      if (age === 0 && chance() < 0.4) signs.push({ sign: 'pale', severity: 1, lot: String(lot.id) })
      if (age <= 1 && chance() < 0.5) ate.push({ ate: age === 0 ? 'none' : 'some', lot: String(lot.id) })
    }
    if (isOut && outbreak === 'spots' && tank.infectedOn !== null && day - tank.infectedOn >= 4 && chance() < 0.75) signs.push({ sign: 'spots', severity: day - tank.infectedOn >= 6 ? 2 : 1, lot: null })
    if (isOut && outbreak === 'refusal' && index === sick && chance() < 0.85) ate.push({ ate: chance() < 0.8 ? 'none' : 'some', lot: String(tank.lots[0]?.id) })
    if (isOut && outbreak.startsWith('ammonia') && tank.water === 0) {
      const strength = Math.min(0.7, Math.max(0, (nh3 - 0.018) * 40))
      if (chance() < strength) signs.push({ sign: chance() < 0.7 ? 'fast breathing' : 'at the surface', severity: nh3 > 0.04 ? 2 : 1, lot: null })
      if (chance() < strength * 0.6) signs.push({ sign: 'clamped fins', severity: 1, lot: null })
    }
    tank.looks = [{ day, signs, ate }, ...tank.looks].slice(0, lookDays)
    return signs.length > 0 || ate.some((each) => each.ate !== 'all')
  }

  /** What each rule says of every tank on a day; where there is an outbreak, of those on its water. */
  function judge(day: number): DayOf['levels'] {
    const isAsked = ({ water }: Tank): boolean => outbreak === 'none' || water === tanks[sick]?.water
    const asked = tanks.map((tank): LevelAsked => (!isAsked(tank) ? { lots: [], rounds: [] } : {
      lots: tank.lots.map((lot): LotInTank => ({ lot: String(lot.id), fish: lot.fish, days: day - lot.cameOn, inHold: false, species: { shareSeen: 0.9, firstMealDays: 1 }, events: day - lot.cameOn < 20 ? [{ event: 'arrival', school: 'drip', hoursAgo: (day - lot.cameOn) * 24 + 3 }] : [] })),
      stockedOnWater: tanks.filter(({ water }) => water === tank.water).length,
      rounds: tank.looks.map((seen): LookAtTank => ({ hoursAgo: (day - seen.day) * 24, signs: seen.signs, ate: seen.ate })),
      losses: tank.losses.filter((loss) => day - loss.day <= 7).map((loss) => ({ hoursAgo: (day - loss.day) * 24 + 1, quantity: loss.quantity, cause: loss.cause })),
      readings: (readings.get(tank.water) ?? []).filter((each) => day - each.day <= 10).map(({ day: on, value }) => ({ kind: 'nh3N' as const, hoursAgo: (day - on) * 24, value })),
    }))
    const alone = asked.map((each) => tankLevel(each))
    return tanks.map((tank, index) => {
      const neighbours = alone.flatMap(({ shows, level }, other): Neighbour[] => (other !== index && tanks[other]?.water === tank.water ? [{ tank: String(other), shows, isAct: level === 'act' }] : []))
      const isAny = (seen: Tank['looks'][number] | undefined): boolean => seen !== undefined && (seen.signs.length > 0 || seen.ate.some(({ ate }) => ate === 'none' || ate === 'some'))
      const { level } = tankLevel({ ...(asked[index] as LevelAsked), neighbours })
      return { level, anySign: isAny(tank.looks[0]), twoDays: isAny(tank.looks[0]) && isAny(tank.looks[1]) }
    })
  }
}
