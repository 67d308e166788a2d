import { readConfig } from './config'
import { openDatabase } from './db/open'
import { checkLedger } from './ledger/checkLedger'

// `npm run check`: is every count still the sum of its movements?
const db = openDatabase(readConfig(process.env).databaseFile)
const { movements, stockRows, faults } = checkLedger(db)
console.log(`${movements} movements, ${stockRows} balances, ${faults.length} faults`)
for (const fault of faults) console.log(`  ${fault}`)
db.close()
process.exitCode = faults.length > 0 ? 1 : 0
