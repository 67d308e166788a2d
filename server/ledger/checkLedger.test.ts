import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { createTestRoom, testNowMs, type TestRoom } from '../testing/testRoom'
import { checkLedger } from './checkLedger'

let room: TestRoom
let lotId: string
let tankId: string
beforeEach(async () => {
  room = await createTestRoom()
  tankId = room.tanks[0]?.id ?? ''
  lotId = await room.addFish(room.tanks[0], 'Cherry barb', 10)
})
afterEach(() => room.db.close())

const raw = () => room.db.raw
const faults = (): string[] => checkLedger(room.db).faults

test('sound books have no fault, and it is said how much was looked at', async () => {
  await room.post(`/api/tanks/${tankId}/moves`, { lotId, quantity: 4, toTankId: room.tanks[1]?.id, note: null, happenedAtMs: testNowMs })
  expect(checkLedger(room.db)).toEqual({ movements: 2, stockRows: 2, faults: [] })
})

describe('whatever is wrong with the books is found', () => {
  test('a balance that somebody changed past the movements', () => {
    raw().exec(`UPDATE stock SET quantity = 12 WHERE lot_id = '${lotId}'`)
    expect(faults()).toEqual([expect.stringContaining(`${lotId}: 12 kept, movements come to 10`)])
    expect(faults()[0]).toContain(tankId)
  })

  test('a balance that is gone, and one that has no movement at all', () => {
    raw().exec(`DELETE FROM stock WHERE lot_id = '${lotId}'`)
    expect(faults()).toEqual([expect.stringMatching(/^place\/lot .+: 0 kept, movements come to 10$/)])
    raw().exec(`INSERT INTO stock (place_id, lot_id, quantity, since_ms) VALUES ('${room.tanks[2]?.id}', '${lotId}', 3, ${testNowMs})`)
    expect(faults()).toHaveLength(2)
  })

  test('stock that is kept for the outside', () => {
    raw().exec(`INSERT INTO stock (place_id, lot_id, quantity, since_ms) VALUES ('outside', '${lotId}', 3, ${testNowMs})`)
    expect(faults()).toContain(`lot ${lotId}: stock is kept for the outside`)
  })

  test('a trigger that is missing, by its name', () => {
    raw().exec('DROP TRIGGER movement_never_deleted')
    expect(faults()).toEqual(['trigger movement_never_deleted is missing'])
  })

  test('a reference to what is not there', () => {
    raw().exec('PRAGMA foreign_keys = OFF')
    raw().exec(`UPDATE tank SET system_id = 'nowhere' WHERE id = '${tankId}'`)
    expect(faults()).toEqual([expect.stringMatching(/^broken reference: .*"table":"tank"/)])
  })
})

describe('the database itself holds the ledger, whatever code comes along', () => {
  test.each([
    ['changed', () => `UPDATE movement SET quantity = 1 WHERE lot_id = '${lotId}'`, 'a movement is never changed'],
    ['deleted', () => `DELETE FROM movement WHERE lot_id = '${lotId}'`, 'a movement is never deleted'],
    ['a command changed', () => `UPDATE command SET recorded_at_ms = 0`, 'a command is never changed'],
    ['a command deleted', () => 'DELETE FROM command', 'a command is never deleted'],
  ])('%s is refused', (_what, sql, words) => {
    expect(() => raw().exec(sql())).toThrow(words)
    expect(faults()).toEqual([])
  })

  test('more than stands there cannot leave, and a reversal mirrors what it reverses', () => {
    const { id } = raw().prepare(`SELECT id FROM movement WHERE lot_id = '${lotId}'`).get() as { id: string }
    const columns = (raw().prepare('PRAGMA table_info(movement)').all() as { name: string }[]).map(({ name }) => name).filter((name) => name !== 'seq')
    // A copy of the first movement with some of its columns changed.
    const insert = (changed: Record<string, string>) => () => raw().exec(`INSERT INTO movement (${columns.join()}) SELECT ${columns.map((name) => changed[name] ?? name).join()} FROM movement WHERE id = '${id}'`)
    expect(insert({ id: `'x'`, kind: `'loss'`, from_place_id: `'${tankId}'`, to_place_id: `'outside'`, quantity: '11' })).toThrow('below zero')
    expect(insert({ id: `'y'`, kind: `'reversal'`, reverses_id: `'${id}'`, from_place_id: `'${tankId}'`, to_place_id: `'outside'`, quantity: '9' })).toThrow('a reversal must mirror what it reverses')
    expect(checkLedger(room.db)).toMatchObject({ movements: 1, faults: [] })
  })
})
