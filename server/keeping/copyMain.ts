import { once } from 'node:events'
import { connect } from '../db/guard'
import { copyDatabase, makeBackup } from './backup'
import { exportRoom } from './exportRoom'
import { countRows } from './tables'

// Runs beside the server: copies a room, or writes all of it out, without holding up anybody's touch.
const [folder = '', file = '', nowMs = '0'] = process.argv.slice(2)
if (file.endsWith('.tgz')) await makeBackup(folder, file)
else {
  copyDatabase(folder, file)
  const copy = connect(file)
  // How much is to come is told ahead of it.
  process.send?.({ rows: countRows(copy) })
  for (const part of exportRoom(copy, folder, Number(nowMs))) if (!process.stdout.write(part)) await once(process.stdout, 'drain')
  copy.close()
}
if (process.connected) process.disconnect()
