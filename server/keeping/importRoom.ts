import { createReadStream, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { claimStates } from '../../core/crates/claim'
import { roomFormat, roomFormatVersion } from '../../core/keeping/keeping'
import { observationKinds } from '../../core/facts/observation'
import { hows } from '../../core/pools/attribute'
import { tankKinds, waters } from '../../core/room/room.schema'
import { ateAnswers } from '../../core/rounds/rounds.schema'
import { stocktakeKinds } from '../../core/stocktake/stocktake.schema'
import { roles } from '../../core/staff/staff.schema'
import type { Raw } from '../db/guard'
import { openDatabase, type Database } from '../db/open'
import { installTriggers, rereadExpected } from '../db/triggers'
import { unplayableHolds } from '../holds/unplayable'
import { checkLedger } from '../ledger/checkLedger'
import type { Progress } from './exportRoom'
import { fillFromEarlier, makeFormerColumns } from './fromEarlier'
import { databaseIn, photosIn } from './folder'
import { moveAgentWords } from '../species/agentWords'
import { columnsOf, exportedTables, laterTables, type Column } from './tables'

const rowsAtOnce = 20_000
/** A line that is longer is no row of ours; a photo is smaller. */
const longestLine = 40_000_000

/** What stands in the way of taking a file in, by its line. */
export class ImportError extends Error {
  constructor(line: number, what: string) {
    super(`Line ${line}: ${what}. Nothing was taken in`)
  }
}

/**
 * Makes a room from a full export, in a folder that holds none. Rows are read one by one; the room appears only when
 * all of it is in and its books are right.
 * @throws ImportError naming the line; the folder is then as it was.
 */
export async function importRoom(file: string, folder: string, onProgress: Progress = () => undefined): Promise<{ rows: number; photos: number }> {
  if (existsSync(databaseIn(folder))) throw new Error(`There is a room in ${folder} already; name an empty folder in CRATE_DATA`)
  if (!existsSync(file)) throw new Error(`There is no file ${file}`)
  mkdirSync(folder, { recursive: true })
  const work = mkdtempSync(join(folder, '.import-'))
  let db: Database | null = null
  try {
    db = openDatabase(databaseIn(work))
    const taken = await takeIn(file, work, db, onProgress)
    const faults = [...checkLedger(db).faults, ...unplayableHolds(db)]
    if (faults.length > 0) throw new ImportError(1, `the books of this file are not right: ${faults[0]}`)
    db.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
    db.close()
    renameSync(databaseIn(work), databaseIn(folder))
    if (taken.photos > 0) renameSync(photosIn(work), photosIn(folder))
    return taken
  } finally {
    if (db?.raw.open) db.close()
    rmSync(work, { recursive: true, force: true })
  }
}

async function takeIn(file: string, work: string, db: Database, onProgress: Progress): Promise<{ rows: number; photos: number }> {
  // A half-made room is thrown away, so nothing needs to wait for the disk; references are checked at the end.
  db.raw.exec('PRAGMA synchronous=OFF')
  db.raw.exec('PRAGMA foreign_keys=OFF')
  // All movements stand before all shares here, an order in which there may have been fewer than none; they are read together at the end.
  db.raw.exec('DROP TRIGGER pool_share_keeps_expected')
  makeFormerColumns(db.raw)
  const state = { line: 0, total: 0, rows: 0, photos: 0, table: '', insert: null as ((row: unknown) => void) | null, seen: new Set<string>(), isEnded: false }
  db.raw.exec('BEGIN')
  for await (const text of linesOf(file)) {
    state.line += 1
    if (state.line === 1) state.total = readHead(text)
    else if (/^"[a-z_]+":\[$/.test(text)) openTable(text.slice(1, -3))
    else if (text === ']}') state.isEnded = true
    else if (text === '},"photos":[') [state.table, state.insert] = ['photos', keepPhoto]
    else if (text !== '],' && text !== ']' && text !== '') takeRow(text)
  }
  if (!state.isEnded) throw new ImportError(state.line, 'the file ends before its end; export it again')
  const missing = exportedTables.filter((table) => !state.seen.has(table) && !laterTables.includes(table))
  if (missing.length > 0) throw new ImportError(state.line, `the file has no table ${missing.join(', ')}`)
  if (state.rows !== state.total) throw new ImportError(state.line, `the file promises ${state.total} rows and holds ${state.rows}`)
  moveAgentWords(db.raw)
  fillFromEarlier(db.raw, laterTables.filter((table) => !state.seen.has(table)))
  rereadExpected(db.raw)
  installTriggers(db.raw)
  db.raw.exec('COMMIT')
  onProgress(state.rows, state.total)
  return { rows: state.rows, photos: state.photos }

  function openTable(table: string): void {
    if (!(exportedTables as readonly string[]).includes(table)) throw new ImportError(state.line, `there is no table ${table} here; the file may come from a newer version`)
    state.table = table
    state.seen.add(table)
    state.insert = insertInto(db.raw, table)
    // The place outside is there from the start.
    if (table === 'place') db.raw.exec('DELETE FROM place')
  }

  function takeRow(text: string): void {
    if (!state.insert) throw new ImportError(state.line, 'a row stands outside of any table')
    const row = parsed(text.endsWith(',') ? text.slice(0, -1) : text)
    try {
      state.insert(row)
    } catch (error) {
      throw new ImportError(state.line, `this row of ${state.table} cannot be taken in (${error instanceof Error ? error.message : String(error)})`)
    }
    if (state.table === 'photos') return
    state.rows += 1
    if (state.rows % rowsAtOnce !== 0) return
    db.raw.exec('COMMIT')
    db.raw.exec('BEGIN')
    onProgress(state.rows, state.total)
  }

  function keepPhoto(row: unknown): void {
    const { name, base64 } = row as { name?: unknown; base64?: unknown }
    if (typeof name !== 'string' || !/^[A-Za-z0-9_-]+\.(jpg|png|webp)$/.test(name) || typeof base64 !== 'string') throw new Error('a photo needs a plain file name and its bytes')
    mkdirSync(photosIn(work), { recursive: true })
    writeFileSync(join(photosIn(work), name), Buffer.from(base64, 'base64'))
    state.photos += 1
  }

  function parsed(text: string): unknown {
    try {
      return JSON.parse(text) as unknown
    } catch {
      throw new ImportError(state.line, 'this is not a whole row; the file was cut or changed')
    }
  }
}

/** Reads a file line by line, and no further into a line than a row may be long. */
async function* linesOf(file: string): AsyncGenerator<string> {
  let [rest, line] = ['', 0]
  for await (const chunk of createReadStream(file, { encoding: 'utf8', highWaterMark: 1 << 20 })) {
    const parts = (rest + String(chunk)).split('\n')
    rest = parts.pop() ?? ''
    for (const part of parts) {
      line += 1
      yield part.endsWith('\r') ? part.slice(0, -1) : part
    }
    if (rest.length > longestLine) throw new ImportError(line + 1, 'this line is too long for a row')
  }
  if (rest !== '') yield rest
}

function readHead(text: string): number {
  const head = /^(\{.*),"tables":\{$/.exec(text)?.[1]
  const { format, version, rows } = (head ? (JSON.parse(`${head}}`) as unknown) : {}) as { format?: unknown; version?: unknown; rows?: unknown }
  if (format !== roomFormat || typeof rows !== 'number') throw new ImportError(1, 'this is not a full export of Daily Crate')
  if (version !== roomFormatVersion) throw new ImportError(1, `this export has version ${String(version)}; this program reads version ${roomFormatVersion}`)
  return rows
}

/** Makes the insert of a table: known columns only, each of its declared type. Columns a file leaves out take their default. */
function insertInto(raw: Raw, table: string): (row: unknown) => void {
  const columns = new Map(columnsOf(raw, table).map((column) => [column.name, column]))
  const statements = new Map<string, ReturnType<Raw['prepare']>>()
  return (row) => {
    if (row === null || typeof row !== 'object' || Array.isArray(row)) throw new Error('a row must be an object')
    const names = Object.keys(row)
    const values = Object.values(row) as unknown[]
    names.forEach((name, index) => checkCell(columns.get(name), name, values[index]))
    checkWords(table, row as Record<string, unknown>)
    const shape = names.join()
    const statement = statements.get(shape) ?? raw.prepare(`INSERT INTO "${table}" (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`)
    statements.set(shape, statement)
    statement.run(values)
  }
}

/** Words that the database takes from anybody and everything else here relies on. */
const closedWords: Record<string, Record<string, readonly string[]>> = {
  staff: { role: roles },
  system: { water: waters },
  species: { water: waters },
  lot: { water: waters },
  tank: { kind: tankKinds },
  claim: { state: claimStates },
  check: { ate: ateAnswers },
  observation: { kind: observationKinds },
  pool_event: { how: hows },
  stocktake: { kind: stocktakeKinds },
}

function checkWords(table: string, row: Record<string, unknown>): void {
  for (const [name, words] of Object.entries(closedWords[table] ?? {})) {
    const word = row[name]
    if (typeof word === 'string' && !words.includes(word)) throw new Error(`${name} must be one of ${words.join(', ')}, not ${word.slice(0, 40)}`)
  }
}

function checkCell(column: Column | undefined, name: string, value: unknown): void {
  if (!column) throw new Error(`there is no column ${name}; the file may come from a newer version`)
  if (value === null) {
    if (column.isRequired) throw new Error(`${name} is missing`)
    return
  }
  const fits = column.type === 'TEXT' ? typeof value === 'string' : typeof value === 'number' && (column.type === 'REAL' || Number.isInteger(value))
  if (!fits) throw new Error(`${name} must be ${{ TEXT: 'text', REAL: 'a number', INTEGER: 'a whole number' }[column.type]}`)
}
