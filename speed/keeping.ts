import { spawn } from 'node:child_process'
import { createReadStream, mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDatabase } from '../server/db/open'
import { databaseIn } from '../server/keeping/folder'
import { timed } from './figures'
import { fill } from './room'

const movements = 1_000_000

/** Writes a room of 1,000,000 movements as JSON and takes it in again, each in a process of its own whose memory is watched. */
export async function benchKeeping(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))
  const [from, to, file] = [join(folder, 'from'), join(folder, 'to'), join(folder, 'room.json')]
  const db = openDatabase(databaseIn(from))
  db.raw.exec('PRAGMA synchronous=OFF')
  db.transact(() => fill(db, movements))
  db.close()
  const idle = await peakOf(['export', join(folder, 'none.json')], join(folder, 'nothing'))
  const out = await peakOf(['export', file], from)
  const read = await timed(() => drain(file))
  const back = await peakOf(['import', file], to)
  console.log(`\nA room of ${movements.toLocaleString('en')} movements (${(statSync(file).size / 1e6).toFixed(0)} MB as JSON), each in a process of its own`)
  console.log(`  ${''.padEnd(34)} seconds  peak MB`)
  for (const [what, { ms, peakMb }] of [['an empty room (the floor)', idle], ['export', out], ['import, books checked', back]] as const) console.log(`  ${what.padEnd(34)}${(ms / 1000).toFixed(1).padStart(8)} ${peakMb.toFixed(0).padStart(8)}`)
  console.log(`  reading the file alone takes ${(read / 1000).toFixed(1)} s: export ${(out.ms / read).toFixed(0)}, import ${(back.ms / read).toFixed(0)} times that; memory over the floor ${(out.peakMb - idle.peakMb).toFixed(0)} and ${(back.peakMb - idle.peakMb).toFixed(0)} MB`)
  rmSync(folder, { recursive: true, force: true })
}

const drain = (file: string): Promise<void> => new Promise((resolve, reject) => createReadStream(file).on('error', reject).on('end', resolve).resume())

/** Runs one of the keeping commands and returns its time and the most memory it held. */
async function peakOf(args: string[], folder: string): Promise<{ ms: number; peakMb: number }> {
  const program = `process.argv.splice(1, 0, 'keeping'); process.on('exit', () => process.send({ kb: process.resourceUsage().maxRSS })); await import('./server/keeping/main.ts')`
  let kb = 0
  const ms = await timed(async () => {
    const child = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', program, ...args], { env: { ...process.env, CRATE_DATA: folder }, stdio: ['ignore', 'ignore', 'ignore', 'ipc'] })
    child.on('message', (message) => (kb = (message as { kb: number }).kb))
    await new Promise((resolve) => child.once('exit', resolve))
  })
  return { ms, peakMb: kb / 1024 }
}
