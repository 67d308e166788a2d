import type { Prepared } from './prepareChoice'
import { homelessPoints, type Choice } from './tankChoice'

/** One row of an integer programme: lower ≤ Σ values·columns ≤ upper. */
interface Row {
  columns: number[]
  values: number[]
  lower: number
  upper: number
}

/** An integer programme over columns that are 0 or 1, to be made as cheap as it can be. */
export interface ChoiceModel {
  costs: number[]
  rows: Row[]
  /** Points that are paid whatever is chosen. */
  offset: number
  /** Columns of a choice, to begin with. */
  columnsOf(choice: Choice): number[]
  /** The choice that columns stand for. */
  choiceOf(columns: ArrayLike<number>): Choice
}

/** Tanks that no rule and no cost can tell apart, so that it does not matter which of them is used. */
interface TankClass {
  tanks: number[]
  isEmpty: boolean
  /** Lines that may stand there, by number, in order. */
  lines: number[]
}

/**
 * Writes a tank choice as an integer programme.
 *
 * A column for every line and tank stalls: equal empty tanks can be exchanged without end. So empty tanks that are alike
 * are one class, and a group of lines in one of them is named by its first line: `x[i,j]` says that line j stands with
 * line i, and only `x[i,i]` opens a tank. Every arrangement is then written once. Impossible pairs have no column at
 * all, and lines that must not meet are kept apart by whole cliques instead of pair by pair, which is a tighter row.
 * Source: the asymmetric representatives formulation of colouring and bin packing (Campêlo, Campos and Corrêa 2008).
 */
export function buildModel(prepared: Prepared): ChoiceModel {
  const writer = createWriter()
  const classes = withoutDominated(prepared, classesOf(prepared)).flatMap(splitSmall)
  const byLine: { column: number; tankClass: TankClass }[][] = prepared.possible.map(() => [])
  const led: Map<string, number>[] = classes.map((tankClass) => (isLed(tankClass) ? writeEmptyClass(writer, prepared, tankClass, byLine) : writeTank(writer, prepared, tankClass, byLine)))
  const homeless = byLine.map((columns) => {
    // A line that no tank can take is no question.
    if (columns.length === 0) return void writer.pay(homelessPoints)
    const column = writer.column(homelessPoints)
    writer.row([...columns.map((each) => each.column), column], 1, 1)
    return column
  })
  const restarts = writeRestarts(writer, prepared, byLine)
  const zones = writeZones(writer, prepared, byLine)
  const hospital = writeHospital(writer, prepared, classes, led)
  return { ...writer.model, columnsOf, choiceOf }

  function columnsOf(choice: Choice): number[] {
    const columns = writer.model.costs.map(() => 0)
    const set = (column: number | undefined): void => {
      if (column !== undefined) columns[column] = 1
    }
    const taken = new Set<number>()
    for (const [tank, lines] of membersByTank(choice)) {
      const at = seatOf(tank, lines, choice, taken)
      const tankClass = classes[at]
      if (!tankClass) continue
      for (const line of lines) set(led[at]?.get(isLed(tankClass) ? `${lines[0]},${line}` : `${line}`))
      if (!isLed(tankClass)) set(led[at]?.get('opens'))
      const { waterId, zoneId } = prepared.input.tanks[tankClass.tanks[0] ?? 0] ?? { waterId: '', zoneId: null }
      set(restarts.get(waterId))
      set(zones.byZone.get(zoneId ?? ''))
    }
    choice.forEach((tank, line) => tank === null && set(homeless[line]))
    if (!choice.some((tank) => tank !== null && prepared.input.tanks[tank]?.zoneId != null)) set(zones.none)
    if (prepared.hospitals.every((tank) => choice.includes(tank))) set(hospital)
    return columns
  }

  /** The class a group is written in: its tank's own, or one that dominates it and still has a tank free. */
  function seatOf(tank: number, lines: readonly number[], choice: Choice, taken: Set<number>): number {
    const own = classes.findIndex((each) => each.tanks.includes(tank))
    if (own >= 0) return own
    const worse: TankClass = { tanks: [tank], isEmpty: true, lines: [...lines] }
    const at = classes.findIndex((each) => dominates(prepared, each, worse) && each.tanks.some((seat) => !choice.includes(seat) && !taken.has(seat)))
    const seat = classes[at]?.tanks.find((each) => !choice.includes(each) && !taken.has(each))
    if (seat !== undefined) taken.add(seat)
    return at
  }

  function choiceOf(columns: ArrayLike<number>): Choice {
    const isSet = (column: number | undefined): boolean => column !== undefined && (columns[column] ?? 0) > 0.5
    const choice: (number | null)[] = prepared.possible.map(() => null)
    classes.forEach((tankClass, at) => {
      const free = [...tankClass.tanks]
      const tankOf = new Map<string, number>()
      for (const [name, column] of led[at] ?? []) {
        if (name === 'opens' || !isSet(column)) continue
        const [first = '', line = first] = name.split(',')
        const leader = isLed(tankClass) ? first : 'all'
        const tank = tankOf.get(leader) ?? free.shift()
        if (tank === undefined) continue
        tankOf.set(leader, tank)
        choice[Number(line)] = tank
      }
    })
    return choice
  }
}

function membersByTank(choice: Choice): Map<number, number[]> {
  const members = new Map<number, number[]>()
  choice.forEach((tank, line) => tank !== null && members.set(tank, [...(members.get(tank) ?? []), line]))
  return members
}

type Writer = ReturnType<typeof createWriter>

function createWriter() {
  const model: { costs: number[]; rows: Row[]; offset: number } = { costs: [], rows: [], offset: 0 }
  return {
    model,
    column: (cost: number): number => model.costs.push(cost) - 1,
    row: (columns: number[], lower: number, upper: number, values = columns.map(() => 1)): void => void model.rows.push({ columns, values, lower, upper }),
    pay: (points: number): void => void (model.offset += points),
  }
}

// Two systems without anybody in a hold, at the same water and in the same zone, are one as far as points go.
function classesOf({ input, possible, restartPoints, costs }: Prepared): TankClass[] {
  const classes = new Map<string, TankClass>()
  const linesOf = input.tanks.map(() => [] as number[])
  possible.forEach((tanks, line) => tanks.forEach((tank) => linesOf[tank]?.push(line)))
  input.tanks.forEach((tank, index) => {
    const lines = linesOf[index] ?? []
    if (lines.length === 0) return
    const isEmpty = tank.occupants.length === 0
    const restart = restartPoints.get(tank.waterId) ?? 0
    const key = isEmpty
      ? JSON.stringify([restart > 0 ? tank.waterId : '', tank.zoneId, tank.netVolumeL, tank.purpose === 'hospital', lines.map((line) => [line, costs[line]?.[index]])])
      : tank.id
    const known = classes.get(key)
    if (known) known.tanks.push(index)
    else classes.set(key, { tanks: [index], isEmpty, lines })
  })
  return [...classes.values()]
}

/**
 * Leaves out classes of empty tanks that are never needed: where enough tanks stand empty that are as large, in the
 * same zone, restart nobody and cost no line more, a group in a dominated tank can always be put into one of them.
 */
function withoutDominated(prepared: Prepared, classes: TankClass[]): TankClass[] {
  const kept = [...classes]
  // The smallest and dearest first, so that what dominates them is still there.
  const byWorth = classes.filter((each) => each.isEmpty).sort((a, b) => roomOf(prepared, a) - roomOf(prepared, b) || costOf(prepared, b) - costOf(prepared, a))
  for (const tankClass of byWorth) {
    const better = kept.filter((other) => other !== tankClass && dominates(prepared, other, tankClass))
    const claimants = new Set(better.flatMap(({ lines }) => lines))
    if (better.reduce((total, { tanks }) => total + tanks.length, 0) >= claimants.size && better.length > 0) kept.splice(kept.indexOf(tankClass), 1)
  }
  return kept
}

const roomOf = ({ roomG }: Prepared, { tanks }: TankClass): number => roomG[tanks[0] ?? 0] ?? 0
const costOf = ({ costs }: Prepared, { tanks, lines }: TankClass): number => sum(lines.map((line) => costs[line]?.[tanks[0] ?? 0] ?? 0))

function dominates(prepared: Prepared, better: TankClass, worse: TankClass): boolean {
  const { input, costs, restartPoints, hospitals } = prepared
  const [a = 0, b = 0] = [better.tanks[0], worse.tanks[0]]
  const [betterTank, worseTank] = [input.tanks[a], input.tanks[b]]
  if (!better.isEmpty || !worse.isEmpty || !betterTank || !worseTank || hospitals.includes(a)) return false
  const isNoFurtherZone = betterTank.zoneId === null || betterTank.zoneId === worseTank.zoneId
  const isNoRestart = (restartPoints.get(betterTank.waterId) ?? 0) === 0 || betterTank.waterId === worseTank.waterId
  return isNoFurtherZone && isNoRestart && roomOf(prepared, better) >= roomOf(prepared, worse) && worse.lines.every((line) => better.lines.includes(line) && (costs[line]?.[a] ?? 0) <= (costs[line]?.[b] ?? 0) + 1e-9)
}

/** Answers whether groups in a class are named by their first line; worth it only where several tanks are alike. */
const isLed = ({ isEmpty, tanks }: TankClass): boolean => isEmpty && tanks.length > 1

/** Of two or three equal tanks each may as well be written by itself: that takes fewer columns than groups by leader. */
const splitSmall = (tankClass: TankClass): TankClass[] =>
  isLed(tankClass) && 2 * tankClass.tanks.length < tankClass.lines.length ? tankClass.tanks.map((tank) => ({ ...tankClass, tanks: [tank] })) : [tankClass]

function writeEmptyClass(writer: Writer, prepared: Prepared, tankClass: TankClass, byLine: { column: number; tankClass: TankClass }[][]): Map<string, number> {
  const { costs, weights, roomG, conflicts, openPoints } = prepared
  const [tank = 0] = tankClass.tanks
  const capacity = roomG[tank] ?? Infinity
  const columns = new Map<string, number>()
  for (const [at, first] of tankClass.lines.entries()) {
    const opens = writer.column((costs[first]?.[tank] ?? 0) + (openPoints[tank] ?? 0))
    columns.set(`${first},${first}`, opens)
    byLine[first]?.push({ column: opens, tankClass })
    const guests = tankClass.lines.slice(at + 1).filter((line) => !conflicts[first]?.has(line) && (weights[first] ?? 0) + (weights[line] ?? 0) <= capacity)
    for (const line of guests) {
      const column = writer.column((costs[line]?.[tank] ?? 0) + prepared.input.limits.sharePoints)
      columns.set(`${first},${line}`, column)
      byLine[line]?.push({ column, tankClass })
    }
    for (const clique of coveringCliques(guests, conflicts)) writer.row([...clique.map((line) => columns.get(`${first},${line}`) ?? 0), opens], -Infinity, 0, [...clique.map(() => 1), -1])
    const load = guests.map((line) => weights[line] ?? 0)
    if ((weights[first] ?? 0) + sum(load) > capacity) writer.row([...guests.map((line) => columns.get(`${first},${line}`) ?? 0), opens], -Infinity, 0, [...load, (weights[first] ?? 0) - capacity])
  }
  if (tankClass.tanks.length < tankClass.lines.length) writer.row(tankClass.lines.map((line) => columns.get(`${line},${line}`) ?? 0), -Infinity, tankClass.tanks.length)
  return columns
}

/** A tank by itself: a column for every line, and for an empty one a column that opens it. */
function writeTank(writer: Writer, prepared: Prepared, tankClass: TankClass, byLine: { column: number; tankClass: TankClass }[][]): Map<string, number> {
  const { costs, weights, roomG, conflicts, openPoints } = prepared
  const [tank = 0] = tankClass.tanks
  // Everyone but the first in an empty tank pays for sharing: all pay, and opening gives it back once.
  const share = tankClass.isEmpty ? prepared.input.limits.sharePoints : 0
  const columns = new Map(tankClass.lines.map((line) => [`${line}`, writer.column((costs[line]?.[tank] ?? 0) + share)]))
  for (const line of tankClass.lines) byLine[line]?.push({ column: columns.get(`${line}`) ?? 0, tankClass })
  const opens = tankClass.isEmpty ? writer.column((openPoints[tank] ?? 0) - share) : null
  if (opens !== null) writer.row([opens, ...columns.values()], -Infinity, 0, [1, ...tankClass.lines.map(() => -1)])
  const held = (lines: number[], values: number[], most: number): void => {
    const there = lines.map((line) => columns.get(`${line}`) ?? 0)
    if (opens === null) writer.row(there, -Infinity, most, values)
    else writer.row([...there, opens], -Infinity, 0, [...values, -most])
  }
  for (const clique of coveringCliques(tankClass.lines, conflicts)) if (clique.length > 1 || opens !== null) held(clique, clique.map(() => 1), 1)
  const load = tankClass.lines.map((line) => weights[line] ?? 0)
  const capacity = roomG[tank] ?? Infinity
  if (sum(load) > capacity) held(tankClass.lines, load, capacity)
  if (opens !== null) columns.set('opens', opens)
  return columns
}

const sum = (values: number[]): number => values.reduce((total, value) => total + value, 0)

/** Cliques of lines that must not meet, such that every such pair is in one of them and every line in at least one. */
function coveringCliques(lines: readonly number[], conflicts: readonly ReadonlySet<number>[]): number[][] {
  const covered = new Set<string>()
  const cliques: number[][] = []
  const pair = (a: number, b: number): string => (a < b ? `${a},${b}` : `${b},${a}`)
  for (const line of lines) {
    const open = lines.filter((other) => conflicts[line]?.has(other) && !covered.has(pair(line, other)))
    const seeds = open.length === 0 ? (cliques.some((clique) => clique.includes(line)) ? [] : [null]) : open
    for (const seed of seeds) {
      if (seed !== null && covered.has(pair(line, seed))) continue
      const clique = seed === null ? [line] : [line, seed]
      for (const other of lines) if (!clique.includes(other) && clique.every((member) => conflicts[member]?.has(other))) clique.push(other)
      clique.forEach((a, index) => clique.slice(index + 1).forEach((b) => covered.add(pair(a, b))))
      cliques.push(clique)
    }
  }
  return cliques
}

/** A water in which a hold is running costs once, whichever line goes there. */
function writeRestarts(writer: Writer, { input, restartPoints }: Prepared, byLine: { column: number; tankClass: TankClass }[][]): Map<string, number> {
  const columns = new Map<string, number>()
  for (const [waterId, points] of restartPoints) {
    if (points <= 0) continue
    const restart = writer.column(points)
    columns.set(waterId, restart)
    writeOnce(writer, byLine, restart, (tankClass) => input.tanks[tankClass.tanks[0] ?? 0]?.waterId === waterId)
  }
  return columns
}

/** Every zone but the first costs. */
function writeZones(writer: Writer, { input }: Prepared, byLine: { column: number; tankClass: TankClass }[][]): { byZone: Map<string, number>; none: number | undefined } {
  const points = input.limits.zonePoints
  const ids = [...new Set(input.tanks.map(({ zoneId }) => zoneId).filter((zone) => zone !== null))]
  if (points <= 0 || ids.length < 2) return { byZone: new Map(), none: undefined }
  const byZone = new Map(ids.map((zone) => [zone, writer.column(points)]))
  for (const [zone, column] of byZone) writeOnce(writer, byLine, column, (tankClass) => input.tanks[tankClass.tanks[0] ?? 0]?.zoneId === zone)
  const none = writer.column(points)
  writer.row([...byZone.values(), none], 1, Infinity)
  writer.pay(-points)
  return { byZone, none }
}

/** A line stands in one place only, so all its columns together are held by the one that is paid. */
function writeOnce(writer: Writer, byLine: { column: number; tankClass: TankClass }[][], paid: number, isThere: (tankClass: TankClass) => boolean): void {
  for (const columns of byLine) {
    const there = columns.filter(({ tankClass }) => isThere(tankClass)).map(({ column }) => column)
    if (there.length > 0) writer.row([...there, paid], -Infinity, 0, [...there.map(() => 1), -1])
  }
}

/** Using the last empty hospital tank costs. */
function writeHospital(writer: Writer, { input, hospitals }: Prepared, classes: readonly TankClass[], led: readonly Map<string, number>[]): number | undefined {
  const opening = classes.flatMap((tankClass, at) =>
    !tankClass.isEmpty || !hospitals.includes(tankClass.tanks[0] ?? -1) ? [] : isLed(tankClass) ? tankClass.lines.map((line) => led[at]?.get(`${line},${line}`) ?? 0) : [led[at]?.get('opens') ?? 0],
  )
  const reachable = classes.filter((tankClass) => tankClass.isEmpty && hospitals.includes(tankClass.tanks[0] ?? -1)).reduce((total, { tanks }) => total + tanks.length, 0)
  if (opening.length === 0 || reachable < hospitals.length || input.limits.hospitalPoints <= 0) return undefined
  const last = writer.column(input.limits.hospitalPoints)
  writer.row([...opening, last], -Infinity, hospitals.length - 1, [...opening.map(() => 1), -1])
  return last
}
