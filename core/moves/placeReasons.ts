import { isForbidden, companyBetween, ownKindFinding, poisonsTank, swallowsNowCm, waterCautions, type Finding } from '../tankChoice/company'
import { overload, roomLeftG, tankRules, waterRules, weightOf } from '../tankChoice/rules'
import type { Animal, ChoiceTank } from '../tankChoice/tankChoice'
import { gramsOf, mostDelicate } from './handled'
import type { MoveOccupant, MoveReason } from './move'
import { kindsOf, reason, when, type Move } from './reasons'
import { vesselLimit } from './vesselLimit'

/** The place as tank choice sees it. */
export function choiceTank({ to, occupants }: Pick<Move, 'to' | 'occupants'>): ChoiceTank {
  return {
    ...{ id: '', code: to.id ?? '', waterId: '', water: 'fresh', tempC: null, salinityPpt: null, agents: [], zoneId: null, netVolumeL: null, purpose: null, state: null, fights: 0 },
    ...to,
    occupants: occupants.map(({ animal, quantity, supplier, heldDays = null }: MoveOccupant) => ({ animal, quantity, supplier: supplier ?? '', heldDays })),
    bookings: (to.bookings ?? []).map((each) => ({ ...each, id: each.plan, fish: [] })),
  }
}

/** What the water of a place, the place itself and its load say: the rules of tank choice. */
export function waterAndTank(move: Move): MoveReason[] {
  const { items, from, to, limits, occupants, isOut, isTank, isOtherWater, waterGoesAlong, byPlan } = move
  if (isOut) return []
  const tank = choiceTank(move)
  const bookings = (tank.bookings ?? []).filter(({ plan }) => plan !== byPlan)
  // A vessel has no kind of water of its own.
  const ofWater = items.flatMap(({ animal }) => waterRules(animal, tank)).filter(({ code }) => isTank || to.water !== undefined || code !== 'water-kind')
  const ofTank = isTank ? items.flatMap(({ animal, n }) => tankRules({ animal, count: n }, { ...tank, bookings }, limits)).filter(({ code }) => code !== 'overload') : []
  const weight = items.reduce((sum, { animal, n }) => sum + weightOf(animal, n), 0)
  const left = roomLeftG(tank, limits.stockGPerL)
  const carried = waterGoesAlong && isOtherWater ? (from.agents ?? []) : []
  return [
    ...[...ofWater, ...ofTank, ...(isTank && weight > left ? [overload(weight, left)] : [])].map(({ code, about }) => reason('lead', code, about)),
    ...occupants.flatMap(({ animal }) => carried.filter((agent) => animal.sensitivities.includes(agent)).map((agent) => reason('lead', 'agent-carried', { species: animal.species, agent }))),
    ...items.flatMap(({ animal }) => waterCautions(animal, tank)).flatMap((found) => (found.level === 'warning' && found.code === 'agent-care' ? [reason('warn', 'agent-care', found.about)] : [])),
  ]
}

/** What fish that move and fish that stand there do to each other; in vessels as in tanks. */
export function company({ items, to, occupants, isOut, isTank, isVessel }: Move): MoveReason[] {
  if (isOut) return []
  const between = items.flatMap(({ animal }) => occupants.flatMap((there) => companyBetween(animal, there.animal).flatMap((found) => companyReason(found, animal, there.animal))))
  const own = kindsOf(items).flatMap(({ items: ofKind }) => ofKind.flatMap(({ animal, n }) => ownKindFinding(animal, n) ?? []))
  const isShared = isVessel ? to.vessel?.kind !== 'box' : to.waterId !== to.id
  return [
    ...between,
    ...own.filter(isForbidden).map(({ code, about }) => reason('lead', code, about)),
    ...items.flatMap(({ animal }) => when(poisonsTank(animal) && isShared, reason('lead', 'poisons', { species: animal.species }))),
    ...items.flatMap(({ animal }) => occupants.flatMap((there) => when(isTank && eatsItsOwn(animal, there.animal), reason('warn', 'eats-own', { species: animal.species })))),
  ]
}

function companyReason(found: Finding, mover: Animal, resident: Animal): MoveReason[] {
  if (found.level === 'forbidden') return [reason('lead', found.code, found.about)]
  switch (found.code) {
    case 'nibbles':
      return [reason('warn', 'nibbles', found.about)]
    case 'grazes':
      return [reason('note', 'grazes', found.about)]
    case 'bully':
      return [reason('warn', 'bully', { resident: resident.species, newcomer: mover.species })]
    default:
      return []
  }
}

/** The large ones of a kind swallow the small ones. */
function eatsItsOwn(a: Animal, b: Animal): boolean {
  const swallows = (hunter: Animal, prey: Animal): boolean => prey.sizeCm !== null && hunter.swallowsCm !== null && swallowsNowCm(hunter) >= prey.sizeCm
  return a.species === b.species && (swallows(a, b) || swallows(b, a))
}

/** How long a vessel bears those that come and those that are in it. */
export function vesselReasons({ items, from, to, occupants, isVessel, rules, limits, roomC }: Move): MoveReason[] {
  const { vessel } = to
  if (!isVessel || vessel === undefined) return []
  const fish = [...items.map(({ animal, n }) => ({ animal, n })), ...occupants.map(({ animal, quantity }) => ({ animal, n: quantity }))].flatMap(({ animal, n }) => {
    const massG = gramsOf(animal, rules)
    return massG === null ? [] : [{ n, massG }]
  })
  const { minutes, binds } = vesselLimit(
    { ...(vessel.kind ? { kind: vessel.kind } : {}), litres: vessel.litres, tempC: to.tempC ?? from.tempC ?? 25, salinityPpt: to.salinityPpt ?? from.salinityPpt ?? 0, ph: vessel.ph ?? null, air: vessel.air, fish, tolerance: mostDelicate(items.map(({ animal }) => animal)), ...(roomC === undefined ? {} : { roomC }) },
    limits,
  )
  const want = vessel.wantMinutes ?? rules.vesselLeastMinutes
  return minutes < want ? [reason('lead', 'vessel-load', { minutes, want, binds })] : [reason('note', 'vessel-limit', { minutes, binds })]
}
