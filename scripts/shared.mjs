import { spawn, spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))
process.chdir(root)

/** Runs a command to its end, its output on ours; returns whether it succeeded. */
export const run = (command, args, env = {}) => spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } }).status === 0

/** Runs one of our installed tools. */
export const tool = (name, args, env) => run(join('node_modules', '.bin', name), args, env)

/** Runs a command that must succeed for anything after it to make sense. */
export function must(isDone, what) {
  if (isDone) return
  console.error(`${what} failed; see above.`)
  process.exit(1)
}

/** Installs packages when they are missing or older than the lock file. */
export function ensurePackages() {
  const stamp = join('node_modules', '.package-lock.json')
  if (existsSync(stamp) && statSync(stamp).mtimeMs >= statSync('package-lock.json').mtimeMs) return
  // Not `npm ci`: it refuses a lock that lacks packages of other platforms, which not every registry holds.
  must(run('npm', ['install', '--no-audit', '--no-fund']), 'Installing packages')
}

const newestIn = (folder) =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .reduce((newest, entry) => Math.max(newest, statSync(join(entry.parentPath ?? entry.path, entry.name)).mtimeMs), 0)

/** Builds the interface when it is missing or older than its sources. */
export function ensureInterface() {
  const built = join('dist', 'web', 'index.html')
  const isFresh = existsSync(built) && statSync(built).mtimeMs > Math.max(newestIn('web'), newestIn('core'), statSync('package-lock.json').mtimeMs)
  if (!isFresh) must(tool('vite', ['build', '--logLevel', 'warn']), 'Building the interface')
}

/** Builds the programs of the server. */
export async function ensureServer() {
  const { default: bundleServer } = await import('./bundleServer.mjs')
  await bundleServer()
}

/** Node's arguments for a built program of the server: `main`, `demo`, `keep`. */
export const built = (name) => ['--enable-source-maps', join('dist', 'server', `${name}.js`)]

/** Starts node on a program that runs until it is stopped, and ends with it. */
export function start(args, env = {}) {
  const child = spawn(process.execPath, args, { stdio: 'inherit', env: { ...process.env, ...env } })
  let isStopped = false
  const stop = (signal) => {
    isStopped = true
    child.kill(signal)
  }
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => stop(signal))
  // Whatever ended it but ourselves (no memory, a kill) is a failure, so that a service manager starts it again.
  child.on('exit', (code) => process.exit(code ?? (isStopped ? 0 : 1)))
  return child
}
