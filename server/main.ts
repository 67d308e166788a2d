import { readConfig } from './config'
import { openDatabase } from './db/open'
import { closeOnSignal, listen } from './listen'

const config = readConfig(process.env)
const db = openDatabase(config.databaseFile)
const { server, url } = await listen(config, db)
closeOnSignal(server, db)
console.log(`Daily Crate is at ${url} (data: ${config.databaseFile})`)
