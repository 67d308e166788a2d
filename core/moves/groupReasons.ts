import { byText } from '../contacts/contact'
import type { Animal } from '../tankChoice/tankChoice'
import { fightWeight } from './fightWeight'
import type { MoveItem, MoveReason } from './move'
import { kindsOf, reason, when, type Move } from './reasons'

/** What groups lose and gain, whom somebody counts on, and who fought whom. */
export function groupReasons(move: Move): MoveReason[] {
  const { items, from, to, occupants, isOut, isTank, isVessel } = move
  const isFromTank = (from.kind ?? 'tank') === 'tank'
  const isHospital = to.purpose === 'hospital'
  return kindsOf(items).flatMap(({ animal: { species, groupMin }, count, items: ofKind }) => {
    const least = groupMin ?? 1
    const before = [...ofKind.map(({ have }) => have), ...(from.others ?? []).filter((each) => each.species === species).map(({ quantity }) => quantity)].reduce((sum, each) => sum + each, 0)
    const left = before - count
    const together = occupants.filter((each) => each.animal.species === species).reduce((sum, { quantity }) => sum + quantity, count)
    return [
      ...when(isFromTank && !isVessel && before >= least && least > left && left > 0, reason('warn', 'group-left', { species, n: left, min: least })),
      ...when(!isOut && isTank && !isHospital && least >= 2 && together < least, reason('warn', 'group-small', { species, n: together, min: least })),
    ]
  })
}

/** Fish and places that plans and people count on. */
export function bookedReasons({ items, to, byPlan = null, isOut, isTank }: Move): MoveReason[] {
  return [
    ...items.flatMap((item) => [...(isOut ? promised(item, to.forWhom ?? null) : []), ...counted(item, byPlan, isOut)]),
    ...(isTank ? (to.bookings ?? []).flatMap(({ plan, takes, isReady }) => when(takes === 'whole' && !isReady && plan !== byPlan, reason('warn', 'plan-place', { plan }))) : []),
  ]
}

function promised({ lot, n, have, bookings = [] }: MoveItem, forWhom: string | null): MoveReason[] {
  const fish = bookings.filter(({ why, by }) => why === 'promise' && by !== forWhom).reduce((sum, each) => sum + each.n, 0)
  return when(n > have - fish && n <= have, reason('lead', 'promised', { lot, promised: fish, free: Math.max(0, have - fish) }))
}

function counted({ lot, n, have, bookings = [] }: MoveItem, byPlan: string | null, isOut: boolean): MoveReason[] {
  const plans = bookings.filter(({ why, by }) => why === 'plan' && by !== byPlan)
  const free = have - plans.reduce((sum, each) => sum + each.n, 0)
  const slots = { lot, plans: [...new Set(plans.map(({ by }) => by))].sort(byText), free: Math.max(0, free) }
  return when(plans.length > 0 && n > free && n <= have, isOut ? reason('lead', 'plan-fish-out', slots) : reason('warn', 'plan-fish', slots))
}

/** How much the fights of each pair of kinds weigh that a move brings together. */
export function fightsOf({ items, occupants, fights = [], to, rules }: Move): { a: string; b: string; weight: number }[] {
  const pairs = new Map(items.flatMap(({ animal }) => occupants.map((there) => [animal.species, there.animal.species].sort(byText))).map((pair) => [JSON.stringify(pair), pair]))
  return [...pairs.values()].map(([a = '', b = '']) => ({ a, b, weight: fightWeight(fights.filter((each) => (each.a === a && each.b === b) || (each.a === b && each.b === a)), to.netVolumeL ?? null, rules) }))
}

const bold = ['territorial', 'fights its own kind']
const isBold = ({ temperament }: Animal): boolean => bold.includes(temperament ?? '')

/** Fish that would fight for the place: who fought before, and who has to be brought together with a plan. */
export function fightReasons(move: Move, saidOwnKind: ReadonlySet<string>): MoveReason[] {
  const { items, occupants, isTank, rules } = move
  if (!isTank) return []
  const length = ({ sizeCm }: Animal): number => sizeCm ?? Infinity
  const introduced = kindsOf(items).flatMap(({ animal }): MoveReason[] => {
    const residents = occupants.map((each) => each.animal).filter((resident) => {
      const isOwn = resident.species === animal.species
      const isLarge = animal.sizeCm === null || resident.sizeCm === null || animal.sizeCm >= rules.juvenileShare * resident.sizeCm
      return isBold(resident) && (isOwn ? !saidOwnKind.has(animal.species) : isBold(animal)) && isLarge
    })
    const [longest] = residents.sort((a, b) => length(b) - length(a) || byText(a.species, b.species))
    return longest ? [reason('warn', 'introduce', { resident: longest.species, newcomer: animal.species })] : []
  })
  return [...fightsOf(move).flatMap(({ a, b, weight }) => when(weight >= rules.fightWarn, reason('warn', 'fought', { a, b, weight }))), ...introduced]
}
