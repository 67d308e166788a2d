import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { figureInputs, wordInputs } from '../core/bench/bagFigures'
import { createServices } from '../server/services'
import { openDatabase } from '../server/db/open'
import { checkLedger } from '../server/ledger/checkLedger'
import { createRandom } from './random'
import { newKey, newRush, poolsOf, strike } from './rush'
import { createVictim, type Write } from './victim'

// `npm run attack`: whatever no person would send, at every address, with the server killed in the middle, a second one
// beside it, a run that was forgotten and a disk that is full. On loopback, bounded, and from one seed (another one may be named).
const requests = 12_000
const atOnce = 8
const kills = 10
const seed = Number(process.argv[2] ?? 20_310_504)
/** Of the database while its disk is full: what it has, and this little more. */
const roomLeftMb = 1

const failures: string[] = []
const checks: string[] = []
function check(what: string, isGood: boolean, detail = ''): void {
  checks.push(`${isGood ? 'holds' : 'FAILS'}: ${what}${detail && `: ${detail}`}`)
  console.log(checks.at(-1))
  if (!isGood) failures.push(`${what} ${detail}`)
}

const endpoints = (() => {
  const db = openDatabase(':memory:')
  const { endpoints: declared } = createServices({ db, now: Date.now })
  return declared
})()
const victim = createVictim()
const random = createRandom(seed)
const rush = newRush()

/** Many devices strike at once until so many requests are sent; a server that is gone is waited for by whoever killed it. */
async function strikeUntil(total: number): Promise<void> {
  const pools = await poolsOf(victim)
  await Promise.all(Array.from({ length: atOnce }, async () => {
    while (rush.sent < total && victim.isUp()) await strike(victim, endpoints, random, pools, rush)
  }))
}

async function mutationsAndKills(): Promise<void> {
  for (let life = 1; life <= kills + 1; life += 1) {
    await victim.signIn()
    const striking = strikeUntil(Math.round((requests * life) / (kills + 1)))
    // The last part of each life is cut short by a kill, but for the last life.
    if (life <= kills) await Promise.race([striking, new Promise((resolve) => setTimeout(resolve, 2500 + 400 * (life % 4)))])
    else await striking
    if (life > kills) break
    await victim.kill()
    await striking
    await victim.start()
  }
  check(`${rush.sent} requests over ${rush.asked.size} addresses, ${rush.taken.size} of which took something: no answer of 500, every refusal a problem in plain words`, rush.faults.length === 0, [...new Set(rush.faults)].slice(0, 12).join('\n  '))
  check('the server never died of one', victim.deaths.length === 0, victim.deaths.join('\n  '))
}

/** Sent again with its key, what was acknowledged is answered as before: it is in the books, once. */
async function nothingLost(through: string, acknowledged: readonly Write[]): Promise<void> {
  await victim.signIn()
  const lost: string[] = []
  for (let from = 0; from < acknowledged.length; from += atOnce) {
    await Promise.all(acknowledged.slice(from, from + atOnce).map(async (write) => {
      const answer = await victim.send(write)
      if (!answer?.isReplay) lost.push(`${write.method} ${write.path}: ${answer?.status}`)
    }))
  }
  check(`${acknowledged.length} acknowledged writes through ${through}: none lost`, lost.length === 0, lost.slice(0, 8).join('\n  '))
}

const screens = ['/api/today', '/api/room', '/api/rounds/today', '/api/crates', '/api/bench', '/api/setup/suppliers', '/api/setup/species', '/api/schools', '/api/house-limits', '/api/find?q=a']
async function screensOpen(): Promise<string[]> {
  const answers = await Promise.all(screens.map(async (path) => [path, (await victim.ask('GET', path))?.status] as const))
  return answers.filter(([, status]) => status !== 200).map(([path, status]) => `${path} ${status}`)
}

const post = (path: string, body: object) => victim.send({ method: 'POST', path, key: newKey(), body: JSON.stringify(body) })

/** A run that is begun and left, looked at twenty days later. */
async function forgottenRun(): Promise<void> {
  const { tanks } = await victim.get<{ tanks: { id: string; code: string; fish: number }[] }>('/api/room')
  const { rows } = await victim.get<{ rows: { values: { name: string; water: string | null } }[] }>('/api/setup/species')
  // Fish whose water somebody has said: for others no reason helps. From a tank that nothing swelled on the way here.
  const known = new Set(rows.flatMap(({ values }) => (values.water ? [values.name] : [])))
  const stocks = await Promise.all(tanks.filter(({ fish }) => fish > 2 && fish < 100).map(async (tank) => ({ tank, ...(await victim.get<{ stock: { lotId: string; species: string }[] }>(`/api/tanks/${tank.code}`)) })))
  const begin = stocks.flatMap(({ tank, stock }) => stock.filter(({ species }) => known.has(species)).map(({ lotId }) => ({ from: tank, lotId })))[0]
  const [from, lotId, to] = [begin?.from, begin?.lotId ?? '', tanks.find(({ fish }) => fish === 0) ?? tanks.at(-1)]
  const subject = await victim.get<{ figures: Record<string, { value: number } | undefined>; words: Record<string, string> }>(`/api/bench/subject?lot=${lotId}&from=${from?.id}&tank=${to?.id}`)
  const begun = await post('/api/bench/runs', {
    ...{ kind: 'acclimation', schoolKey: 'drip', agentId: null, sources: [{ placeId: from?.id, lotId, quantity: 1 }], tankId: to?.id, override: 'tried', toOutside: null, isPooled: true, vessel: 'bucket', vesselL: 20, dropsPerMl: 20, isDark: false, sentence: null, predicted: null },
    ...{ figures: Object.fromEntries(figureInputs.map(({ name }) => [name, name === 'fish' ? 1 : (subject.figures[name]?.value ?? null)])), words: Object.fromEntries(wordInputs.map(({ name }) => [name, subject.words[name]])), happenedAtMs: Date.now() - 40 * 3_600_000 },
  })
  check('a run is begun', begun?.status === 201, begun?.text.slice(0, 200))
  const { id = '' } = JSON.parse(begun?.text ?? '{}') as { id?: string }
  await victim.kill()
  await victim.start({ CRATE_CLOCK: new Date(Date.now() + 20 * 86_400_000).toISOString() })
  const shut = await screensOpen()
  check('with a run forgotten for twenty days every screen opens', shut.length === 0, shut.join(', '))
  const stopped = await post(`/api/bench/runs/${id}/stop`, { because: 'forgotten', tankId: to?.id, override: 'tried', happenedAtMs: Date.now() + 20 * 86_400_000 })
  check('and it can be ended', stopped?.status === 201, stopped?.text.slice(0, 200))
  await victim.kill()
}

/** The disk fills up under a real server: it says so and lives on, and what was refused is taken once there is room. */
async function fullDisk(): Promise<void> {
  const db = openDatabase(victim.database)
  const { bytes } = db.raw.prepare('SELECT page_count * page_size AS bytes FROM pragma_page_count, pragma_page_size').get() as { bytes: number }
  db.close()
  await victim.start({ CRATE_MOST_MB: String(Math.ceil(bytes / 1e6) + roomLeftMb) })
  await victim.signIn()
  const { tanks } = await victim.get<{ tanks: { id: string }[] }>('/api/room')
  const path = `/api/tanks/${tanks[0]?.id}/additions`
  const sent: Write[] = []
  let refused: Write | null = null
  for (let index = 0; index < 20_000 && !refused; index += 1) {
    const write = { method: 'POST', path, key: newKey(), body: JSON.stringify({ species: 'Cherry barb', quantity: 1, how: 'born', note: 'n'.repeat(500), happenedAtMs: Date.now() }) }
    const answer = await victim.send(write)
    if (answer?.status === 201) sent.push(write)
    else if (answer?.status === 507) refused = write
    else throw new Error(`a full disk was answered with ${answer?.status}: ${answer?.text}`)
  }
  const shut = await screensOpen()
  check(`a disk that is full after ${sent.length} more writes answers 507, and every screen still opens`, refused !== null && shut.length === 0, shut.join(', '))
  await victim.kill()
  await victim.start()
  await victim.signIn()
  const again = refused && (await victim.send(refused))
  check('with room again the same write is taken', again?.status === 201 && !again.isReplay, again?.text.slice(0, 200))
  await nothingLost('a full disk', sent)
}

try {
  victim.furnish()
  await victim.start()
  await mutationsAndKills()
  await nothingLost(`${kills} kills`, rush.acknowledged)
  check('a second server on the same folder ends with a failure', victim.second() === 1)
  await forgottenRun()
  await fullDisk()
  await victim.kill()
  const db = openDatabase(victim.database)
  const { movements, faults } = checkLedger(db)
  db.close()
  check(`the books are right after it (${movements} movements)`, faults.length === 0, faults.slice(0, 5).join('\n  '))
} catch (error) {
  check('the attack ran to its end', false, error instanceof Error ? (error.stack ?? error.message) : String(error))
} finally {
  await victim.end()
}
console.log(`${rush.sent} requests: ${[...rush.byStatus].sort(([a], [b]) => a - b).map(([status, count]) => `${count} × ${status || 'cut off by a kill'}`).join(', ')}`)
console.log(`slowest: ${Math.round(rush.slowestMs)} ms, ${rush.slowest}`)
mkdirSync('test-results', { recursive: true })
rmSync('test-results/attack.json', { force: true })
writeFileSync('test-results/attack.json', JSON.stringify({ numPassedTests: checks.length - failures.length, numFailedTests: failures.length, numRuntimeErrorTestSuites: 0 }))
process.exit(failures.length > 0 ? 1 : 0)
