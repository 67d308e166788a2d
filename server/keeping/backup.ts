import { copyFileSync, existsSync, linkSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync, type Stats } from 'node:fs'
import { dirname, join } from 'node:path'
import { create, extract, type ReadEntry } from 'tar'
import { connect } from '../db/guard'
import { openDatabase } from '../db/open'
import { checkLedger } from '../ledger/checkLedger'
import { databaseIn, photoNames, photosIn } from './folder'

/** Written into every backup, so that another archive is not taken for one. */
export const backupFormat = 'daily-crate/backup 1'
const mark = 'daily-crate.txt'

/** Copies a room's database as it stood at one moment, while it may be written to. */
export function copyDatabase(folder: string, file: string): void {
  const source = connect(databaseIn(folder), 30_000)
  source.prepare('VACUUM INTO ?').run(file)
  source.close()
}

/**
 * Writes a room, database and photos, to one file (tar, gzip) while it goes on running: the database is copied as it
 * stood at one moment, whatever is being written meanwhile.
 * @param folder - the room's data folder.
 * @param file - where the backup goes; it appears there only when it is complete.
 * @param withPictures - false where the pictures lie beside the file already.
 */
export async function makeBackup(folder: string, file: string, { withPictures = true } = {}): Promise<void> {
  if (!existsSync(databaseIn(folder))) throw new Error(`There is no room in ${folder}`)
  mkdirSync(dirname(file), { recursive: true })
  // Inside the room's folder, so that photos can be linked; the finished file is copied, as it may go to another disk.
  const work = mkdtempSync(join(folder, '.backup-'))
  try {
    copyDatabase(folder, databaseIn(work))
    writeFileSync(join(work, mark), `${backupFormat}\n`)
    const photos = withPictures ? photoNames(folder) : []
    if (photos.length > 0) mkdirSync(photosIn(work))
    // Linked, not copied; photos are never changed once they are there.
    for (const name of photos) linkSync(join(photosIn(folder), name), join(photosIn(work), name))
    await create({ gzip: true, file: join(work, 'backup.tgz'), cwd: work }, [mark, 'room.sqlite', ...photos.map((name) => `photos/${name}`)])
    copyFileSync(join(work, 'backup.tgz'), `${file}.part`)
    renameSync(`${file}.part`, file)
  } catch (error) {
    rmSync(`${file}.part`, { force: true })
    throw error
  } finally {
    rmSync(work, { recursive: true, force: true })
  }
}

/**
 * Puts a backup, or the copy of a database made before an update, in the place of a room. What was there before is set aside in a folder of its own, never deleted.
 * @returns the folder that holds what was there; null when there was nothing.
 * @throws Error in plain words when the file is no backup or its books are not right; the room is then as it was.
 */
export async function restoreBackup(file: string, folder: string, nowMs: number): Promise<string | null> {
  requireFile(file)
  mkdirSync(folder, { recursive: true })
  const work = mkdtempSync(join(folder, '.restore-'))
  try {
    await bringBack(file, work)
    const aside = setAside(folder, nowMs)
    renameSync(databaseIn(work), databaseIn(folder))
    if (existsSync(photosIn(work))) renameSync(photosIn(work), photosIn(folder))
    return aside
  } finally {
    rmSync(work, { recursive: true, force: true })
  }
}

/** @throws Error in plain words when there is no such file. */
export function requireFile(file: string): void {
  if (!existsSync(file)) throw new Error(`There is no file ${file}`)
}

/**
 * Makes a room of a backup in an empty folder and goes through its books.
 * @returns how many movements it holds.
 * @throws Error in plain words when the file is no backup or its books are not right.
 */
export async function bringBack(file: string, folder: string): Promise<number> {
  if (file.endsWith('.sqlite')) copyFileSync(file, databaseIn(folder))
  else await unpack(file, folder)
  const db = openDatabase(databaseIn(folder))
  const { movements, faults } = checkLedger(db)
  // Everything into the one file, so that no journal has to come along.
  db.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
  db.close()
  if (faults.length > 0) throw new Error(`The books in this backup are not right (${faults[0]}); the room was left as it is`)
  // What is not in the file lies beside it; a copy made before an update has the room's own.
  takePictures(photosIn(dirname(file)), photosIn(folder))
  return movements
}

/** Brings pictures along that are not there yet. */
function takePictures(from: string, to: string): void {
  const names = photoNames(dirname(from)).filter((name) => !existsSync(join(to, name)))
  if (names.length > 0) mkdirSync(to, { recursive: true })
  for (const name of names) copyFileSync(join(from, name), join(to, name))
}

async function unpack(file: string, work: string): Promise<void> {
  const isOurs = (path: string): boolean => path === mark || path === 'room.sqlite' || /^photos\/[A-Za-z0-9_-]+\.(jpg|png|webp)$/.test(path)
  let link: string | null = null
  // A link in the place of a picture would give away, or write over, whatever it points at.
  const isTaken = (path: string, entry: ReadEntry | Stats): boolean => {
    if ('type' in entry && /Link$/.test(entry.type)) link ??= path
    return link === null && isOurs(path)
  }
  await extract({ file, cwd: work, strict: true, filter: isTaken }).catch(() => {
    throw new Error(`${file} is not a backup of Daily Crate, or not a whole one`)
  })
  if (link !== null) throw new Error(`${file} holds a link (${String(link)}); a backup of Daily Crate never does. The room was left as it is`)
  const isMarked = existsSync(join(work, mark)) && readFileSync(join(work, mark), 'utf8').trim() === backupFormat
  if (!isMarked || !existsSync(databaseIn(work))) throw new Error(`${file} is not a backup of Daily Crate`)
}

/** Moves a room's files into a folder named by the moment. */
export function setAside(folder: string, nowMs: number): string | null {
  if (!existsSync(databaseIn(folder))) return null
  const aside = join(folder, `before-${new Date(nowMs).toISOString().replace(/[:.]/g, '-')}`)
  mkdirSync(aside)
  for (const name of readdirSync(folder)) if (/^(room\.(sqlite(-wal|-shm)?|tally|holds)|photos|before-.*\.sqlite)$/.test(name)) renameSync(join(folder, name), join(aside, name))
  return aside
}
