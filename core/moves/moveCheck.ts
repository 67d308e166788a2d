import { byText, type ContactKind } from '../contacts/contact'
import type { Limits } from '../limits/houseLimits'
import { ownCosts } from '../tankChoice/prepareChoice'
import { company, choiceTank, vesselReasons, waterAndTank } from './placeReasons'
import { bookedReasons, fightReasons, fightsOf, groupReasons } from './groupReasons'
import { meetingReasons } from './meetingReasons'
import { moveCodes, type MoveAsked, type MoveReason } from './move'
import { moveLevels, shippedMoveRules, type MoveRules } from './moveRules'
import { kindsOf, readMove, reason, sourceOf, when, type Move } from './reasons'
import { carriedReasons, waterReasons } from './workReasons'

export interface MoveChecked {
  /** The gravest level of the reasons; *allow* where there are notes only, or none. */
  verdict: 'impossible' | 'lead' | 'warn' | 'allow'
  reasons: MoveReason[]
  /** The soft costs of tank choice; 0 where they do not go into a tank. */
  points: number
  /** When to look again, minutes after the move: at the tank they left, and at the one they came into. */
  looks: { from: readonly number[]; to: readonly number[] }
  /** Contacts that the move makes. */
  contacts: { kind: ContactKind; from: string; to: string }[]
}

/**
 * Says before fish are netted what speaks against moving them. A check on records: it finds no germ and foretells no
 * fight. Its hard rules are those of tank choice. Source: docs/moves.md.
 */
export function moveCheck(asked: MoveAsked, limits: Limits, rules: MoveRules = shippedMoveRules): MoveChecked {
  const move = readMove(asked, limits, rules)
  const impossible = impossibleReasons(move)
  if (impossible.length > 0) return { verdict: 'impossible', reasons: inOrder(impossible), points: 0, looks: { from: [], to: [] }, contacts: [] }
  const ofPlace = [...waterAndTank(move), ...company(move)]
  const ownKind = new Set(ofPlace.flatMap(({ code, species }) => (code === 'own-kind' && typeof species === 'string' ? [species] : [])))
  const found = [...ofPlace, ...vesselReasons(move), ...meetingReasons(move), ...carriedReasons(move), ...waterReasons(move), ...groupReasons(move), ...bookedReasons(move), ...fightReasons(move, ownKind), ...plainReasons(move)]
  const reasons = inOrder(found.flatMap((each) => asHouseHas(each, rules)))
  const isDominantOut = reasonsOfDominants(move).length > 0
  return {
    verdict: verdictOf(reasons),
    reasons,
    points: move.isTank ? pointsOf(move, found) : 0,
    looks: { from: isDominantOut ? rules.dominantLooks : [], to: move.isTank ? rules.moveLooks : [] },
    contacts: contactsOf(move),
  }
}

/**
 * One answer out of several: of fish that nobody can tell apart, whatever speaks against any of those they may be. Points,
 * looks and contacts are those of the first.
 */
export function mergeChecks(checks: readonly MoveChecked[]): MoveChecked {
  const [first, ...others] = checks
  if (first === undefined) throw new RangeError('There is nothing to check')
  const reasons = inOrder([first, ...others].flatMap((each) => each.reasons))
  return { ...first, reasons, verdict: verdictOf(reasons) }
}

/** The answer without reasons that do not hold of these fish, whatever the records say. */
export function withoutReasons(checked: MoveChecked, codes: ReadonlySet<string>): MoveChecked {
  const reasons = checked.reasons.filter(({ code }) => !codes.has(code))
  return { ...checked, reasons, verdict: verdictOf(reasons) }
}

const verdictOf = ([gravest]: readonly MoveReason[]): MoveChecked['verdict'] => (gravest === undefined || gravest.level === 'note' ? 'allow' : gravest.level)

function impossibleReasons({ items, from, to, isOut }: Move): MoveReason[] {
  return [
    ...items.flatMap(({ lot, n, have }) => when(n > have, reason('impossible', 'not-there', { lot, have, want: n }))),
    ...when(!isOut && to.id === from.id, reason('impossible', 'same-place')),
    ...when(to.isRetired === true, reason('impossible', 'retired', { place: to.id ?? '' })),
  ]
}

/** Levels that a house set for itself; what needs a lead always does. */
function asHouseHas(each: MoveReason, { levels }: MoveRules): MoveReason[] {
  const level = each.level === 'warn' || each.level === 'note' ? levels[each.code] : undefined
  if (level === undefined) return [each]
  return level === 'off' ? [] : [{ ...each, level }]
}

/** Equal reasons once; the gravest first, then as they are told. */
function inOrder(reasons: readonly MoveReason[]): MoveReason[] {
  const once = [...new Map(reasons.map((each) => [JSON.stringify(each), each]))]
  const rank = ({ level, code }: MoveReason): [level: number, code: number] => [moveLevels.indexOf(level), moveCodes.indexOf(code)]
  return once
    .sort(([oneText, one], [otherText, other]) => {
      const [[oneLevel, oneCode], [otherLevel, otherCode]] = [rank(one), rank(other)]
      return oneLevel - otherLevel || oneCode - otherCode || byText(oneText, otherText)
    })
    .map(([, each]) => each)
}

const isFromTank = ({ from }: Move): boolean => (from.kind ?? 'tank') === 'tank'

const reasonsOfDominants = (move: Move): MoveReason[] => (isFromTank(move) ? move.items.flatMap(({ lot, isDominant }) => when(isDominant === true, reason('note', 'dominant-out', { lot }))) : [])

const isLastHospital = ({ to, occupants, hospitalsFree, isTank }: Move): boolean => isTank && to.purpose === 'hospital' && occupants.length === 0 && hospitalsFree === 1

/** What is said without judging. */
function plainReasons(move: Move): MoveReason[] {
  const { items, to, occupants, onWater, isOut, isTank, isOtherWater, rules } = move
  const kinds = new Set(items.map(({ animal }) => animal.species))
  const others = [...new Set(occupants.map(({ animal }) => animal.species).filter((species) => !kinds.has(species)))].sort(byText)
  const unknown = (what: string, of: string | undefined, holds: boolean): MoveReason[] => when(holds, reason('note', 'not-known', { what, of: of ?? '' }))
  return [
    ...(isFromTank(move) ? items.flatMap(({ lot, movedHoursAgo = null }) => when(movedHoursAgo !== null && movedHoursAgo < rules.movedLatelyHours, reason('warn', 'moved-lately', { lot, hours: movedHoursAgo }))) : []),
    ...when(isLastHospital(move), reason('warn', 'last-hospital')),
    ...reasonsOfDominants(move),
    ...when(isTank && others.length > 0, reason('note', 'shares', { species: others })),
    ...when(isTank && (to.purpose === 'display' || to.purpose === 'grow-out'), reason('note', 'purpose', { purpose: to.purpose ?? null })),
    ...when(isOut, reason('note', 'card')),
    ...(isOut ? [] : items.flatMap(({ animal }) => [...unknown('size', animal.species, animal.sizeCm === null && occupants.some((there) => there.animal.species !== animal.species)), ...unknown('weight', animal.species, animal.massG === null)])),
    ...(isTank ? [...unknown('volume', to.id, (to.netVolumeL ?? null) === null), ...unknown('temperature', to.id, (to.tempC ?? null) === null)] : []),
    ...(isTank && isOtherWater ? [...items.map((item) => ({ lot: item.lot, source: sourceOf(item) })), ...onWater].flatMap(({ lot, source }) => unknown('source', lot, (source ?? null) === null)) : []),
  ]
}

function pointsOf(move: Move, found: readonly MoveReason[]): number {
  const { from, occupants, items, limits } = move
  const tank = choiceTank(move)
  const kinds = kindsOf(items)
  const input = { lines: [], tanks: [], limits, shipping: { tempC: from.tempC ?? null, salinityPpt: from.salinityPpt ?? null } }
  const own = kinds.flatMap(({ animal, count }) => ownCosts({ id: animal.species, animal, count, supplier: '' }, tank, input)).reduce((sum, { points }) => sum + points, 0)
  const fights = fightsOf(move).reduce((sum, { weight }) => sum + weight, 0)
  const days = found.reduce((sum, each) => sum + (each.code === 'restarts' ? Number(each.days) : 0), 0)
  const opened = occupants.length === 0 ? limits.openTankPoints + (kinds.length - 1) * limits.sharePoints : 0
  return own + fights * limits.fightPoints + opened + days * limits.restartPoints + (isLastHospital(move) ? limits.hospitalPoints : 0)
}

function contactsOf({ from, to, tools = null, waterGoesAlong, isOtherWater }: Move): MoveChecked['contacts'] {
  if (!isOtherWater) return []
  const [left, came] = [`water:${from.waterId}`, `water:${to.waterId ?? ''}`]
  const net = tools === null ? null : `tools:${tools.name}`
  return [
    { kind: 'move', from: left, to: came },
    ...(waterGoesAlong ? [{ kind: 'water' as const, from: left, to: came }] : []),
    ...(net === null ? [] : [{ kind: 'tool' as const, from: left, to: net }, { kind: 'tool' as const, from: net, to: came }]),
  ]
}
