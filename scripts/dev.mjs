import { spawn } from 'node:child_process'
import { ensureInterface, ensurePackages, start } from './shared.mjs'

// The interface at http://127.0.0.1:5173 follows every change; the server beside it is the one of `npm start`.
ensurePackages()
ensureInterface()
const vite = spawn('node_modules/.bin/vite', ['--host', '127.0.0.1'], { stdio: 'inherit' })
process.on('exit', () => vite.kill())
start(['--import', 'tsx', 'server/main.ts'], { CRATE_PORT: process.env.CRATE_PORT ?? '4311' })
