import type { Course, Exposure, HoldFact, Pairing, Sign, Step } from './holdEvents'
import { allGroups, changeStrands, groupOf, groupsAt, groupsOfWater, isVessel, requirePolicy, setWater, standsIn, waterOf, waterState, type Group, type HoldRoom, type HoldRules } from './holdRoom'
import { mealAnswers } from './policy'
import { changePolicy, lengthenHold, sendBack, withCourse, type CourseKnown, type Hold, type Strand } from './strand'
import { agentsIn, withDose, withoutAgents, withReading } from './waterState'

/** The moment of a fact. */
interface When {
  at: number
  day: number
}
/** Fish at a place, of one lot where it is named. */
const groupsNamed = (room: HoldRoom, tank: string, lot: string | undefined): Group[] => (lot === undefined ? groupsAt(room, tank) : [groupOf(room, lot, tank)].filter((group) => group !== undefined))
const standingIn = (room: HoldRoom, waters: readonly string[]): Group[] => [...new Set(waters.flatMap((water) => groupsOfWater(room, water)))]

/** Everything that could be in a water, and was not said: an entry that names no agent is one of its own. */
const unnamed = 'unnamed'

function takeStep(room: HoldRoom, { id, tank, lot, of, agent = unnamed }: Step, { at, day }: When): void {
  const water = waterOf(room, tank)
  const state = waterState(room, water)
  if (of === 'cleared') {
    const gone = agentsIn(state, day, room.rules.goneAfter).filter((each) => agent === unnamed || each === agent)
    if (gone.length === 0) return
    setWater(room, water, withoutAgents(state, gone))
  }
  if (of === 'dose' || of === 'found') setWater(room, water, withDose(state, agent, day))
  // What was found there treats nobody: it was there before anybody wrote it down.
  if (of === 'found') return
  const treats = of !== 'transfer'
  const reaches = of === 'dose' || of === 'cleared' ? [...new Set([...groupsAt(room, tank), ...groupsOfWater(room, water)])] : groupsNamed(room, tank, lot)
  changeStrands(room, reaches, (strand, { place }) => {
    const isReached = strand.hold !== null && (place === tank || standsIn(room, place, strand) === water)
    if (!isReached) return strand
    const known: Strand = of === 'cleared' ? strand : { ...strand, steps: [...strand.steps, { of, at }] }
    return treats ? sendBack(known, ({ onTreatment }) => onTreatment, { day, at, cause: 'treatment', id }) : known
  })
}

const noted = (strand: Strand, hold: Hold, id: string): Strand => ({ ...strand, hold: { ...hold, undecided: [...hold.undecided, id] } })

function exposed(room: HoldRoom, { id, tanks, waters: named = [], decision }: Exposure, { at, day }: When): void {
  if (decision === 'dismissed') return
  const waters = new Set([...tanks.map((tank) => waterOf(room, tank)), ...named])
  changeStrands(room, standingIn(room, [...waters]), (strand, { place }) => {
    if (!waters.has(standsIn(room, place, strand))) return strand
    if (decision === 'open') return strand.hold?.policy.onAddition ? noted(strand, strand.hold, id) : strand
    return sendBack({ ...strand, lastMeetingAt: at }, ({ onAddition }) => onAddition, { day, at, cause: 'exposure', id })
  })
}

/** Whether a sign was to be expected of everybody it may have been seen on. */
export function isExpected(room: HoldRoom, { tank, lot, word, isSlight = false }: Sign, at: number): boolean {
  const seen = groupsNamed(room, tank, lot).flatMap(({ strands }) => strands)
  return seen.length > 0 && seen.every(({ courses }) => courses.some((course) => course.at <= at && at <= course.until && (course.words.includes(word) || (isSlight && course.slightWords.includes(word)))))
}

/** The waters that a sign in a place may come from: of a vessel, those that its fish count for. */
const watersOfPlace = (room: HoldRoom, place: string): string[] => (isVessel(place) ? groupsAt(room, place).flatMap(({ strands }) => strands.map((strand) => standsIn(room, place, strand))) : [waterOf(room, place)])

function showSign(room: HoldRoom, sign: Sign, { at, day }: When): void {
  const { id, tank, lot, word, decision } = sign
  if (decision === 'dismissed' || isExpected(room, sign, at)) return
  const waters = new Set(watersOfPlace(room, tank))
  changeStrands(room, [...new Set([...groupsAt(room, tank), ...standingIn(room, [...waters])])], (strand, { place, lot: ofLot }) => {
    const { hold } = strand
    const rule = hold?.policy.onSign
    if (!hold || !rule?.words.includes(word)) return strand
    const isHere = place === tank
    const isReached = { lot: isHere && (lot === undefined || lot === ofLot), tank: isHere, water: isHere || waters.has(standsIn(room, place, strand)) }[rule.reach]
    if (!isReached) return strand
    return decision === 'open' ? noted(strand, hold, id) : sendBack(strand, ({ onSign }) => onSign, { day, at, cause: 'sign', id })
  })
}

function pair(room: HoldRoom, { lots, startedAt, result }: Pairing): void {
  const named = [...allGroups(room)].filter(({ lot }) => lots.includes(lot))
  changeStrands(room, named, (strand) => ({ ...strand, pairing: { startedAt, result } }))
}

const begun = ({ at, words, slightWords = [], hours }: Course): CourseKnown => ({ at, until: at + 60 * hours, words, slightWords })

/** Meals that a gate of any policy looks back on: what is older is asked by nobody. */
const asked = new WeakMap<HoldRules['policies'], number>()
function mealsAsked(policies: HoldRules['policies']): number {
  const known = asked.get(policies)
  if (known !== undefined) return known
  const gates = [...policies.values()].flatMap(({ phases, release }) => [...phases.flatMap((phase) => phase.gates ?? []), ...release])
  const most = Math.max(0, ...gates.map((gate) => (gate.gate === 'eating' ? gate.answers : 0)))
  asked.set(policies, most)
  return most
}
/** Not fed, and whatever else is no meal, counts for no gate. */
function eaten(strand: Strand, answer: string, day: number, most: number): Strand {
  return most > 0 && mealAnswers.some((each) => each === answer) ? { ...strand, meals: [...strand.meals, answer].slice(-most), mealDay: day } : strand
}

/** Tells a fact to everybody it reaches. */
export function tellFact(room: HoldRoom, fact: HoldFact, when: When): void {
  const { at, day } = when
  switch (fact.kind) {
    case 'policy': {
      const policy = requirePolicy(room, fact.to)
      return changeStrands(room, groupsNamed(room, fact.tank, fact.lot), (strand) => changePolicy(strand, policy, fact.phase, { day, at, id: fact.id }))
    }
    case 'lengthen':
      return changeStrands(room, groupsNamed(room, fact.tank, fact.lot), (strand) => lengthenHold(strand, fact.days))
    case 'course':
      return changeStrands(room, groupsNamed(room, fact.tank, fact.lot), (strand) => withCourse(strand, begun(fact)))
    case 'look':
      return changeStrands(room, groupsAt(room, fact.tank), (strand) => (strand.lookedDay === day ? strand : { ...strand, lookedDay: day }))
    case 'meal':
      return changeStrands(room, groupsNamed(room, fact.tank, fact.lot), (strand, { lot }) => eaten(strand, fact.own?.[lot] ?? fact.answer, day, mealsAsked(room.rules.policies)))
    case 'body':
      return changeStrands(room, groupsNamed(room, fact.tank, fact.lot), (strand) => (strand.bodyState === fact.state ? strand : { ...strand, bodyState: fact.state }))
    case 'reading': {
      const water = waterOf(room, fact.tank)
      return setWater(room, water, withReading(waterState(room, water), fact.what, fact.value, day))
    }
    case 'step':
      return takeStep(room, fact, when)
    case 'pairing':
      return pair(room, fact)
    case 'exposure':
      return exposed(room, fact, when)
    case 'sign':
      return showSign(room, fact, when)
  }
}
