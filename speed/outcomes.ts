import { outcomesApi } from '../core/outcomes/outcomes.api'
import { outcomesPage, type OutcomesQuestion } from '../core/outcomes/outcomesPage'
import { standardLimits } from '../core/limits/houseLimits'
import type { Database } from '../server/db/open'
import type { Read } from '../server/http/endpoint'
import { createLossBooks } from '../server/outcomes/lossBooks'
import { createOutcomesStore } from '../server/outcomes/outcomes.store'
import { createServices } from '../server/services'
import { launchBrowser, openRoom, signIn, taskWords, watchTasks } from './browserRoom'
import { figuresOf, report, timed } from './figures'
import { insertInto } from './insertInto'

const dayMs = 86_400_000
const nowMs = Date.now()
/** A million fish of 40,000 lots in 6,000 crates of 24 suppliers; 120,000 of them die, the others are sold, of the latest not all. */
const [lotCount, crateCount, supplierCount, speciesCount, tankCount, perLot, deadPerLot] = [40_000, 6000, 24, 60, 400, 25, 3]
const standDays = 60
const [runs, aim, aimMs] = [5, 2, 50]
const question: OutcomesQuestion = { by: 'supplier', day: 14, died: 'anything', supplier: null, species: null, origin: null, from: null, until: null, pair: null }

/** Everything Outcomes shows of a very large house, beside one pass over the same rows; and what the page does meanwhile. */
export async function benchOutcomes(): Promise<void> {
  const room = await openRoom(tankCount)
  const { db } = room
  db.raw.exec('PRAGMA synchronous=OFF')
  db.transact(() => fill(db))
  const store = createOutcomesStore(db)
  const [floor, ours, figures]: [number[], number[], number[]] = [[], [], []]
  for (let run = 0; run < runs; run += 1) {
    floor.push(await timed(() => sumOfRows(db)))
    // A new one each time: nothing is kept from the run before.
    const books = createLossBooks({ store, limits: () => standardLimits, zone: () => 'UTC', outbreaks: () => [] })
    ours.push(await timed(() => books.at(nowMs).risks.size))
    const { today, rules, lots } = books.at(nowMs)
    const all = lots()
    figures.push(await timed(() => outcomesPage({ lots: all, today, rules, question })))
  }
  report('Losses of 1,000,000 fish, 40,000 lots, 120,000 deaths: counting time from the ledger', 'the same rows read and summed', figuresOf(ours), figuresOf(floor), aim)
  report('The same: curves, 24 comparisons, ranking, kinds of death, reckoned away from the page', 'the same rows read and summed', figuresOf(figures), figuresOf(floor), aim)
  let lots = ''
  const answerMs = await timed(() => (lots = lotsAnswered(db)))
  console.log(`\nIts lots as the server answers them, once after a start: ${(lots.length / 1e6).toFixed(0)} MB after ${(answerMs / 1000).toFixed(1)} s`)
  await benchPage(lots)
  room.close()
}

/** What the server answers the page of such a house. */
function lotsAnswered(db: Database): string {
  const lots = createServices({ db, now: () => nowMs }).endpoints.find((each): each is Read => each.kind === 'read' && each.path === outcomesApi.readOutcomeLots.path)
  return JSON.stringify(lots?.read({ params: {}, query: {}, nowMs }))
}

/** One pass over the rows that count. */
function sumOfRows({ raw }: Database): number {
  let sum = 0
  for (const { quantity } of raw.prepare("SELECT seq, id, kind, lot_id, from_place_id, to_place_id, quantity, happened_at_ms, cause, reverses_id FROM movement ORDER BY seq").all() as { quantity: number }[]) sum += quantity
  return sum
}

/** The page with the lots of the large house; all else it asks is answered by a small one, since only its own tasks are measured. */
async function benchPage(lots: string): Promise<void> {
  const { url, close } = await openRoom()
  const browser = await launchBrowser()
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  page.setDefaultTimeout(180_000)
  await page.route(`**${outcomesApi.readOutcomeLots.path}`, (route) => route.fulfill({ contentType: 'application/json', body: lots }))
  await signIn(page, url)
  await page.goto(`${url}/outcomes/trials`)
  await page.locator('main h1').waitFor()
  const passed = await watchTasks(page)
  await page.getByRole('link', { name: 'Survival' }).click()
  await page.getByText('Reading the losses').waitFor()
  await page.locator('.group-table').first().waitFor({ state: 'attached' })
  const reckoned = await passed()
  await browser.close()
  close()
  console.log(`\nOutcomes page of the same house in Chromium: figures after ${(reckoned.sinceMs / 1000).toFixed(1)} s\n  longest task of the page meanwhile: ${taskWords(reckoned.longestMs)}   aim: under ${aimMs} ms, ${reckoned.longestMs < aimMs ? 'met' : 'NOT met'}`)
}

/** Writes the house row by row, so that the triggers keep its stock. */
function fill({ raw }: Database): void {
  const insert = insertInto({ raw })
  const staff = (raw.prepare('SELECT id FROM staff LIMIT 1').get() as { id: string }).id
  const tanks = (raw.prepare('SELECT id FROM tank ORDER BY id').all() as { id: string }[]).map(({ id }) => id)
  const [species, supplier, crate, lot, line] = [insert('species', 'id, name, name_key, created_at_ms'), insert('supplier', 'id, name'), insert('crate', 'id, number, supplier_id, created_at_ms, packed_at_ms'), insert('lot', 'id, code, species_id, origin, created_at_ms'), insert('line', 'id, crate_id, position, count, lot_id, version')]
  const movement = insert('movement', 'id, kind, lot_id, from_place_id, to_place_id, quantity, cause, reason, staff_id, command_key, happened_at_ms, recorded_at_ms')
  for (let index = 0; index < speciesCount; index += 1) species(`sp${index}`, `Kind ${index}`, `kind ${index}`, 0)
  for (let index = 0; index < supplierCount; index += 1) supplier(`su${index}`, `Supplier ${index}`)
  const openedMs = (index: number): number => nowMs - Math.floor(((crateCount - index) / crateCount) * 1500 + 20) * dayMs
  for (let index = 0; index < crateCount; index += 1) crate(`c${index}`, index + 10, `su${index % supplierCount}`, openedMs(index), openedMs(index) - dayMs)
  for (let index = 0; index < lotCount; index += 1) {
    const crateIndex = Math.floor((index * crateCount) / lotCount)
    const [lotId, atMs, tank] = [`l${index}`, openedMs(crateIndex), tanks[index % tanks.length] ?? '']
    const sold = [6, 6, nowMs - atMs > standDays * dayMs ? 10 : 6]
    lot(lotId, `L${index}`, `sp${index % speciesCount}`, 'bench', atMs)
    line(`n${index}`, `c${crateIndex}`, index, perLot, lotId, 1)
    const write = (name: string, kind: string, from: string, to: string, quantity: number, cause: string | null, day: number): void => movement(`${name}${index}`, kind, lotId, from, to, quantity, cause, null, staff, 'k', atMs + day * dayMs, atMs + day * dayMs)
    write('a', 'arrive', 'outside', tank, perLot, null, 0)
    for (let dead = 0; dead < deadPerLot; dead += 1) write(`d${dead}-`, 'loss', tank, 'outside', 1, 'found dead', ((index * 7 + dead * 5) % 19) + (crateIndex % 3 === 0 ? 0 : dead))
    for (const [sale, quantity] of sold.entries()) write(`s${sale}-`, 'release', tank, 'outside', quantity, null, 15 + sale * 2)
  }
}
