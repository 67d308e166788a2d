import type { Raw } from './guard'

/**
 * Since when the fish stand there: what is taken back was never gone, so it goes on from the arrival before what is
 * reversed and does not begin anew.
 */
const since = `coalesce((SELECT happened_at_ms FROM (
          SELECT seq, kind, to_place_id, happened_at_ms,
              SUM(CASE WHEN to_place_id = NEW.to_place_id THEN quantity ELSE -quantity END) OVER (ORDER BY seq ROWS BETWEEN UNBOUNDED PRECEDING AND 1 PRECEDING) AS held
            FROM movement WHERE NEW.kind = 'reversal' AND lot_id = NEW.lot_id AND (from_place_id = NEW.to_place_id OR to_place_id = NEW.to_place_id)
              AND seq < (SELECT seq FROM movement WHERE id = NEW.reverses_id))
        WHERE to_place_id = NEW.to_place_id AND kind <> 'reversal' AND coalesce(held, 0) = 0 ORDER BY seq DESC LIMIT 1), NEW.happened_at_ms)`

const inHand = `coalesce((SELECT quantity FROM stock WHERE place_id = NEW.from_place_id AND lot_id = NEW.lot_id), 0)`

/**
 * What the database itself holds about the ledger, whatever code comes along. Installed anew at every start, because
 * rebuilding a table in a migration drops its triggers silently. ABORT, so that only the statement falls and the
 * transaction can say why.
 */
const triggers: Record<string, string> = {
  movement_never_updated: `BEFORE UPDATE ON movement BEGIN SELECT RAISE(ABORT, 'ledger: a movement is never changed'); END`,
  movement_never_deleted: `BEFORE DELETE ON movement BEGIN SELECT RAISE(ABORT, 'ledger: a movement is never deleted'); END`,
  movement_place_not_below_zero: `BEFORE INSERT ON movement WHEN NEW.from_place_id <> 'outside' AND ${inHand} < NEW.quantity
    BEGIN SELECT RAISE(ABORT, 'ledger: below zero'); END`,
  movement_reversal_matches: `BEFORE INSERT ON movement WHEN NEW.kind = 'reversal' AND NOT EXISTS (
      SELECT 1 FROM movement AS old WHERE old.id = NEW.reverses_id AND old.kind <> 'reversal' AND old.lot_id = NEW.lot_id
        AND old.quantity = NEW.quantity AND old.from_place_id = NEW.to_place_id AND old.to_place_id = NEW.from_place_id)
    BEGIN SELECT RAISE(ABORT, 'ledger: a reversal must mirror what it reverses'); END`,
  movement_keeps_stock: `AFTER INSERT ON movement BEGIN
      UPDATE stock SET quantity = quantity - NEW.quantity WHERE place_id = NEW.from_place_id AND lot_id = NEW.lot_id;
      DELETE FROM stock WHERE place_id = NEW.from_place_id AND lot_id = NEW.lot_id AND quantity = 0;
      INSERT INTO stock (place_id, lot_id, quantity, since_ms)
        SELECT NEW.to_place_id, NEW.lot_id, NEW.quantity, ${since} WHERE NEW.to_place_id <> 'outside'
        ON CONFLICT (place_id, lot_id) DO UPDATE SET quantity = quantity + excluded.quantity;
    END`,
  command_never_updated: `BEFORE UPDATE ON command BEGIN SELECT RAISE(ABORT, 'ledger: a command is never changed'); END`,
  command_never_deleted: `BEFORE DELETE ON command BEGIN SELECT RAISE(ABORT, 'ledger: a command is never deleted'); END`,
}

/** Puts every ledger trigger in place and makes sure that they are the ones of this version. */
export function installTriggers(raw: Raw): void {
  for (const [name, body] of Object.entries(triggers)) {
    raw.exec(`DROP TRIGGER IF EXISTS ${name}`)
    raw.exec(`CREATE TRIGGER ${name} ${body}`)
  }
  const missing = missingTriggers(raw)
  if (missing.length > 0) throw new Error(`ledger triggers are not in place: ${missing.join(', ')}`)
}

/** Names the ledger triggers that the database lacks; empty when all stand. */
export function missingTriggers(raw: Raw): string[] {
  const rows = raw.prepare(`SELECT name FROM sqlite_master WHERE type = 'trigger'`).all() as { name: string }[]
  const present = new Set(rows.map((row) => row.name))
  return Object.keys(triggers).filter((name) => !present.has(name))
}
