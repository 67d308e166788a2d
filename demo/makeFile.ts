import { openDatabase } from '../server/db/open'
import { makeDemo } from './makeDemo'

// Makes the demo room, as of a moment, into a new file: FILE MOMENT DAYS. For tests, which read it there.
const [file = '', atMs, days] = process.argv.slice(2)
const db = openDatabase(file)
// Thrown away when it breaks, so nothing needs to wait for the disk.
db.raw.exec('PRAGMA synchronous=OFF')
await makeDemo(db, Number(atMs), 'UTC', { days: Number(days) })
db.close()
