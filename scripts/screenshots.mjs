import { spawn } from 'node:child_process'
import { ensureInterface, ensurePackages, must, tool } from './shared.mjs'

// Demo data, a frozen clock and a fixed zone, so that only a changed view changes its picture.
ensurePackages()
ensureInterface()
const port = '4319'
const env = { ...process.env, CRATE_CLOCK: '2031-05-04T09:10:00Z', CRATE_ZONE: 'UTC', CRATE_PORT: port, CRATE_DEMO_DATA: 'demo-data/pictures' }
const demo = spawn(process.execPath, ['--import', 'tsx', 'demo/main.ts'], { stdio: ['ignore', 'pipe', 'inherit'], env })
process.on('exit', () => demo.kill())
await new Promise((resolve) => demo.stdout.on('data', (text) => String(text).includes('PINs') && resolve()))
must(tool('tsx', ['e2e/pictures.ts', `http://127.0.0.1:${port}`]), 'Taking pictures')
demo.kill()
