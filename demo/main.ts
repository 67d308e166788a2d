import { rmSync } from 'node:fs'
import { dirname } from 'node:path'
import { readConfig } from '../server/config'
import { openDatabase } from '../server/db/open'
import { takeFolder } from '../server/keeping/folder'
import { closeOnSignal, listen } from '../server/listen'
import { demoPeople } from './demoBook'
import { furnishFromCache } from './cache'

// `npm run demo`: always a fresh room, dated relative to this start.
// It has a folder of its own, so that no setting can make it empty a real room.
const config = readConfig({ ...process.env, CRATE_DATA: process.env.CRATE_DEMO_DATA ?? 'demo-data', CRATE_COPIES: 'off' })
takeFolder(dirname(config.databaseFile))
for (const ending of ['', '-wal', '-shm']) rmSync(`${config.databaseFile}${ending}`, { force: true })
const timeZone = process.env.CRATE_ZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone
const { entries, madeMs } = await furnishFromCache(config.databaseFile, config.now(), timeZone)
const db = openDatabase(config.databaseFile)
const { server, url } = await listen(config, db)
closeOnSignal(server, db)
const { lead, keepers } = demoPeople
console.log(`Lantern Quay Fishroom (invented; four months, ${entries.toLocaleString('en')} entries${madeMs === null ? ', as made before' : `, made in ${(madeMs / 1000).toFixed(0)} s`}) is at ${url}`)
console.log(`Open it as ${lead.name} with the passphrase: ${lead.passphrase}`)
console.log(`PINs: ${[lead, ...keepers].map(({ name, pin }) => `${name} ${pin}`).join(', ')}`)
