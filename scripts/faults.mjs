import { spawnSync } from 'node:child_process'
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { runApart } from './apart.mjs'
import { ensurePackages, root } from './shared.mjs'

// `npm run test:faults`: do the tests find what they are there for? Twenty faults that would hurt fish or books are planted
// in a copy, one at a time, and the tests concerned must fail: a test, not a file that cannot be read any more.

/** What is planted, where, by which change, and who must find it: files of Jest, or a journey in the browser. */
const faults = [
  { what: 'un-ionised ammonia forgets what a meter’s pH scale is off', file: 'core/water/ammonia.ts', from: 'unionisedShare(meterPh - c.phOffset, c)', to: 'unionisedShare(meterPh, c)', jest: ['core/water/'] },
  { what: 'a fish on its side waits for a bath', file: 'core/crates/triage.ts', from: "if (behaviour === 'on its side') return", to: "if (behaviour === 'on its side' && concerns.includes('fish')) return", jest: ['core/crates/triage'] },
  { what: 'shrimp are planned into copper', file: 'core/tankChoice/rules.ts', from: 'tank.agents.filter((agent) => sensitivities.includes(agent))', to: 'tank.agents.filter((agent) => agent === species)', jest: ['core/tankChoice/'] },
  { what: 'a lead overrides what a shrimp in the water ends', file: 'core/dosing/doseCheck.ts', from: "if (worst === 'X' || hasInvertebrate) return", to: "if (worst === 'X') return", jest: ['core/dosing/', 'core/regimens/'] },
  { what: 'a reading with the other kit lets a dose go', file: 'core/dosing/doseCheck.ts', from: "level.kit !== kit ? x('wrongKit')", to: "level.kit === '' ? x('wrongKit')", jest: ['core/dosing/', 'core/regimens/'] },
  { what: 'one fish more than stands there may be taken', file: 'core/ledger/stock.ts', from: 'if (available < movement.quantity) return', to: 'if (available < movement.quantity - 1) return', jest: ['core/ledger/'] },
  { what: 'a claim may be made an hour late', file: 'core/crates/claim.ts', from: 'arrivedAtMs + windowHours * hourMs', to: 'arrivedAtMs + (windowHours + 1) * hourMs', jest: ['core/crates/claim'] },
  { what: 'a touch that is sent again is refused instead of answered as before', file: 'server/commands/dispatch.ts', from: 'if (known) return known', to: 'if (known?.isReplay === false) return known', jest: ['server/commands/'] },
  { what: 'a keeper may do what a lead may', file: 'server/http/mount.ts', from: "access === 'lead' && actor.role !== 'lead'", to: "access === 'lead' && !actor.role", jest: ['server/http/roleMatrix'] },
  { what: 'the database lets a place go below zero', file: 'server/db/triggers.ts', from: '${inHand} < NEW.quantity', to: '${inHand} < NEW.quantity - 1', jest: ['server/ledger/'] },
  { what: 'fish are moved past every rule', file: 'server/ledger/ledger.service.ts', from: '\n    moves.require(context, { ...way, plans, path, override, isRescue })\n', to: '\n', jest: ['server/placing/placing.rules'] },
  { what: 'what is taken back goes on being known', file: 'server/db/triggers.ts', from: "NEW.kind <> 'reversal' AND NOT EXISTS", to: 'NOT EXISTS', jest: ['server/facts/facts.model'] },
  { what: 'fish are missed without a cause', file: 'server/bench/countOut.ts', from: 'if (missing > 0 && !difference) throw', to: 'if (missing > 5 && !difference) throw', jest: ['server/bench/bench.routes'] },
  { what: 'a check does not say at which tank', file: 'core/rounds/rounds.api.ts', from: "[`look:${tankId}`, 'round']", to: "['round']", jest: ['server/commands/touches'] },
  { what: 'fish that are to go without food are fed', file: 'core/kitchen/thawList.ts', from: 'if (withoutFood) return', to: 'if (withoutFood && days > 99) return', jest: ['core/kitchen/'] },
  { what: 'a probe that is stuck is believed', file: 'core/probes/probeState.ts', from: 'lately.every(({ value }) => value === last.value)', to: 'lately.length > 999', jest: ['core/probes/'] },
  { what: 'a sign begins no phase again that fish have passed', file: 'core/holds/strand.ts', from: 'if (target < 0 || hold.phase < target) return', to: 'if (target < 0 || hold.phase !== target) return', jest: ['core/holds/'] },
  { what: 'a figure that cannot be is not told beside its field', file: 'web/ui/FigureField.tsx', from: 'problem: doubt ? null : problem', to: 'problem: null', jest: ['web/desk/'] },
  { what: 'an answer that comes late pulls a person off the page they went to', file: 'web/ui/useGoOn.ts', from: 'window.location.pathname === pathname', to: 'pathname', journey: 'whoever goes on while a plan is being kept' },
  { what: 'a pedal toggles back what a finger touched', file: 'web/ui/HandScreen.tsx', from: "!(hasWalked && target.matches('button, a'))", to: "!target.matches('button, a')", journey: 'a pedal that sends Enter', project: 'phone' },
]

ensurePackages()
const copy = mkdtempSync(join(tmpdir(), 'daily-crate-faults-'))
process.once('exit', () => rmSync(copy, { recursive: true, force: true }))
const { stdout: listed } = spawnSync('git', ['ls-files', '-co', '--exclude-standard'], { encoding: 'utf8' })
for (const file of listed.split('\n').filter((each) => each && existsSync(each))) cpSync(file, join(copy, file), { recursive: true })
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))
process.chdir(copy)
mkdirSync('test-results')

const read = (file) => (existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null)
const tool = (name, args, env) => runApart(join('node_modules', '.bin', name), args, { env, isSilent: true })

/** Runs tests in the copy; returns how many passed, the names of those that failed, and whether all of them could be run. */
async function runTests({ jest, journey, project = 'desktop' }) {
  const file = join('test-results', 'fault.json')
  rmSync(file, { force: true })
  if (jest) {
    await tool('jest', ['--silent', '--json', `--outputFile=${file}`, ...jest])
    const report = read(file)
    const failed = (report?.testResults ?? []).flatMap(({ assertionResults }) => assertionResults.filter(({ status }) => status === 'failed').map(({ fullName }) => fullName))
    return { passed: report?.numPassedTests ?? 0, failed, isWhole: report?.numRuntimeErrorTestSuites === 0 }
  }
  const isBuilt = await tool('vite', ['build', '--logLevel', 'warn'])
  await tool('playwright', ['test', `--project=${project}`, '--retries=0', '-g', journey], { PLAYWRIGHT_JSON_OUTPUT_NAME: file })
  const { stats, errors } = read(file) ?? {}
  return { passed: stats?.expected ?? 0, failed: stats?.unexpected ? [journey] : [], isWhole: isBuilt && errors?.length === 0 }
}

/** Plants a fault, has its tests run, and takes it out again. */
async function isFound(fault) {
  const good = readFileSync(fault.file, 'utf8')
  if (good.split(fault.from).length !== 2) throw new Error(`"${fault.from}" stands ${good.split(fault.from).length - 1} times in ${fault.file}, not once`)
  writeFileSync(fault.file, good.replace(fault.from, () => fault.to))
  try {
    const { failed, isWhole } = await runTests(fault)
    return isWhole && failed.length > 0 ? `found by “${failed[0]}”${failed.length > 1 ? ` and ${failed.length - 1} more` : ''}` : null
  } finally {
    writeFileSync(fault.file, good)
  }
}

const said = []
const tell = (isGood, words) => {
  said.push(isGood)
  console.log(`${isGood ? 'PASS' : 'FAIL'} ${words}`)
}

// What fails without any fault would find every one of them.
for (const sound of [{ jest: faults.flatMap(({ jest = [] }) => jest) }, ...faults.filter(({ journey }) => journey)]) {
  const { passed, failed, isWhole } = await runTests(sound)
  tell(isWhole && failed.length === 0 && passed > 0, `without a fault ${passed} tests pass, ${failed.length} fail${failed.map((name) => `\n  ${name}`).join('')}`)
}
for (const fault of faults) {
  const found = await isFound(fault).catch((error) => void console.error(error.message))
  tell(Boolean(found), `${fault.what}: ${found ?? 'not found'}`)
}

process.chdir(root)
mkdirSync('test-results', { recursive: true })
const [passed, failed] = [said.filter(Boolean).length, said.filter((isGood) => !isGood).length]
writeFileSync(join('test-results', 'faults.json'), JSON.stringify({ numPassedTests: passed, numFailedTests: failed, numRuntimeErrorTestSuites: 0 }))
console.log(`${passed} passed, ${failed} failed`)
process.exitCode = failed > 0 ? 1 : 0
