import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { groupBy } from '../core/collections/groupBy'
import type { Mark, OwnAnswer } from '../core/facts/facts'
import { lookAtTank } from '../core/rounds/levelAsked'
import type { LevelAsked, Neighbour } from '../core/rounds/levelReason'
import type { Ate } from '../core/rounds/rounds.schema'
import { tankLevel } from '../core/rounds/tankLevel'
import { makeDemo } from '../demo/makeDemo'
import { listed } from '../server/db/listed'
import { openDatabase } from '../server/db/open'

const [dayMs, overDays] = [86_400_000, 56]

interface LookRow {
  tankId: string
  systemId: string
  atMs: number
  ate: Ate
  answers: string | null
  marks: string | null
}
interface StayRow {
  tankId: string
  lotId: string
  fromMs: number
  untilMs: number | null
  fish: number
  arrivedAtMs: number
}

/** How often levels call for somebody in the made-up months of the demo, in which little is wrong, beside two rules of thumb. */
export async function benchFalseActs(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))
  const db = openDatabase(join(folder, 'room.sqlite'))
  db.raw.exec('PRAGMA synchronous=OFF')
  const nowMs = Date.now()
  await makeDemo(db, nowMs, 'UTC')
  const all = <Row>(sql: string): Row[] => db.raw.prepare(sql).all() as Row[]
  const looks = groupBy(all<LookRow>(`SELECT c.tank_id AS tankId, tank.system_id AS systemId, c.happened_at_ms AS atMs, c.ate, c.answers,
      (SELECT json_group_array(json_object('sign', o.word, 'severity', o.severity, 'lotId', o.lot_id)) FROM observation o WHERE o.check_id = c.id AND o.kind = 'sign') AS marks
    FROM "check" c JOIN tank ON tank.id = c.tank_id WHERE c.replaced_by_id IS NULL ORDER BY c.happened_at_ms DESC`), ({ tankId }) => tankId)
  const stays = groupBy(all<StayRow>(`SELECT stay.place_id AS tankId, stay.lot_id AS lotId, stay.from_ms AS fromMs, stay.until_ms AS untilMs, coalesce(stock.quantity, 8) AS fish, lot.created_at_ms AS arrivedAtMs
    FROM stay JOIN lot ON lot.id = stay.lot_id LEFT JOIN stock ON stock.place_id = stay.place_id AND stock.lot_id = stay.lot_id WHERE stay.is_possible = 0`), ({ tankId }) => tankId)
  const losses = groupBy(all<{ tankId: string; atMs: number; quantity: number; cause: string | null }>(`SELECT from_place_id AS tankId, happened_at_ms AS atMs, quantity, cause FROM movement m WHERE kind = 'loss' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`), ({ tankId }) => tankId)
  db.close()
  rmSync(folder, { recursive: true, force: true })

  const ago = (atMs: number, momentMs: number): number => (momentMs - atMs) / 3_600_000
  const episodes = { act: 0, anySign: 0, twoDays: 0 }
  let before = new Map<string, Record<keyof typeof episodes, boolean>>()
  let watched = 0
  for (let day = overDays; day >= 0; day -= 1) {
    const momentMs = nowMs - day * dayMs
    const seen = [...looks].flatMap(([tankId, rows]) => {
      const rounds = rows.filter(({ atMs }) => atMs <= momentMs && momentMs - atMs <= 10 * dayMs)
      const lots = (stays.get(tankId) ?? []).filter(({ fromMs, untilMs }) => fromMs <= momentMs && (untilMs ?? Infinity) > momentMs)
      if (rounds.length === 0 || lots.length === 0) return []
      const asked: LevelAsked = {
        lots: lots.map(({ lotId, fish, arrivedAtMs }) => ({ lot: lotId, fish, days: Math.floor(ago(arrivedAtMs, momentMs) / 24), inHold: false, species: {}, events: [{ event: 'arrival', hoursAgo: Math.max(0, ago(arrivedAtMs, momentMs)) }] })),
        rounds: rounds.map(({ atMs, ate, answers, marks }) => lookAtTank({ atMs, ate, marks: listed<Mark>(marks), answers: listed<OwnAnswer>(answers) }, momentMs)),
        losses: (losses.get(tankId) ?? []).filter(({ atMs }) => atMs <= momentMs && momentMs - atMs <= 7 * dayMs).map(({ atMs, quantity, cause }) => ({ hoursAgo: ago(atMs, momentMs), quantity, cause })),
      }
      return [{ tankId, systemId: rounds[0]?.systemId, asked, alone: tankLevel(asked) }]
    })
    const now = new Map(seen.map(({ tankId, systemId, asked }) => {
      const neighbours = seen.flatMap((other): Neighbour[] => (other.systemId === systemId && other.tankId !== tankId ? [{ tank: other.tankId, shows: other.alone.shows, isAct: other.alone.level === 'act' }] : []))
      const { level } = tankLevel({ ...asked, neighbours })
      watched += level === 'quiet' ? 0 : 1
      const isAny = (look: LevelAsked['rounds'][number] | undefined): boolean => look !== undefined && (look.signs.length > 0 || look.ate.some(({ ate }) => ate === 'none' || ate === 'some'))
      return [tankId, { act: level === 'act', anySign: isAny(asked.rounds[0]), twoDays: isAny(asked.rounds[0]) && isAny(asked.rounds[1]) }]
    }))
    if (day < overDays) for (const [tankId, is] of now) for (const rule of ['act', 'anySign', 'twoDays'] as const) if (is[rule] && !before.get(tankId)?.[rule]) episodes[rule] += 1
    before = now
  }
  const aWeek = (of: number): string => ((of / overDays) * 7).toFixed(1)
  console.log(`\nThe demo's last ${overDays} days: a tank comes to act ${aWeek(episodes.act)} times a week; were any sign act, ${aWeek(episodes.anySign)} times, and any two days running, ${aWeek(episodes.twoDays)} times; ${(watched / (overDays + 1)).toFixed(1)} tanks a day at watch or act`)
}
