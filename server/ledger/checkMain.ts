import BetterSqlite3 from 'better-sqlite3'
import { drizzle } from 'drizzle-orm/better-sqlite3'
import { guardBinds } from '../db/guard'
import * as schema from '../db/schema'
import { checkLedger } from './checkLedger'

// Runs beside the server: goes through all of the books as they stand at one moment, while they are written to.
const raw = guardBinds(new BetterSqlite3(process.argv[2] ?? ''))
raw.exec('PRAGMA busy_timeout=30000')
raw.exec('BEGIN')
process.stdout.write(JSON.stringify(checkLedger({ raw, orm: drizzle(raw, { schema }) })))
raw.exec('COMMIT')
raw.close()
