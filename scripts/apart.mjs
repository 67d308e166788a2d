import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'

const watchman = fileURLToPath(new URL('watchman.mjs', import.meta.url))

/** Ends us when whoever started us is gone: it may have been ended without a word to us. (npm puts a shell between; `exec` takes it out.) */
function followParent() {
  const parent = process.ppid
  setInterval(() => process.ppid !== parent && process.exit(1), 1000).unref()
}
let isFollowing = false

/**
 * Runs a command to its end and resolves with whether it succeeded. A watchman sees to it that neither a kill nor a time
 * limit leaves anything of it behind.
 * @param isHeld - keep what it says back until it ends, so that two commands do not talk at once.
 * @param isSilent - do not say it at all.
 */
export function runApart(command, args, { env = {}, isHeld = false, isSilent = false } = {}) {
  if (!isFollowing) followParent()
  isFollowing = true
  const said = []
  const isHeard = isHeld || isSilent
  const child = spawn(process.execPath, [watchman, command, ...args], { detached: true, stdio: ['pipe', isHeard ? 'pipe' : 'inherit', isHeard ? 'pipe' : 'inherit'], env: { ...process.env, ...env } })
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part) => said.push(part))
  return new Promise((resolve) =>
    child.once('close', (code) => {
      if (isHeld) process.stdout.write(Buffer.concat(said))
      resolve(code === 0)
    }),
  )
}
