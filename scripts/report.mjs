import { existsSync, readFileSync } from 'node:fs'

/** What passed and what failed so far. */
export const counts = { passed: 0, failed: 0 }
const times = []

/** Counts one step as a whole. */
export const count = (isGood) => void (isGood ? (counts.passed += 1) : (counts.failed += 1))

/** Counts the tests of a report (Jest's, Playwright's, that of the planted faults). A run that left none has failed. */
export function countReport(file) {
  const report = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null
  if (report?.stats) readBrowser(report)
  else if (report) readUnit(report)
  else count(false)
}

function readUnit({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults = [] }) {
  counts.passed += numPassedTests
  counts.failed += numFailedTests + numRuntimeErrorTestSuites
  for (const suite of testResults) for (const { fullName, duration } of suite.assertionResults) times.push([duration ?? 0, fullName])
}

// What passed only when it was run again has failed.
function readBrowser({ stats, suites, errors }) {
  counts.passed += stats.expected
  counts.failed += stats.unexpected + stats.flaky + (stats.expected + stats.unexpected + stats.flaky === 0 ? Math.max(1, errors.length) : 0)
  const walk = (suite) => {
    for (const spec of suite.specs ?? []) for (const { projectName, results } of spec.tests) times.push([results[0]?.duration ?? 0, `${projectName}: ${spec.title}`])
    for (const inner of suite.suites ?? []) walk(inner)
  }
  suites.forEach(walk)
}

/** Says where the time went. */
export function sayTimes(parts) {
  console.log('\nThe slowest ten:')
  for (const [ms, name] of times.sort(([a], [b]) => b - a).slice(0, 10)) console.log(`  ${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`)
  console.log(`${parts.join(', ')}`)
}
