import { dirname } from 'node:path'
import type { NoticeFacts } from '../core/keeping/notice'
import { noticeWords } from '../core/keeping/noticeWords'
import { readConfig } from './config'
import { openDatabase } from './db/open'
import { takeFolder } from './keeping/folder'
import { keepCopies } from './keeping/keepCopies'
import { missingEntries, wrongBooks } from './keeping/startChecks'
import { pageFaults } from './ledger/checkLedger'
import { closeOnSignal, listen } from './listen'

const config = readConfig(process.env)
takeFolder(dirname(config.databaseFile))
const db = openDatabase(config.databaseFile, { keepsTally: true })
if (config.mostMegabytes !== null) db.limitTo(config.mostMegabytes)
// Quick enough for every start.
const faults = pageFaults(db.raw, 'quick_check')
if (faults.length > 0 && !config.startsDamaged) {
  console.error(`The database of this room is damaged, so it does not start:\n  ${faults.slice(0, 20).join('\n  ')}`)
  console.error('Restore the newest backup (npm run restore -- FILE). To work on meanwhile, set CRATE_START_DAMAGED=1.')
  process.exit(1)
}
const missing = missingEntries(db)
const { server, url, notices } = await listen(config, db)
closeOnSignal(server, db)
console.log(`Daily Crate is at ${url} (data: ${config.databaseFile})`)

// Nobody waits for what follows; what it finds stands on every screen.
const tell = (facts: NoticeFacts): void => {
  const { what, then } = noticeWords(facts, (atMs) => new Date(atMs).toISOString().slice(0, 16).replace('T', ' '))
  console.error(`${what} ${then}`)
  try {
    notices.tell(facts, config.now())
    notices.changed()
  } catch (error) {
    console.error('It could not be kept for the screens:', error)
  }
}
const takeBack = (kind: NoticeFacts['kind']): void => {
  if (notices.takeBack(kind)) notices.changed()
}
if (missing) tell(missing)
// From here on the books are what is counted; what was missing is said above.
db.acknowledge(config.now())
wrongBooks(db).then((found) => (found ? tell(found) : takeBack('books-wrong')), (error: unknown) => console.error('The books could not be checked:', error))
if (config.copies !== null) keepCopies({ db, copies: config.copies, now: config.now, tell, isWell: () => takeBack('copies-failing') })
