import { rmSync } from 'node:fs'
import { readConfig } from '../server/config'
import { openDatabase } from '../server/db/open'
import { closeOnSignal, listen } from '../server/listen'
import { demoPeople } from './demoBook'
import { makeDemo } from './makeDemo'

// `npm run demo`: always a fresh room, dated relative to this start.
// It has a folder of its own, so that no setting can make it empty a real room.
const config = readConfig({ ...process.env, CRATE_DATA: process.env.CRATE_DEMO_DATA ?? 'demo-data' })
for (const ending of ['', '-wal', '-shm']) rmSync(`${config.databaseFile}${ending}`, { force: true })
const db = openDatabase(config.databaseFile)
const timeZone = process.env.CRATE_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone
const { commands } = await makeDemo(db, config.now(), timeZone)
const { server, url } = await listen(config, db)
closeOnSignal(server, db)
const { lead, keepers } = demoPeople
console.log(`Lantern Quay Fishroom (invented; six weeks, ${commands} entries) is at ${url}`)
console.log(`Open it as ${lead.name} with the passphrase: ${lead.passphrase}`)
console.log(`PINs: ${[lead, ...keepers].map(({ name, pin }) => `${name} ${pin}`).join(', ')}`)
