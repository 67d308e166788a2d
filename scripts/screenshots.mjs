import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { built, ensureInterface, ensurePackages, ensureServer, must, tool } from './shared.mjs'

// Demo data, a frozen clock and a fixed zone, so that only a changed view changes its picture.
ensurePackages()
ensureInterface()
await ensureServer()
const port = '4319'
const env = { ...process.env, CRATE_CLOCK: '2031-05-04T09:10:00Z', CRATE_ZONE: 'UTC', CRATE_PORT: port, CRATE_DEMO_DATA: 'demo-data/pictures' }
const demo = spawn(process.execPath, built('demo'), { stdio: ['ignore', 'pipe', 'inherit'], env })
process.on('exit', () => demo.kill())
await new Promise((resolve) => demo.stdout.on('data', (text) => String(text).includes('PINs') && resolve()))
// Beside the demo a room that has nothing yet.
rmSync('demo-data/bare', { recursive: true, force: true })
const bare = spawn(process.execPath, built('main'), { stdio: ['ignore', 'pipe', 'inherit'], env: { ...env, CRATE_PORT: '4318', CRATE_DATA: 'demo-data/bare' } })
process.on('exit', () => bare.kill())
await new Promise((resolve) => bare.stdout.on('data', resolve))
must(tool('tsx', ['e2e/pictures.ts', `http://127.0.0.1:${port}`, 'http://127.0.0.1:4318']), 'Taking pictures')
demo.kill()
bare.kill()
