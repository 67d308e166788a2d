import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { runApart } from './apart.mjs'
import { count, counts, countReport, sayTimes } from './report.mjs'
import { ensurePackages, must, run } from './shared.mjs'

// `npm test`: types, lint, unit and HTTP tests, then the browser; the last line counts all of it.
// `npm run test:long`: the same with every figure in full, and the attack and the planted faults after it.
const isLong = process.argv.includes('--long')
const isRoot = process.getuid?.() === 0
const has = (command) => spawnSync('sh', ['-c', `command -v ${command}`]).status === 0
const tool = (name, args, more) => runApart(join('node_modules', '.bin', name), args, more)

/** The browser tests drive Debian's Chromium; the network tests make a network of their own with iproute2. */
function ensureBrowser() {
  const missing = [...(existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium') ? [] : ['chromium']), ...(has('ip') ? [] : ['iproute2'])]
  if (missing.length === 0) return
  if (isRoot && has('apt-get')) {
    run('apt-get', ['update', '-qq'])
    must(run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { DEBIAN_FRONTEND: 'noninteractive' }), `Installing ${missing.join(' and ')}`)
    return
  }
  if (!missing.includes('chromium')) return
  console.error('The browser tests need Chromium: install it (on Debian: sudo apt-get install chromium iproute2), or name its file in CHROMIUM.')
  process.exit(1)
}

/** Types, lint and the built interface: each keeps one processor busy, so two go side by side. */
async function readTheCode() {
  const step = async (...command) => {
    const isGood = await tool(...command, { isHeld: true })
    count(isGood)
    return isGood
  }
  const buildAndCheck = async () => {
    const isBuilt = await step('vite', ['build', '--logLevel', 'warn'])
    await step('tsc', ['-p', 'tsconfig.node.json'])
    await step('tsc', ['-p', 'tsconfig.web.json'])
    return isBuilt
  }
  const [isBuilt] = await Promise.all([buildAndCheck(), step('eslint', ['.'])])
  must(isBuilt, 'Building the interface')
}

async function unitTests() {
  const file = 'test-results/unit.json'
  await tool('jest', ['--json', `--outputFile=${file}`])
  countReport(file)
}

/** Runs browser projects; `inside` is a command that runs them in another network. */
async function browserTests(name, projects, inside = [], env = {}) {
  const file = `test-results/${name}.json`
  const [command, ...args] = [...inside, 'node_modules/.bin/playwright', 'test', '--output', `test-results/${name}`, ...projects.map((project) => `--project=${project}`)]
  await runApart(command, args, { env: { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file } })
  countReport(file)
}

// A network namespace with an address that is not loopback. Where none may be made, the machine's own address serves.
const address = '10.77.0.1'
const network = ['unshare', ...(isRoot ? [] : ['--map-root-user']), '--net', 'sh', '-c', `ip link set lo up && ip link add veth0 type veth peer name veth1 && ip addr add ${address}/24 dev veth0 && ip link set veth0 up && ip link set veth1 up && exec "$@"`, 'sh']
const canNetwork = () => has('unshare') && has('ip') && spawnSync(network[0], [...network.slice(1), 'true']).status === 0

/** Runs a part of it and says how long it took. */
async function part(name, work) {
  const startedMs = performance.now()
  await work()
  took.push(`${name} ${Math.round((performance.now() - startedMs) / 1000)} s`)
}
const took = []

if (isLong) process.env.CRATE_LONG = '1'
await part('installing', () => {
  ensurePackages()
  ensureBrowser()
})
rmSync('test-results', { recursive: true, force: true })
mkdirSync('test-results')
await part('types, lint, build', readTheCode)
await part('unit and HTTP', unitTests)
await part('browser', async () => {
  await browserTests('browser', ['phone', 'desktop', 'tablet'])
  const own = canNetwork()
  await browserTests('network', ['outage'], own ? network : [], own ? { CRATE_LAN_ADDRESS: address } : {})
})
if (isLong) {
  await part('attack', async () => {
    await runApart(process.execPath, ['scripts/attack.mjs'])
    countReport('test-results/attack.json')
  })
  await part('planted faults', async () => {
    await runApart(process.execPath, ['scripts/faults.mjs'])
    countReport('test-results/faults.json')
  })
}
sayTimes(took)
console.log(`${counts.passed} passed, ${counts.failed} failed`)
process.exitCode = counts.failed > 0 || counts.passed === 0 ? 1 : 0
