import { ensurePackages, run } from './shared.mjs'

// npm run backup|restore|export|import -- FILE
ensurePackages()
process.exitCode = run(process.execPath, ['--import', 'tsx', 'server/keeping/main.ts', ...process.argv.slice(2)]) ? 0 : 1
