import type { Pending } from '../commands/pending'
import { flagOf, lastLook, stockOf } from '../facts/askFacts'
import { foldTouches } from '../facts/pendingFacts'
import { tankTouches, type TankTouch } from '../facts/tankTouches'
import { countFish, type StockView } from '../ledger/stockView'
import { millionthsPerFish } from '../pools/shareOut'
import { noHandling } from '../species/handling'
import type { RoomView, TankSummary, TankView } from './roomView'
import type { TankFlag } from './tankFlag'

/** Shows the racks with the touches that wait on this device. */
export function withPendingInRoom(room: RoomView, pending: readonly Pending[]): RoomView {
  const touches = tankTouches(pending)
  const touched = new Set(touches.map((touch) => (touch.command === 'recordCheck' ? touch.input.tankId : touch.tankId)))
  return touched.size === 0 ? room : { ...room, tanks: room.tanks.map((tank) => (touched.has(tank.id) ? summaryWith(tank, touches, room.on) : tank)) }
}

/** Shows a tank with the touches that wait on this device; its timeline is what the books hold. */
export function withPendingInTank(tank: TankView, pending: readonly Pending[]): TankView {
  const touches = tankTouches(pending)
  if (touches.length === 0) return tank
  const known = foldTouches(tank.id, tank.stock, touches)
  return { ...tank, stock: stockOf(known), flag: flagWith(tank.flag, known), isCheckedToday: tank.isCheckedToday || lastLook(known)?.on === tank.on }
}

/** A summary says how many fish there are, and not which: they are taken as one lot, whichever a touch names. */
function summaryWith(tank: TankSummary, touches: readonly TankTouch[], on: string): TankSummary {
  const all: StockView = { lotId: 'all', lotCode: '', speciesId: '', species: tank.mainSpecies ?? '', strain: null, quantity: tank.fish, expected: tank.fish * millionthsPerFish, origin: '', sinceMs: 0, arrivedAtMs: 0, isBeforeBooks: false, handling: noHandling }
  const known = foldTouches(tank.id, [all], touches.map((touch): TankTouch => (touch.command === 'recordLoss' ? { ...touch, input: { ...touch.input, lotId: all.lotId, lotIds: [] } } : touch)))
  const look = lastLook(known)
  return { ...tank, fish: countFish(stockOf(known)), flag: flagWith(tank.flag, known), isCheckedToday: tank.isCheckedToday || look?.on === on, lastCheckAtMs: Math.max(tank.lastCheckAtMs ?? 0, look?.atMs ?? 0) || null }
}

/** The word on the glass: a new look takes the place of the one before, but fish lost today stay lost. */
function flagWith(flag: TankFlag | null, known: ReturnType<typeof foldTouches>): TankFlag | null {
  const look = lastLook(known)
  const kept = look === null || flag?.word.endsWith(' lost') ? flag : null
  return flagOf(known, look, 0) ?? kept
}
