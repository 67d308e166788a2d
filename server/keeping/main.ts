import { createWriteStream } from 'node:fs'
import { rename } from 'node:fs/promises'
import { dirname, resolve } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { readConfig } from '../config'
import { openDatabase } from '../db/open'
import { makeBackup, restoreBackup } from './backup'
import { tryCopy } from './copies'
import { exportRoom, type Progress } from './exportRoom'
import { databaseIn, takeFolder } from './folder'
import { importRoom } from './importRoom'

// `npm run backup|restore|try|export|import -- FILE`: keeping a room, and bringing it back.
const [what = '', file = ''] = process.argv.slice(2)
// Whatever is written holds the secrets of the staff as hashes: it is for whoever writes it alone.
process.umask(0o077)
const folder = dirname(readConfig(process.env).databaseFile)

const progress = (): Progress => {
  let shown = -1
  return (done, total) => {
    const percent = Math.floor((done / Math.max(1, total)) * 100)
    if (percent === shown) return
    shown = percent
    process.stderr.write(`\r${done.toLocaleString('en')} of ${total.toLocaleString('en')} rows (${percent} %)${done === total ? '\n' : ''}`)
  }
}

/** Runs work that must have the room to itself. */
async function alone<T>(work: () => Promise<T>): Promise<T> {
  const letGo = takeFolder(folder)
  try {
    return await work()
  } finally {
    letGo()
  }
}

async function exportTo(target: string): Promise<void> {
  const db = openDatabase(databaseIn(folder))
  await pipeline(Readable.from(exportRoom(db.raw, folder, Date.now(), progress())), createWriteStream(`${target}.part`))
  await rename(`${target}.part`, target)
  db.close()
}

const deeds: Record<string, (target: string) => Promise<string>> = {
  backup: async (target) => (await makeBackup(folder, target), `The room is kept in ${target}`),
  restore: async (target) => {
    const aside = await alone(() => restoreBackup(target, folder, Date.now()))
    return `The room is as it was kept${aside ? `; what stood there before is in ${aside}` : ''}`
  },
  try: async (target) => {
    const { tookMs, movements } = await tryCopy(target, Date.now())
    return `${target} brings the room back: ${movements.toLocaleString('en')} movements, books right, ${(tookMs / 1000).toFixed(1)} s`
  },
  export: async (target) => (await alone(() => exportTo(target)), `The room is written to ${target}`),
  import: async (target) => {
    const { rows, photos } = await alone(() => importRoom(target, folder, progress()))
    return `${rows.toLocaleString('en')} rows and ${photos} photos are in ${folder}`
  },
}

try {
  const deed = deeds[what]
  if (!deed || !file) throw new Error(`Say what and which file: npm run ${Object.keys(deeds).join('|')} -- FILE`)
  console.log(await deed(resolve(file)))
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  process.exitCode = 1
}
