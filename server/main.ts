import { dirname } from 'node:path'
import { readConfig } from './config'
import { openDatabase } from './db/open'
import { takeFolder } from './keeping/folder'
import { checkLedger } from './ledger/checkLedger'
import { closeOnSignal, listen } from './listen'

const config = readConfig(process.env)
takeFolder(dirname(config.databaseFile))
const db = openDatabase(config.databaseFile)
if (config.mostMegabytes !== null) db.limitTo(config.mostMegabytes)
const { faults } = checkLedger(db)
if (faults.length > 0 && !config.startsDamaged) {
  console.error(`The books of this room are not right, so it does not start:\n  ${faults.slice(0, 20).join('\n  ')}`)
  console.error('Restore the newest backup (npm run restore -- FILE). To work on meanwhile, set CRATE_START_DAMAGED=1.')
  process.exit(1)
}
const { server, url } = await listen(config, db)
closeOnSignal(server, db)
console.log(`Daily Crate is at ${url} (data: ${config.databaseFile})`)
