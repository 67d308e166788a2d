import type { RecordBags } from '../../core/crates/crates.schema'
import type { BagFindings, BagView, CrateView, LineView } from '../../core/crates/crateView'

/** What is entered for the bag in hand and not recorded yet. */
export interface BagDraft extends BagFindings {
  bagId: string
}

/** A plain bag: as listed, nothing to remark. */
export const plainDraft = (bag: BagView): BagDraft => ({ bagId: bag.id, alive: bag.listed, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, salinityBy: null, ph: null, phBy: null, ammoniaMgL: null, hasBinder: null, behaviour: null, mishap: null, note: null })

/** What was recorded, as a draft again: after an undo nothing has to be entered twice. */
export function draftOfRecord(bag: BagView): BagDraft {
  if (!bag.record) return plainDraft(bag)
  const { staffId: _, staffName: __, happenedAtMs: ___, commandKey: ____, ...found } = bag.record
  return { ...plainDraft(bag), ...found }
}

/** The command that records a draft for these bags. */
export function toRecord({ bagId: _, ...found }: BagDraft, bagIds: string[]): Omit<RecordBags, 'happenedAtMs'> {
  return { ...found, bagIds }
}

/** The bag in hand: the next shut one of the chosen line, or of the crate. Null when all are open. */
export function currentBag(crate: CrateView, lineId: string | null): BagView | null {
  const shut = crate.bags.filter((bag) => bag.record === null)
  return shut.find((bag) => bag.lineId === lineId) ?? shut[0] ?? null
}

/** Bags that the same answers can stand for: shut, of the same line, promised the same number; the one in hand first. */
export function bagsAlike(crate: CrateView, bag: BagView): BagView[] {
  return [bag, ...crate.bags.filter((each) => each.id !== bag.id && each.record === null && each.lineId === bag.lineId && each.listed === bag.listed)]
}

/** The bags this person recorded last and can still take back; empty when there are none. */
export function lastRecorded(crate: CrateView, staffId: string): BagView[] {
  const mine = crate.bags.filter((bag) => bag.record?.staffId === staffId)
  const newest = mine.reduce<BagView | null>((latest, bag) => ((bag.record?.happenedAtMs ?? 0) >= (latest?.record?.happenedAtMs ?? 0) ? bag : latest), null)
  const together = mine.filter((bag) => bag.record?.commandKey === newest?.record?.commandKey)
  return together.every((bag) => bag.inBag === bag.record?.alive) ? together : []
}

export interface TankShare {
  tankId: string
  code: string
  fish: number
  species: string[]
  lineIds: string[]
}

/** Fish still in bags, by the tank they are planned for; lines without a tank are told apart. */
export function sharesByTank(crate: CrateView): { shares: TankShare[]; homeless: LineView[] } {
  const shares = new Map<string, TankShare>()
  const homeless: LineView[] = []
  for (const line of crate.lines) {
    const fish = crate.bags.filter((bag) => bag.lineId === line.id && bag.runId === null).reduce((sum, bag) => sum + bag.inBag, 0)
    if (fish === 0) continue
    if (!line.tank) {
      homeless.push(line)
      continue
    }
    const share = shares.get(line.tank.id) ?? { tankId: line.tank.id, code: line.tank.code, fish: 0, species: [], lineIds: [] }
    shares.set(line.tank.id, { ...share, fish: share.fish + fish, species: [...share.species, line.species], lineIds: [...share.lineIds, line.id] })
  }
  return { shares: [...shares.values()].sort((a, b) => a.code.localeCompare(b.code, 'en', { numeric: true })), homeless }
}
