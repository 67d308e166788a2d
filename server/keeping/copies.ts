import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { basename, join } from 'node:path'
import type { CopiesView, Trial } from '../../core/keeping/notice'
import { bringBack, makeBackup, requireFile } from './backup'
import { photoNames, photosIn } from './folder'

/** How many copies stay: a day of hours, a month of days. */
export const keptHours = 24
export const keptDays = 30
const copyName = /^(hour-\d{4}-\d\d-\d\dT\d\d|day-\d{4}-\d\d-\d\d)\.tgz$/

const namesIn = (folder: string, kind: 'hour' | 'day'): string[] => (existsSync(folder) ? readdirSync(folder).filter((name) => copyName.test(name) && name.startsWith(kind)).sort() : [])

/** What lies in the folder of copies. */
export function copiesIn(folder: string): Pick<CopiesView, 'hours' | 'days' | 'newest'> {
  const [hours, days] = [namesIn(folder, 'hour'), namesIn(folder, 'day')]
  const newest = [...hours, ...days].map((name) => ({ name, ...statSync(join(folder, name)) })).sort((a, b) => b.mtimeMs - a.mtimeMs)[0]
  return { hours: hours.length, days: days.length, newest: newest ? { name: newest.name, atMs: Math.floor(newest.mtimeMs), bytes: newest.size } : null }
}

/**
 * Makes the copies that are due: one for the hour, and the first of a day stays as that day's. Each holds the database
 * alone. Pictures never change and lie beside them once, as a copy of all pictures every hour would fill the disk.
 * @param folder - the room's data folder.
 * @param copies - where copies go; better on another disk.
 * @returns whether a day's copy was made, so that it is tried.
 */
export async function makeCopies(folder: string, copies: string, nowMs: number): Promise<boolean> {
  mkdirSync(copies, { recursive: true, mode: 0o700 })
  for (const name of readdirSync(copies)) if (name.startsWith('.trial-')) rmSync(join(copies, name), { recursive: true, force: true })
  copyPictures(folder, copies)
  const hour = new Date(nowMs).toISOString().slice(0, 13)
  const [ofHour, ofDay] = [join(copies, `hour-${hour}.tgz`), join(copies, `day-${hour.slice(0, 10)}.tgz`)]
  if (!existsSync(ofHour)) await makeBackup(folder, ofHour, { withPictures: false })
  const isNewDay = !existsSync(ofDay)
  if (isNewDay) copyFileSync(ofHour, ofDay)
  // Only now, when the new one is there, the oldest goes.
  for (const [kind, most] of [['hour', keptHours], ['day', keptDays]] as const) for (const name of namesIn(copies, kind).slice(0, -most)) rmSync(join(copies, name))
  return isNewDay
}

function copyPictures(folder: string, copies: string): void {
  const missing = photoNames(folder).filter((name) => !existsSync(join(photosIn(copies), name)))
  if (missing.length > 0) mkdirSync(photosIn(copies), { recursive: true, mode: 0o700 })
  for (const name of missing) {
    const target = join(photosIn(copies), name)
    copyFileSync(join(photosIn(folder), name), `${target}.part`)
    renameSync(`${target}.part`, target)
  }
}

/**
 * Tries whether a copy brings the room back: restores it in a folder of its own, opens it and goes through its books.
 * @returns how long it took and what it holds.
 * @throws Error in plain words when it does not bring the room back, or its books are not right.
 */
export async function tryCopy(file: string, nowMs: number): Promise<Trial> {
  requireFile(file)
  const startedMs = performance.now()
  // Beside the copies: that disk has room for them.
  const work = mkdtempSync(join(file, '..', '.trial-'))
  try {
    const movements = await bringBack(file, work)
    return { name: basename(file), atMs: nowMs, tookMs: Math.round(performance.now() - startedMs), movements }
  } finally {
    rmSync(work, { recursive: true, force: true })
  }
}
