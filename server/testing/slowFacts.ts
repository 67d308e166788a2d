import type { Raw } from '../db/guard'
import type { Horizon } from '../facts/facts.store'

// What is known of a tank, worked out from the ledger and the checks the long way round: no stay, no stock, no observation,
// no fold. Tests hold the facts against it.

interface MovementRow {
  seq: number
  id: string
  kind: string
  lot_id: string
  from_place_id: string
  to_place_id: string
  quantity: number
  reverses_id: string | null
  cause: string | null
  happened_at_ms: number
}
interface CheckRow {
  id: string
  ate: string
  signs: string
  seen: number | null
  note: string | null
  happened_at_ms: number
  recorded_at_ms: number
  round_on: string
  round_number: number
  replaced_by_id: string | null
}

/** What facts say of a tank, as far as the books can say it by themselves. */
export function slowFacts(raw: Raw, tankId: string, { looksMs, lossesMs, fightsMs }: Horizon) {
  const all = raw.prepare('SELECT * FROM movement ORDER BY seq').all() as MovementRow[]
  const backs = new Set(all.map((row) => row.reverses_id))
  const stood = all.filter((row) => row.kind !== 'reversal' && !backs.has(row.id))
  const touching = (lotId: string) => stood.filter((row) => row.lot_id === lotId && (row.from_place_id === tankId || row.to_place_id === tankId)).sort((a, b) => a.happened_at_ms - b.happened_at_ms || a.seq - b.seq)
  const checks = (raw.prepare('SELECT * FROM "check" WHERE tank_id = ?').all(tankId) as CheckRow[]).filter((row) => row.replaced_by_id === null)
  const answers = [...checks].sort((a, b) => b.happened_at_ms - a.happened_at_ms || b.recorded_at_ms - a.recorded_at_ms || (a.id < b.id ? 1 : -1))
  const losses = stood.filter((row) => row.kind === 'loss' && row.from_place_id === tankId)
  const lots = [...new Set(all.map((row) => row.lot_id))].flatMap((lotId) => {
    let [fish, sinceMs] = [0, 0]
    for (const row of touching(lotId)) {
      const before = fish
      fish += row.to_place_id === tankId ? row.quantity : -row.quantity
      if (before <= 0 && fish > 0) sinceMs = row.happened_at_ms
    }
    if (fish <= 0) return []
    const own = answers.filter((row) => row.ate !== 'not fed' && row.happened_at_ms >= sinceMs)
    const fed = own.findIndex((row) => row.ate !== 'none')
    const meal = own[fed]
    const of = (row: CheckRow | undefined) => (row ? { ate: row.ate, atMs: row.happened_at_ms } : null)
    return [{ lotId, quantity: fish, sinceMs, lastAnswer: of(own[0]), lastMeal: of(meal), losses: losses.filter((row) => row.lot_id === lotId && row.happened_at_ms >= lossesMs).map((row) => row.id).sort() }]
  })
  return {
    lots: lots.sort((a, b) => (a.lotId < b.lotId ? -1 : 1)),
    newest: answers[0]?.id ?? null,
    looks: answers.filter((row) => row.happened_at_ms >= looksMs).map((row) => [row.id, row.ate, row.signs, row.seen, row.note]),
    losses: losses.filter((row) => row.happened_at_ms >= lossesMs).map((row) => row.id).sort(),
    fights: [...answers.filter((row) => /"chas(ed|ing)"/.test(row.signs)), ...losses.filter((row) => row.cause === 'eaten')].filter((row) => row.happened_at_ms >= fightsMs).map((row) => row.id).sort(),
  }
}
