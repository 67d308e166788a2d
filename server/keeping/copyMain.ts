import { copyDatabase, makeBackup } from './backup'

// Runs beside the server: copies a room without holding up anybody's touch.
const [folder = '', file = ''] = process.argv.slice(2)
if (file.endsWith('.tgz')) await makeBackup(folder, file)
else copyDatabase(folder, file)
