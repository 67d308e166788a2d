import { cpSync } from 'node:fs'
import { build } from 'esbuild'

/** Programs of the server, each one file in dist/server; packages stay where npm put them. */
const programs = {
  main: 'server/main.ts',
  keep: 'server/keeping/main.ts',
  solveMain: 'server/crates/solveMain.ts',
  claimMain: 'server/crates/claimMain.ts',
  reviewMain: 'server/outcomes/reviewMain.ts',
  labelsMain: 'server/room/labelsMain.ts',
  checkMain: 'server/ledger/checkMain.ts',
  copiesMain: 'server/keeping/copiesMain.ts',
  copyMain: 'server/keeping/copyMain.ts',
  demo: 'demo/main.ts',
  makeDemo: 'demo/makeFile.ts',
  rooms: 'server/testing/rooms.ts',
}

/** Builds them anew, which takes a moment only, so that they are never older than their sources. */
export default async function bundleServer() {
  await build({
    entryPoints: Object.entries(programs).map(([out, file]) => ({ in: file, out })),
    ...{ outdir: 'dist/server', bundle: true, platform: 'node', format: 'esm', target: 'node20', packages: 'external', sourcemap: true, logLevel: 'warning' },
  })
  cpSync('server/db/migrations', 'dist/server/migrations', { recursive: true })
}
