import { existsSync, rmSync, writeFileSync } from 'node:fs'
import { setPriority } from 'node:os'
import { join } from 'node:path'
import { copiesIn, makeCopies, tryCopy } from './copies'
import { trialFile } from './keepCopies'

// Runs beside the server, after everything else: makes the copies that are due and tries the newest of a new day.
const [folder = '', copies = '', nowMs = '0'] = process.argv.slice(2)
process.umask(0o077)
setPriority(10)
try {
  const isNewDay = await makeCopies(folder, copies, Number(nowMs))
  const { newest } = copiesIn(copies)
  // A trial that fails leaves none behind, so the next copy is tried as well, and what is wrong goes on being said.
  if (isNewDay) rmSync(trialFile(copies), { force: true })
  if (newest && !existsSync(trialFile(copies))) writeFileSync(trialFile(copies), JSON.stringify(await tryCopy(join(copies, newest.name), Number(nowMs))))
} catch (error) {
  process.stdout.write(error instanceof Error ? error.message : String(error))
}
