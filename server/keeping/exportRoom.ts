import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { roomFormat, roomFormatVersion } from '../../core/keeping/keeping'
import type { Raw } from '../db/guard'
import { photoNames, photosIn } from './folder'
import { countRows, exportedTables } from './tables'

const rowsAtOnce = 2000
export type Progress = (done: number, total: number) => void

/**
 * Writes a whole room as JSON (docs/formats.md), one row a line, so that neither side ever holds more than a few rows.
 * @param raw - a database nobody writes to meanwhile: a copy, or a room at rest.
 * @param folder - the room's data folder, for its photos; null without.
 */
export function* exportRoom(raw: Raw, folder: string | null, nowMs: number, onProgress: Progress = () => undefined): Generator<string> {
  const total = countRows(raw)
  const head = JSON.stringify({ format: roomFormat, version: roomFormatVersion, exportedAtMs: nowMs, rows: total })
  yield `${head.slice(0, -1)},"tables":{\n`
  let done = 0
  for (const [index, table] of exportedTables.entries()) {
    yield `${index === 0 ? '' : '\n],\n'}"${table}":[`
    let isFirst = true
    for (const rows of pages(raw, table)) {
      yield rows.map((row) => `${isFirst ? ((isFirst = false), '\n') : ',\n'}${JSON.stringify(row)}`).join('')
      onProgress((done += rows.length), total)
    }
  }
  yield '\n]\n},"photos":['
  for (const [index, name] of (folder === null ? [] : photoNames(folder)).entries()) {
    yield `${index === 0 ? '\n' : ',\n'}${JSON.stringify({ name, base64: readFileSync(join(photosIn(folder ?? ''), name)).toString('base64') })}`
  }
  yield '\n]}\n'
}

function* pages(raw: Raw, table: string): Generator<Record<string, unknown>[]> {
  const next = raw.prepare(`SELECT rowid AS "rowid ", * FROM "${table}" WHERE rowid > ? ORDER BY rowid LIMIT ${rowsAtOnce}`)
  let after = -1
  for (;;) {
    const rows = next.all(after) as Record<string, unknown>[]
    if (rows.length === 0) return
    after = Number(rows.at(-1)?.['rowid '])
    for (const row of rows) delete row['rowid ']
    yield rows
  }
}
