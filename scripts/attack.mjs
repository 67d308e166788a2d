import { runApart } from './apart.mjs'
import { ensureInterface, ensurePackages, ensureServer } from './shared.mjs'

// `npm run attack`: see attack/main.ts. What two pages of one browser do is in e2e/standing.spec.ts.
ensurePackages()
ensureInterface()
await ensureServer()
process.exitCode = (await runApart(process.execPath, ['--import', 'tsx', 'attack/main.ts', ...process.argv.slice(2)])) ? 0 : 1
