import { built, ensurePackages, ensureServer, run } from './shared.mjs'

// npm run backup|restore|try|export|import -- FILE
ensurePackages()
await ensureServer()
process.exitCode = run(process.execPath, [...built('keep'), ...process.argv.slice(2)]) ? 0 : 1
