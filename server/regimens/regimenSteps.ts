import { sql } from 'drizzle-orm'
import { shippedAgents } from '../../core/dosing/agents'
import { raises } from '../../core/regimens/ladderStand'
import { ladderOf } from '../../core/regimens/offerDose'
import type { LadderPlan, SalinityPlan, TransferPlan } from '../../core/regimens/regimens.schema'
import { dayInZone } from '../../core/time/dayInZone'
import { nearPpt } from '../../core/regimens/salinityNow'
import type { Thing } from '../../core/commands/things'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import type { HoldBooksStore } from '../holds/holdBooks.store'
import { lastId, newId } from '../newId'
import type { RegimensStore } from './regimens.store'
import type { TransferStand } from './transferStand'
import { labelOf } from './treating'

interface Collaborators {
  db: Database
  store: RegimensStore
  books: Pick<HoldBooksStore, 'insertEntry' | 'waterOf'>
  transferStand: TransferStand
  /** Lots that get a food with medicine in it today, and by which regimen; none by an order of the kitchen. */
  medicated: (nowMs: number) => ReadonlyMap<string, { food: string; regimenId: string | null }>
  zone: () => string
}
interface By {
  key: string
  staffId: string
  nowMs: number
}
interface Read {
  tankId: string
  what: string
  value: number
  instrument: string | null
  atMs: number
}
/** So many readings, and ticks of the kitchen, at most are written by one command. */
const [mostRead, mostTicks] = [20, 50]
/** A feed may be taken back for so long. */
const feedBackMs = 7 * 86_400_000
/** What a step that is written or taken back shows on. */
const shows: readonly Thing[] = ['regimen', 'hold', 'tank']

/**
 * Keeps beside every write the steps of regimens that it was: a move of all fish onward is a transfer, a reading at which an
 * agent is out clears the water, a rack that was fed gave its medicated food. What is taken back takes its step along. In
 * the transaction of the write itself.
 */
export function createRegimenSteps({ db: { orm }, store, books, medicated, transferStand, zone }: Collaborators) {
  const { waterOf } = books
  type StepRow = { placeId: string; word: string | null; lotId?: string; happenedAtMs: number }
  function insert({ key, staffId, nowMs }: By, kind: 'transfer' | 'cleared' | 'feed', regimenId: string | null, row: StepRow): void {
    books.insertEntry({ id: kind === 'cleared' ? lastId() : newId(), kind, regimenId, lotId: null, policyId: null, phase: null, days: null, reason: null, shortDays: null, shortGates: null, ...row, staffId, commandKey: key, recordedAtMs: nowMs })
  }

  /** Where the fish of a tank went by a command, straight or out of a bucket that they had gone into; null while some are left behind. */
  function wentOn(key: string, tankId: string, sinceMs: number): { placeId: string; happenedAtMs: number } | null {
    const gone = orm.get<{ placeId: string; fromId: string; happenedAtMs: number } | undefined>(
      sql`SELECT m.to_place_id AS placeId, m.from_place_id AS fromId, m.happened_at_ms AS happenedAtMs FROM movement m JOIN tank ON tank.id = m.to_place_id WHERE m.command_key = ${key} AND m.kind = 'move' AND m.to_place_id <> ${tankId}
          AND (m.from_place_id = ${tankId} OR EXISTS (SELECT 1 FROM movement v WHERE v.from_place_id = ${tankId} AND v.to_place_id = m.from_place_id AND v.lot_id = m.lot_id AND v.happened_at_ms >= ${sinceMs})) ORDER BY m.seq DESC LIMIT 1`,
    )
    if (!gone) return null
    const left = orm.get<{ fish: number | null }>(sql`SELECT sum(quantity) AS fish FROM stock WHERE place_id IN (${tankId}, ${gone.fromId})`).fish
    return (left ?? 0) > 0 ? null : { placeId: gone.placeId, happenedAtMs: gone.happenedAtMs }
  }
  function transferred(by: By, regimen: { id: string; plan: TransferPlan; happenedAtMs: number }): boolean {
    // One that came too late is a new beginning: those before it count no more, and are made again.
    const { status, atTankId } = transferStand(regimen, by.nowMs)
    const went = status === 'finished' ? null : wentOn(by.key, atTankId, regimen.happenedAtMs)
    if (went) insert(by, 'transfer', regimen.id, { ...went, word: null })
    return went !== null
  }

  const readBy = (key: string): Read[] => orm.all<Read & { commandKey: string }>(sql`SELECT tank_id AS tankId, word AS what, value, instrument, happened_at_ms AS atMs, kind, command_key AS commandKey FROM observation ORDER BY seq DESC LIMIT ${mostRead}`).filter(({ commandKey }) => commandKey === key)

  /** The agent of a ladder is out of its water at a reading of its own kit at or below the house's figure. */
  function clearedByKit(by: By, { id, plan, tankId, happenedAtMs }: { id: string; plan: LadderPlan; tankId: string; happenedAtMs: number }, read: readonly Read[]): boolean {
    const product = store.product(plan.productId)
    const ladder = product?.agent ? ladderOf(product.agent, labelOf(product)) : null
    const kit = shippedAgents[product?.agent ?? '']?.kit
    const waterId = waterOf(tankId)
    const low = read.find(({ tankId: at, what, value, instrument }) => what === 'copperMgL' && instrument === kit && waterOf(at) === waterId && ladder !== null && value <= (ladder.doneBelow ?? 0))
    if (!low || !product?.agent || !ladder) return false
    const doses = store.doses(waterId, happenedAtMs).filter(({ agent, atMs }) => agent === product.agent && atMs < low.atMs)
    const isRead = (): boolean => store.readings(waterId, 'copperMgL', doses[0]?.atMs ?? Infinity).some(({ value, instrument, atMs }) => atMs < low.atMs && instrument === kit && value >= (ladder.lo ?? Infinity))
    const isRaised = doses.some((dose) => raises(dose, ladder.target)) || isRead()
    if (isRaised) insert(by, 'cleared', id, { placeId: low.tankId, word: product.agent, happenedAtMs: low.atMs })
    return isRaised
  }

  /** Low salinity is over at a reading as the house keeps it, after it had been low. */
  function raisedAgain(by: By, { id, plan, tankId, happenedAtMs }: { id: string; plan: SalinityPlan; tankId: string; happenedAtMs: number }, read: readonly Read[]): boolean {
    const waterId = waterOf(tankId)
    const high = read.find(({ tankId: at, what, value }) => what === 'salinityPpt' && waterOf(at) === waterId && value >= plan.housePpt - nearPpt)
    if (!high || !store.readings(waterId, 'salinityPpt', happenedAtMs).some(({ value, atMs }) => atMs < high.atMs && value <= plan.lowPpt + nearPpt)) return false
    insert(by, 'cleared', id, { placeId: high.tankId, word: 'lowSalinity', happenedAtMs: high.atMs })
    return true
  }

  /** Medicated food that a rack was given counts once a day for each lot. */
  function fed(by: By): boolean {
    const rows = orm.all<{ tankId: string; lotId: string; foods: string; atMs: number }>(
      sql`SELECT g.tank_id AS tankId, g.lot_id AS lotId, g.foods, g.at_ms AS atMs FROM (SELECT id, command_key FROM kitchen_tick ORDER BY rowid DESC LIMIT ${mostTicks}) k CROSS JOIN given g ON g.tick_id = k.id WHERE k.command_key = ${by.key}`,
    )
    if (rows.length === 0) return false
    const foodOf = medicated(by.nowMs)
    const isFirst = (lotId: string, atMs: number): boolean => !store.feedsOf(lotId, atMs - 2 * 86_400_000).some((each) => dayInZone(each, zone()) === dayInZone(atMs, zone()))
    const counted = rows.filter(({ lotId, foods, atMs }) => listed<string>(foods).includes(foodOf.get(lotId)?.food ?? '') && isFirst(lotId, atMs))
    for (const { tankId, lotId, atMs } of counted) insert(by, 'feed', foodOf.get(lotId)?.regimenId ?? null, { placeId: tankId, lotId, word: foodOf.get(lotId)?.food ?? null, happenedAtMs: atMs })
    return counted.length > 0
  }

  /** Steps of a write that was taken back by this one never were. */
  function takenBack({ key, staffId, nowMs }: By, touched: { isMoved: boolean; isRead: boolean; isFed: boolean }): boolean {
    const keys = [
      ...(touched.isMoved ? orm.all<{ key: string }>(sql`SELECT DISTINCT m.command_key AS key FROM movement back JOIN movement m ON m.id = back.reverses_id WHERE back.command_key = ${key}`) : []),
      ...(touched.isRead ? orm.all<{ key: string }>(sql`SELECT command_key AS key FROM observation WHERE undone_at_ms = ${nowMs}`) : []),
      ...(touched.isFed ? orm.all<{ key: string }>(sql`SELECT e.command_key AS key FROM hold_entry e JOIN kitchen_tick k ON k.command_key = e.command_key AND k.undone_at_ms IS NOT NULL WHERE e.happened_at_ms >= ${nowMs - feedBackMs} AND e.kind = 'feed' AND e.undone_at_ms IS NULL`) : []),
    ].map((row) => row.key)
    return keys.length > 0 && store.undoStepsOf(keys, { undoneById: staffId, undoneAtMs: nowMs })
  }

  return {
    /** Answers what else was touched by it. */
    after(by: By, touched: readonly Thing[]): readonly Thing[] {
      const is = (pattern: RegExp): boolean => touched.some((thing) => pattern.test(thing))
      const [isMoved, isRead, isFed] = [is(/^(tank|vessel)\b/), is(/^look\b/), is(/^kitchen\b/)]
      if (!isMoved && !isRead && !isFed) return []
      let isWritten = takenBack(by, { isMoved, isRead, isFed })
      if (isFed) isWritten = fed(by) || isWritten
      const running = isMoved || isRead ? store.running() : []
      const read = isRead && running.length > 0 ? readBy(by.key) : []
      for (const { plan, ...each } of running) {
        if (plan.kind === 'transfer' && isMoved) isWritten = transferred(by, { ...each, plan }) || isWritten
        if (plan.kind === 'ladder' && read.length > 0) isWritten = clearedByKit(by, { ...each, plan }, read) || isWritten
        if (plan.kind === 'low salinity' && read.length > 0) isWritten = raisedAgain(by, { ...each, plan }, read) || isWritten
      }
      return isWritten ? shows : []
    },
  }
}
export type RegimenSteps = ReturnType<typeof createRegimenSteps>
