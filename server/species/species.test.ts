import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import BetterSqlite3 from 'better-sqlite3'
import { emptyValues } from '../../core/setup/registerCsv'
import { registers, type RegisterRow, type RegisterValues } from '../../core/setup/registers'
import type { BookChange } from '../../core/species/bookChanges'
import { formerBook, speciesBook } from '../../core/species/speciesBook'
import { openDatabase } from '../db/open'
import { createTestRoom, plainBag, type TestRoom } from '../testing/testRoom'
import { moveAgentWords } from './agentWords'

let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const rows = async (): Promise<RegisterRow[]> => (await room.get('/api/setup/species')).body.rows
const named = async (name: string): Promise<RegisterRow | undefined> => (await rows()).find(({ values }) => values.name === name)
const changes = async (): Promise<BookChange[]> => (await room.get('/api/species-book/changes')).body.rows
const takeIn = async (all: BookChange[]) => room.post('/api/setup/species/import', { rows: all.map(({ id, version, values }) => ({ id, version, values })) })

/** A species as the first edition of the book shipped it: what it says otherwise now is taken back, what is new is empty. */
function asShippedFirst(name: string): RegisterValues {
  const entry = speciesBook.find((each) => each.name === name)
  const newFields = ['otherNames', 'lookAlikes', 'waters', 'crossing', 'hardness', 'tradedCm', 'eats', 'ownKind', 'company', 'habits', 'mouth', 'firstFoodKinds', 'bearsHunger', 'agentGroups', 'hurts', 'poisons', 'catchWith', 'fins', 'escapes', 'needs', 'breeds', 'law', 'copper', 'formalin', 'malachiteGreen', 'methyleneBlue', 'salt', 'praziquantel', 'chloroquine', 'lowSalinity']
  const empty = emptyValues(registers.species.fields.filter((field) => newFields.includes(field.name)))
  return { ...entry, ...empty, ...Object.fromEntries(Object.entries(formerBook[name] ?? {}).map(([field, values]) => [field, values.at(-1) ?? null])) }
}
const add = async (values: RegisterValues): Promise<string> => (await room.post('/api/setup/species', { values })).body.id

describe('a room of the first edition', () => {
  test('is offered the new book; a new name keeps row and lots, and the name that moves on goes to its new bearer', async () => {
    const [galaxy, dwarf] = [await add(asShippedFirst('Celestial pearl danio')), await add(asShippedFirst('Emerald dwarf danio'))]
    expect((await rows()).map(({ values }) => values.name).sort()).toEqual(['Celestial pearl danio', 'Galaxy rasbora'])
    await room.addFish(room.tanks[0], 'Galaxy rasbora', 12)
    const offered = await changes()
    expect(offered.map(({ key, values }) => [key, values.name])).toEqual([['Celestial pearl danio', 'Emerald dwarf danio'], ['Galaxy rasbora', 'Celestial pearl danio']])
    expect((await takeIn(offered)).body).toEqual({ rows: 2 })
    expect((await rows()).map(({ id, values }) => [id, values.name, values.scientificName]).sort()).toEqual([[galaxy, 'Celestial pearl danio', 'Danio margaritatus'], [dwarf, 'Emerald dwarf danio', 'Danio erythromicron']].sort())
    expect((await room.get(`/api/tanks/R1-01`)).body.stock[0].species).toBe('Celestial pearl danio')
    // Both names of before are found, and nothing is left to offer.
    expect(await changes()).toEqual([])
    await room.addFish(room.tanks[1], 'galaxy rasbora', 3)
    expect(await rows()).toHaveLength(2)
  })

  test('what the room wrote itself stays, and what it emptied itself as well', async () => {
    const id = await add({ ...asShippedFirst('Clown loach'), minTankL: 300, firstFoods: 'our own snails', tolerance: null, copper: 'usual' })
    const [change] = await changes()
    expect(change?.changes).toEqual(expect.arrayContaining(['eats', 'size when traded', 'other names', 'formalin']))
    for (const own of ['tank of at least', 'first foods', 'tolerance', 'copper']) expect(change?.changes).not.toContain(own)
    await takeIn([change as BookChange])
    const row = (await rows()).find((each) => each.id === id)
    expect(row?.values).toMatchObject({ minTankL: 300, firstFoods: 'our own snails', tolerance: null, copper: 'usual', eats: ['snails', 'shrimp'], tradedCm: 7 })
    // Emptied after the book was taken in, a cell is not filled again.
    await room.put(`/api/setup/species/${id}`, { version: row?.version, values: { ...row?.values, eats: [] } })
    expect(await changes()).toEqual([])
  })

  test('a name that somebody else bears is left alone; a keeper is not offered anything', async () => {
    await add(asShippedFirst('Regal tang'))
    await add({ ...emptyValues(registers.species.fields), name: 'Regal tang', note: 'our own entry' })
    const offered = (await changes()).find(({ key }) => key === 'Blue tang')
    expect([offered?.values.name, offered?.changes.includes('name')]).toEqual(['Blue tang', false])
  })

  test('is brought up to date: agents leave “sensitive to” for their own columns, in the water as in the book', () => {
    const folder = mkdtempSync(join(tmpdir(), 'daily-crate-old-'))
    const file = join(folder, 'room.sqlite')
    const migrations = join('server', 'db', 'migrations')
    const journal = (JSON.parse(readFileSync(join(migrations, 'meta', '_journal.json'), 'utf8')) as { entries: { tag: string; when: number }[] }).entries
    const old = journal.filter(({ tag }) => tag < '0006')
    const raw = new BetterSqlite3(file)
    for (const { tag } of old) for (const statement of readFileSync(join(migrations, `${tag}.sql`), 'utf8').split('--> statement-breakpoint')) raw.exec(statement)
    raw.exec('CREATE TABLE __drizzle_migrations (id INTEGER PRIMARY KEY, hash text NOT NULL, created_at numeric)')
    raw.prepare('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)').run('old', old.at(-1)?.when)
    raw.prepare(`INSERT INTO species (id, name, name_key, sensitivities, created_at_ms, version) VALUES ('s', 'Amano shrimp', 'amano shrimp', '["copper","formalin","medicine dyes","netting"]', 1, 1)`).run()
    raw.prepare(`INSERT INTO system (id, name, water, agents, version) VALUES ('w', 'Hospital', 'fresh', '["copper","medicine dyes"]', 1)`).run()
    raw.exec(`INSERT INTO place (id, kind) VALUES ('t', 'tank'); INSERT INTO tank (id, code, kind, system_id, rack, shelf, position) VALUES ('t', 'R1-01', 'glass', 'w', 'R1', 1, 1); INSERT INTO staff (id, name, role, pin_hash, created_at_ms) VALUES ('i', 'Imre', 'lead', '', 1)`)
    raw.prepare(`INSERT INTO agent (id, name, version) VALUES ('a', 'Methylene blue 1 %', 1)`).run()
    raw.close()
    const db = openDatabase(file)
    expect(db.raw.prepare('SELECT sensitivities, copper, formalin, malachite_green, methylene_blue, salt FROM species').get()).toEqual({ sensitivities: '["netting"]', copper: 'forbidden', formalin: 'forbidden', malachite_green: 'forbidden', methylene_blue: 'forbidden', salt: null })
    // What stands in a water was found in each of its tanks; nobody knows when it went in.
    expect(db.raw.prepare('SELECT kind, place_id, word FROM hold_entry ORDER BY word').all()).toEqual(['copperIonic', 'malachite green', 'methyleneBlue'].map((word) => ({ kind: 'found', place_id: 't', word })))
    expect(db.raw.prepare('SELECT substance FROM agent').get()).toEqual({ substance: 'methylene blue' })
    db.close()
    rmSync(folder, { recursive: true, force: true })
  })

  test('an export of its time comes in with its agents in their columns; what the columns say already stays', async () => {
    const id = await add({ ...asShippedFirst('Kuhli loach'), methyleneBlue: 'usual' })
    room.db.raw.prepare(`UPDATE species SET sensitivities = '["copper","medicine dyes","netting"]' WHERE id = ?`).run(id)
    moveAgentWords(room.db.raw)
    expect((await named('Kuhli loach'))?.values).toMatchObject({ sensitivities: ['netting'], copper: 'forbidden', malachiteGreen: 'forbidden', methyleneBlue: 'usual' })
  })
})

describe('names on a list', () => {

  test('any of its names finds a species; one that means several is asked, never matched', async () => {
    await room.crateOf([['galaxy rasbora', 8, 1, null], ['Hoplisoma pygmaeum', 10, 1, null], ['captive-bred  SEAHORSE', 1, 1, null]])
    expect((await rows()).map(({ values }) => values.name)).toEqual(['Celestial pearl danio', 'Common seahorse', 'Pygmy corydoras'])
    const asked = 'Blue tang is what several kinds are called: Regal tang, Powder blue tang. Write which it is; if none of them, add a word to the name'
    const line = { species: 'Blue tang', count: 1, bags: 1, perBag: null, tankId: null }
    const crate = await room.post('/api/crates', { supplier: 'Pale Harbour', expectedAtMs: null, packedAtMs: null, lines: [{ ...line, species: 'Guppy' }, line] })
    expect([crate.status, crate.body.errors]).toEqual([422, [{ path: 'lines[1].species', message: asked }]])
    const fish = await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, { species: 'BLUE tang', quantity: 1, how: 'brought-in', note: null, happenedAtMs: room.clock.nowMs })
    expect([fish.status, fish.body.errors[0].path]).toEqual([422, 'species'])
    expect(await rows()).toHaveLength(3)
  })

  test('a bag that nobody listed is counted in under whatever it is called: its name waits, the touch does not', async () => {
    const crate = await room.crateOf([['Guppy', 5, 1, null]])
    expect((await room.post(`/api/crates/${crate.id}/added-bags`, { species: 'Angelfish', alive: 3, dead: 0, note: null, happenedAtMs: room.clock.nowMs })).status).toBe(201)
    expect((await named('Angelfish'))?.values.scientificName).toBeNull()
    // What the room itself calls so is meant from then on.
    expect((await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, { species: 'angelfish', quantity: 1, how: 'brought-in', note: null, happenedAtMs: room.clock.nowMs })).status).toBe(201)
  })

  test('a doubtful line is told what the species is mistaken for', async () => {
    const crate = await room.crateOf([['Kuhli loach', 5, 1, null], ['Moonfish', 2, 1, null]])
    expect((await room.get(`/api/crates/${crate.id}`)).body.lines.map(({ lookAlikes }: { lookAlikes: string[] }) => lookAlikes)).toEqual([['Pangio semicincta'], []])
  })

  test('species of the book are here under whatever name the room has them', async () => {
    await add(asShippedFirst('Regal tang'))
    expect((await room.get('/api/species-book')).body.species.find(({ name }: { name: string }) => name === 'Regal tang')).toEqual({ name: 'Regal tang', scientificName: 'Paracanthurus hepatus', water: 'marine', isHere: true })
    expect((await room.post('/api/setup/species/adoptions', { names: ['Regal tang', 'Lionfish'] })).body).toEqual({ adopted: 1 })
  })
})

describe('fish that hurt, or poison their bag', () => {
  test('say so wherever they are in the hand: line, tank and bench', async () => {
    const crate = await room.crateOf([['Spotted scat', 4, 1, room.tanks[0] ?? null], ['Bronze corydoras', 6, 1, room.tanks[1] ?? null]])
    await room.addFish(room.tanks[2], 'Lionfish', 1)
    const view = (await room.get(`/api/crates/${crate.id}`)).body
    expect(view.lines.map(({ handling }: { handling: { hurts: string[]; poisons: string } }) => [handling.hurts, handling.poisons])).toEqual([[['venomous'], 'no'], [['locks in nets'], 'its bag']])
    expect((await room.get('/api/tanks/R1-03')).body.stock[0].handling.hurts).toEqual(['venomous'])
    expect((await room.get('/api/room')).body.tanks.map(({ danger }: { danger: string | null }) => danger)).toEqual([null, null, 'venomous', null])
    const subject = (await room.get(`/api/bench/subject?line=${view.lines[1].id}`)).body
    expect(subject.kinds).toMatchObject([{ species: 'Bronze corydoras', poisons: 'its bag', waters: ['fresh'], crossing: 'none' }])
  })

  test('cloudy water in a bag of corydoras is no reason to wait, as it is for others', async () => {
    const steps: string[] = []
    for (const species of ['Bronze corydoras', 'Cherry barb']) {
      const crate = await room.crateOf([[species, 6, 1, room.tanks[0] ?? null]])
      await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([crate.bags[0]?.id ?? ''], 6), concerns: ['water'] })
      steps.push((await room.get(`/api/bench/subject?line=${crate.lines[0]?.id}`)).body.triage.step)
    }
    expect(steps).toEqual(['release at once', 'first-response bath, then an observation tank'])
  })
})
