import { byText } from '../contacts/contact'
import { groupsAt, groupsOfWater, isVessel, putGroup, standsIn, waterState, type Group, type HoldRoom } from './holdRoom'
import type { Moved, Movers } from './movements'
import { isPassed, sendBack, withoutTwins, type Strand } from './strand'
import { agentsIn } from './waterState'

/** A strand where it now stands, and where it stood before this minute. */
interface Stander {
  strand: Strand
  group: Group
  water: string
  moved: Omit<Moved, 'place'>
}

const still = (water: string): Omit<Moved, 'place'> => ({ before: water, isNew: false, ids: [] })
const firstId = (ids: readonly string[]): string => [...ids].sort(byText)[0] ?? ''

/** Everybody in a place or a water that a movement of this minute concerns. */
function standersOf(room: HoldRoom, movers: Movers): Stander[][] {
  const groups = new Set<Group>()
  for (const place of new Set([...movers.values()].map((moved) => moved.place))) {
    const here = groupsAt(room, place)
    const waters = new Set(here.flatMap(({ strands }) => strands.map((strand) => standsIn(room, place, strand))))
    for (const group of [...here, ...[...waters].flatMap((water) => groupsOfWater(room, water))]) groups.add(group)
  }
  return [...groups].map((group) => group.strands.map((strand) => {
    const water = standsIn(room, group.place, strand)
    return { strand, group, water, moved: movers.get(strand) ?? still(water) }
  }))
}

/** Whether two strands meet: they now share a water or a place, and before this minute did not stand in the same water. */
function meet(a: Stander, b: Stander): boolean {
  if (a === b || (a.water !== b.water && a.group.place !== b.group.place)) return false
  return a.moved.isNew || b.moved.isNew || a.moved.before !== b.moved.before
}

/** Whether a stander's rule counts one that it met. */
function counts({ strand, group }: Stander, met: Stander): boolean {
  const rule = strand.hold?.policy.onAddition
  if (!rule || (rule.by === 'tank' && met.group.place !== group.place)) return false
  return rule.from === 'any' || (met.strand.hold !== null && !isPassed(met.strand.hold))
}

function afterMeeting(stander: Stander, met: readonly Stander[], at: number, day: number): Strand {
  if (met.length === 0) return stander.strand
  const counted = met.filter((each) => counts(stander, each))
  const isMixed = stander.strand.isMixed || (isVessel(stander.group.place) && met.some(({ group }) => group.place === stander.group.place))
  const known: Strand = { ...stander.strand, lastMeetingAt: at, isMixed }
  return counted.length === 0 ? known : sendBack(known, ({ onAddition }) => onAddition, { day, at, cause: 'addition', id: firstId([...stander.moved.ids, ...counted.flatMap(({ moved }) => moved.ids)]) })
}

/** Fish brought out of treated water into water that is not: the end of their treatment. */
function afterTreatedWater(room: HoldRoom, strand: Strand, { water, moved: { before, ids } }: Stander, at: number, day: number): Strand {
  const isTreated = (name: string): boolean => agentsIn(waterState(room, name), day, room.rules.goneAfter).length > 0
  if (before === null || before === water || ids.length === 0 || !isTreated(before) || isTreated(water)) return strand
  return sendBack(strand, ({ onTreatment }) => onTreatment, { day, at, cause: 'treatment', id: firstId(ids) })
}

/**
 * What the movements of a minute did to the holds: who met whom, and who came out of treated water. Both sides of a
 * meeting alike; who counted as held is as before this minute.
 */
export function afterMovements(room: HoldRoom, movers: Movers, at: number, day: number): void {
  if (movers.size === 0) return
  const rows = standersOf(room, movers)
  const all = rows.flat()
  const moving = all.filter(({ moved }) => moved.ids.length > 0)
  const changed = rows.map((row) => row.map((stander) => {
    const met = (stander.moved.ids.length > 0 ? all : moving).filter((each) => meet(stander, each))
    return afterTreatedWater(room, afterMeeting(stander, met, at, day), stander, at, day)
  }))
  rows.forEach((row, index) => {
    const [group, strands] = [row[0]?.group, changed[index] ?? []]
    if (group) putGroup(room, { ...group, strands: withoutTwins(strands) })
  })
}
