import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { ensurePackages, must, run, tool } from './shared.mjs'

// `npm test`: types, lint, unit and HTTP tests, then the browser; the last line counts all of it.
const isRoot = process.getuid?.() === 0
const has = (command) => spawnSync('sh', ['-c', `command -v ${command}`]).status === 0

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

const counts = { passed: 0, failed: 0 }
const count = (passed, failed) => {
  counts.passed += passed
  counts.failed += failed
}
const check = (isGood) => count(isGood ? 1 : 0, isGood ? 0 : 1)
const readReport = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null)

function unitTests() {
  const file = 'test-results/unit.json'
  tool('jest', ['--json', `--outputFile=${file}`])
  const report = readReport(file)
  count(report?.numPassedTests ?? 0, report ? report.numFailedTests + report.numRuntimeErrorTestSuites : 1)
}

/** Runs browser projects; `inside` is a command that runs them in another network. */
function browserTests(name, projects, inside = [], env = {}) {
  const file = `test-results/${name}.json`
  const [command, ...args] = [...inside, 'node_modules/.bin/playwright', 'test', '--output', `test-results/${name}`, ...projects.map((project) => `--project=${project}`)]
  run(command, args, { ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: file })
  const stats = readReport(file)?.stats
  count(stats?.expected ?? 0, stats ? stats.unexpected + stats.flaky : 1)
}

// A network namespace with an address that is not loopback. Where none may be made, the machine's own address serves.
const address = '10.77.0.1'
const network = ['unshare', ...(isRoot ? [] : ['--map-root-user']), '--net', 'sh', '-c', `ip link set lo up && ip link add veth0 type veth peer name veth1 && ip addr add ${address}/24 dev veth0 && ip link set veth0 up && ip link set veth1 up && exec "$@"`, 'sh']
const canNetwork = () => has('unshare') && has('ip') && spawnSync(network[0], [...network.slice(1), 'true']).status === 0

ensurePackages()
ensureBrowser()
rmSync('test-results', { recursive: true, force: true })
mkdirSync('test-results')
check(tool('tsc', ['-p', 'tsconfig.node.json']))
check(tool('tsc', ['-p', 'tsconfig.web.json']))
check(tool('eslint', ['.']))
unitTests()
must(tool('vite', ['build', '--logLevel', 'warn']), 'Building the interface')
browserTests('browser', ['phone', 'desktop'])
const own = canNetwork()
browserTests('network', ['outage'], own ? network : [], own ? { CRATE_LAN_ADDRESS: address } : {})
console.log(`${counts.passed} passed, ${counts.failed} failed`)
process.exitCode = counts.failed > 0 || counts.passed === 0 ? 1 : 0
