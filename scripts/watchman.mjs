import { spawn } from 'node:child_process'

// Runs one command in a process group of its own and ends the whole group when the line to whoever asked for it goes
// dead: a killed run cannot say that it was killed, but its end of the line falls shut.
const [command = '', ...args] = process.argv.slice(2)
const child = spawn(command, args, { stdio: ['ignore', 'inherit', 'inherit'] })
let isEnding = false

child.once('error', (error) => {
  console.error(error.message)
  process.exit(127)
})
child.once('exit', (code) => isEnding || process.exit(code ?? 1))

process.stdin.resume().once('close', () => {
  isEnding = true
  // First a chance to tidy up, then none; the second takes the watchman along.
  process.on('SIGTERM', () => undefined)
  process.kill(-process.pid, 'SIGTERM')
  setTimeout(() => process.kill(-process.pid, 'SIGKILL'), 2000)
})
