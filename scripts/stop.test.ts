import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { expect, test } from '@jest/globals'

/** Whether a process still runs; one that has ended and only waits to be counted does not. */
const isAlive = (pid: number): boolean => {
  try {
    return !/\) Z /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))
  } catch {
    return false
  }
}

/** Asks until the answer is yes, or ten seconds are over. */
async function comesTrue(ask: () => boolean): Promise<boolean> {
  for (let tries = 0; tries < 100 && !ask(); tries += 1) await new Promise((done) => setTimeout(done, 100))
  return ask()
}

// A shell that starts a child of its own and would outlive both; it says the numbers of the two.
const stubborn = 'trap "" TERM; sleep 300 & echo $$ $!; wait; wait'

test.each(['SIGTERM', 'SIGKILL', 'SIGINT'] as const)('a run ended by %s leaves no process behind', async (signal) => {
  const program = `const { runApart } = await import(${JSON.stringify(resolve('scripts/apart.mjs'))}); await runApart('sh', ['-c', ${JSON.stringify(stubborn)}])`
  const run = spawn(process.execPath, ['--input-type=module', '-e', program], { stdio: ['ignore', 'pipe', 'inherit'] })
  const [shell = 0, child = 0] = await new Promise<number[]>((told) => run.stdout.once('data', (said: Buffer) => told(String(said).trim().split(' ').map(Number))))
  expect([isAlive(shell), isAlive(child)]).toEqual([true, true])
  run.kill(signal)
  const areGone = await comesTrue(() => !isAlive(shell) && !isAlive(child))
  if (!areGone) for (const left of [shell, child]) process.kill(left, 'SIGKILL')
  expect(areGone).toBe(true)
})

test.each([['process.kill(process.pid, "SIGKILL")', null, 1], ['process.exit(3)', null, 3], ['process.once("SIGTERM", () => process.exit()); setInterval(() => 0, 1000); console.log("up")', 'SIGTERM', 0]] as const)('a program that ends by %s ends whoever started it with a code that tells', async (program, signal, code) => {
  const starter = `const { start } = await import(${JSON.stringify(resolve('scripts/shared.mjs'))}); start(['-e', ${JSON.stringify(program)}])`
  const run = spawn(process.execPath, ['--input-type=module', '-e', starter], { stdio: ['ignore', 'pipe', 'inherit'] })
  if (signal) run.stdout.once('data', () => run.kill(signal))
  expect(await new Promise((ended) => run.once('exit', ended))).toBe(code)
})
