import { drizzle } from 'drizzle-orm/better-sqlite3'
import { connect } from '../db/guard'
import * as schema from '../db/schema'
import { checkLedger } from './checkLedger'

// Runs beside the server: goes through all of the books as they stand at one moment, while they are written to.
const raw = connect(process.argv[2] ?? '', 30_000)
raw.exec('BEGIN')
process.stdout.write(JSON.stringify(checkLedger({ raw, orm: drizzle(raw, { schema }) })))
raw.exec('COMMIT')
raw.close()
