import type { Raw } from './guard'

const inHand = `coalesce((SELECT quantity FROM stock WHERE place_id = NEW.from_place_id AND lot_id = NEW.lot_id), 0)`

const stayAt = (place: string): string => `place_id = ${place} AND lot_id = NEW.lot_id`
const openStayAt = (place: string): string => `${stayAt(place)} AND until_ms IS NULL AND is_possible = 0`

/** Whether what stood before stays as it is, and a movement only goes on from there: it is the newest of its lot. */
const goesOn = `NEW.kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement later WHERE later.lot_id = NEW.lot_id AND later.happened_at_ms > NEW.happened_at_ms)`

/**
 * The stays of the lot at a place, read anew: by when things happened, without what was taken back. The running sum tells
 * where the first came and where the last left (core/ledger/stays.ts says the same, and the check compares the two).
 */
const readStaysAnew = (place: string): string => `DELETE FROM stay WHERE ${stayAt(place)} AND is_possible = 0;
      INSERT INTO stay (place_id, lot_id, from_ms, opened_by_id, until_ms, closed_by_id)
        SELECT ${place}, NEW.lot_id, at_ms, id, until_ms, closed_by_id FROM (
          SELECT *, lead(at_ms) OVER (ORDER BY at_ms, seq) AS until_ms, lead(id) OVER (ORDER BY at_ms, seq) AS closed_by_id FROM (
            SELECT *, sum(change) OVER (ORDER BY at_ms, seq) AS fish FROM (
              SELECT id, seq, happened_at_ms AS at_ms, CASE ${place} WHEN to_place_id THEN quantity ELSE -quantity END AS change FROM movement AS m
                WHERE lot_id = NEW.lot_id AND ${place} IN (from_place_id, to_place_id) AND kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)))
          WHERE (fish > 0) <> (fish - change > 0))
        WHERE fish > 0 AND ${place} <> 'outside';
      UPDATE stock SET since_ms = coalesce((SELECT from_ms FROM stay WHERE ${openStayAt(place)}), since_ms) WHERE ${stayAt(place)};`

/** Places of which it is kept how many fish of a lot are to be expected. */
const isKept = (place: string): string => `(SELECT kind FROM place WHERE id = ${place}) IN ('tank', 'vessel')`
const changeOfShare = `(NEW.expected - NEW.booked * 1000000)`
const ofShare = `place_id = NEW.place_id AND lot_id = NEW.lot_id`
const neverChanged = (table: string, what: string): Record<string, string> =>
  Object.fromEntries(['update', 'delete'].map((verb) => [`${table}_never_${verb}d`, `BEFORE ${verb.toUpperCase()} ON ${table} BEGIN SELECT RAISE(ABORT, 'ledger: ${what} is never ${verb}d'); END`]))

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
  // Two triggers fire in no promised order: the stock asks for the stay, and the stay puts the stock right.
  movement_keeps_stock: `AFTER INSERT ON movement BEGIN
      UPDATE stock SET quantity = quantity - NEW.quantity WHERE ${stayAt('NEW.from_place_id')};
      DELETE FROM stock WHERE ${stayAt('NEW.from_place_id')} AND quantity = 0;
      INSERT INTO stock (place_id, lot_id, quantity, since_ms)
        SELECT NEW.to_place_id, NEW.lot_id, NEW.quantity, coalesce((SELECT from_ms FROM stay WHERE ${openStayAt('NEW.to_place_id')}), NEW.happened_at_ms) WHERE NEW.to_place_id <> 'outside'
        ON CONFLICT (place_id, lot_id) DO UPDATE SET quantity = quantity + excluded.quantity;
      UPDATE stay SET until_ms = NEW.happened_at_ms, closed_by_id = NEW.id WHERE ${openStayAt('NEW.from_place_id')}
        AND NOT EXISTS (SELECT 1 FROM stock WHERE ${stayAt('NEW.from_place_id')}) AND ${goesOn};
      INSERT INTO stay (place_id, lot_id, from_ms, opened_by_id)
        SELECT NEW.to_place_id, NEW.lot_id, NEW.happened_at_ms, NEW.id FROM stock WHERE ${stayAt('NEW.to_place_id')} AND quantity = NEW.quantity AND ${goesOn};
    END`,
  movement_reads_stays_anew: `AFTER INSERT ON movement WHEN NOT (${goesOn}) BEGIN
      ${readStaysAnew('NEW.from_place_id')}
      ${readStaysAnew('NEW.to_place_id')}
    END`,
  // As many fish more or fewer are to be expected as are booked; an event's shares say beforehand where that is not so.
  movement_expected_not_below_zero: `BEFORE INSERT ON movement WHEN ${isKept('NEW.from_place_id')} AND ${inHand} >= NEW.quantity
      AND coalesce((SELECT millionths FROM expected_stock WHERE ${stayAt('NEW.from_place_id')}), 0) < NEW.quantity * 1000000
    BEGIN SELECT RAISE(ABORT, 'ledger: fewer are to be expected of this lot'); END`,
  movement_keeps_expected: `AFTER INSERT ON movement BEGIN
      UPDATE expected_stock SET millionths = millionths - NEW.quantity * 1000000 WHERE ${stayAt('NEW.from_place_id')};
      DELETE FROM expected_stock WHERE ${stayAt('NEW.from_place_id')} AND millionths = 0;
      INSERT INTO expected_stock (place_id, lot_id, millionths) SELECT NEW.to_place_id, NEW.lot_id, NEW.quantity * 1000000 WHERE ${isKept('NEW.to_place_id')}
        ON CONFLICT (place_id, lot_id) DO UPDATE SET millionths = millionths + excluded.millionths;
    END`,
  // The change first: a row that would be inserted is checked before it is found to be there already.
  pool_share_keeps_expected: `AFTER INSERT ON pool_share WHEN ${changeOfShare} <> 0 BEGIN
      UPDATE expected_stock SET millionths = millionths + ${changeOfShare} WHERE ${ofShare};
      INSERT INTO expected_stock (place_id, lot_id, millionths) SELECT NEW.place_id, NEW.lot_id, ${changeOfShare} WHERE NOT EXISTS (SELECT 1 FROM expected_stock WHERE ${ofShare});
      DELETE FROM expected_stock WHERE ${ofShare} AND millionths = 0;
    END`,
  ...neverChanged('pool_event', 'what happened to a pool'),
  ...neverChanged('pool_movement', 'what happened to a pool'),
  ...neverChanged('pool_share', 'a share'),
  observation_only_replaced: `BEFORE UPDATE OF seq, kind, tank_id, lot_id, species_id, word, severity, value, instrument, note, about_seq, check_id, staff_id, command_key, happened_at_ms, recorded_at_ms
    ON observation BEGIN SELECT RAISE(ABORT, 'facts: an observation is never changed'); END`,
  observation_never_deleted: `BEFORE DELETE ON observation BEGIN SELECT RAISE(ABORT, 'facts: an observation is never deleted'); END`,
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

const expectedAnew = `SELECT place_id, lot_id, sum(millionths) AS millionths FROM (
    SELECT place_id, lot_id, quantity * 1000000 AS millionths FROM stock WHERE ${isKept('stock.place_id')}
    UNION ALL SELECT place_id, lot_id, expected - booked * 1000000 FROM pool_share)
  GROUP BY place_id, lot_id HAVING sum(millionths) <> 0`

/** Reads the fish to be expected anew, out of what is booked and what the shares say. */
export function rereadExpected(raw: Raw): void {
  raw.exec(`DELETE FROM expected_stock`)
  raw.exec(`INSERT INTO expected_stock (place_id, lot_id, millionths) ${expectedAnew}`)
}

/** Names the ledger triggers that the database lacks; empty when all stand. */
export function missingTriggers(raw: Raw): string[] {
  const rows = raw.prepare(`SELECT name FROM sqlite_master WHERE type = 'trigger'`).all() as { name: string }[]
  const present = new Set(rows.map((row) => row.name))
  return Object.keys(triggers).filter((name) => !present.has(name))
}
