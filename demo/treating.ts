import type { OfferView, RegimenView } from '../core/regimens/regimenView'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]

interface Scene extends Furnished {
  commander: Commander
}

/**
 * What is in waters this morning: copper half way up its days, a transfer before its second move, a low salinity that is
 * held, and half a dose kept in an empty tub for whoever comes next. Nothing of it is late.
 */
export async function treatWaters(scene: Scene, nowMs: number): Promise<void> {
  const copper = scene.commander.rows('agents', nowMs).find(({ values }) => values.name === 'Copper, ionic')?.id ?? ''
  await keepHalf(scene, copper, nowMs)
  await stepCopper(scene, copper, nowMs)
  await lowerSalinity(scene, nowMs)
  await transfer(scene, nowMs)
}

const tankId = ({ tanks }: Scene, code: string): string => tanks.get(code) ?? ''
const say = (scene: Scene, code: string, contents: readonly string[], atMs: number) => scene.commander.run('recordContents', { tankId: tankId(scene, code) }, { contents, binderUntilMs: null }, scene.people.lead, atMs)
const read = (scene: Scene, code: string, what: string, value: number, instrument: string | null, atMs: number) => scene.commander.run('recordReading', { tankId: tankId(scene, code) }, { what, value, instrument, happenedAtMs: atMs }, scene.people.keepers[1] ?? scene.people.lead, atMs)
const begin = async (scene: Scene, name: string, code: string, plan: object, note: string | null, atMs: number): Promise<string> =>
  (await scene.commander.run<{ id: string }>(name, {}, { tankId: tankId(scene, code), note, happenedAtMs: atMs, ...plan }, scene.people.lead, atMs)).id

/** Gives what the screen offers of a product. */
async function give(scene: Scene, code: string, productId: string, regimenId: string, atMs: number): Promise<void> {
  const { amount, towardsMgL, reasons } = scene.commander.ask<OfferView>('/api/tanks/:code/dose-offer', { code }, atMs, { product: productId, regimen: regimenId })
  await scene.commander.run('recordDose', { tankId: tankId(scene, code) }, { productId, regimenId, given: amount, towardsMgL, ticked: reasons.map((reason) => reason.code), reason: null, isDone: false, happenedAtMs: atMs }, scene.people.lead, atMs)
}
/** Fish that stood in a tank by then. */
const standing = ({ commander }: Scene, code: string, atMs: number) => commander.tank(code, atMs).stock.filter(({ quantity, sinceMs }) => quantity > 0 && sinceMs <= atMs)
const bringIn = ({ commander, people, tanks }: Scene, code: string, fish: { species: string; quantity: number; note: string }, atMs: number) =>
  commander.run('addFish', { tankId: tanks.get(code) ?? '' }, { ...fish, how: 'brought-in', happenedAtMs: atMs }, people.lead, atMs)
const holdBy = (scene: Scene, code: string, policyId: string, reason: string, atMs: number) =>
  scene.commander.run('changeHold', {}, { fish: standing(scene, code, atMs).map(({ lotId }) => ({ lotId, placeId: tankId(scene, code) })), policyId, phase: null, reason, happenedAtMs: atMs }, scene.people.lead, atMs)

/** Whether the last crates brought somebody to be treated is chance; that two groups stand there by then is not. */
export async function bringThoseTreated(scene: Scene, daysAgo: number, atMs: number): Promise<void> {
  if (daysAgo !== 12 || standing(scene, 'Q1-03', atMs).length > 1) return
  for (const quantity of [2, 3]) await bringIn(scene, 'Q1-03', { species: 'Banggai cardinalfish', quantity, note: 'given back by a customer, with grains on the fins' }, atMs)
}

/** Half a dose in a tub in which nobody stands. */
async function keepHalf(scene: Scene, copper: string, nowMs: number): Promise<void> {
  const beganMs = nowMs - 5 * dayMs - 2 * hourMs
  await say(scene, 'H1-02', [], beganMs)
  const regimenId = await begin(scene, 'startLadder', 'H1-02', { kind: 'ladder', productId: copper, levelDays: 21 }, 'kept for the next that come in with spots', beganMs + minuteMs)
  await give(scene, 'H1-02', copper, regimenId, beganMs + 2 * minuteMs)
  for (const [hours, mgL] of [[6, 0.09], [50, 0.087], [100, 0.085]] as const) await read(scene, 'H1-02', 'copperMgL', mgL, 'copper, ionic', beganMs + hours * hourMs)
  await read(scene, 'H1-02', 'copperMgL', 0.084, 'copper, ionic', nowMs - 14 * hourMs)
}

/** A ladder that was raised a week ago, read every evening. */
async function stepCopper(scene: Scene, copper: string, nowMs: number): Promise<void> {
  const [code, beganMs] = ['Q1-03', nowMs - 10 * dayMs - hourMs]
  // A short history has nobody there yet.
  if (standing(scene, code, beganMs).length === 0) return
  await holdBy(scene, code, 'copperLadder', 'grains on the fins of two', beganMs)
  await say(scene, code, ['livingFilter'], beganMs)
  const regimenId = await begin(scene, 'startLadder', code, { kind: 'ladder', productId: copper, levelDays: 21 }, null, beganMs + minuteMs)
  await give(scene, code, copper, regimenId, beganMs + 4 * minuteMs)
  for (const days of [0.3, 1, 2]) await read(scene, code, 'copperMgL', 0.088, 'copper, ionic', beganMs + days * dayMs)
  const raiseMs = beganMs + 3 * dayMs
  await read(scene, code, 'copperMgL', 0.087, 'copper, ionic', raiseMs - 20 * minuteMs)
  await give(scene, code, copper, regimenId, raiseMs)
  for (const [days, mgL] of [[0.2, 0.178], [1, 0.176], [2, 0.174], [3, 0.171], [4, 0.169], [5, 0.168]] as const) await read(scene, code, 'copperMgL', mgL, 'copper, ionic', raiseMs + days * dayMs)
  await read(scene, code, 'copperMgL', 0.166, 'copper, ionic', nowMs - 13 * hourMs)
}

/** Down in two days, low since. */
async function lowerSalinity(scene: Scene, nowMs: number): Promise<void> {
  const { commander, people } = scene
  const [code, beganMs] = ['Q1-01', nowMs - 6 * dayMs - hourMs]
  await bringIn(scene, code, { species: 'Common clownfish', quantity: 2, note: 'given back by a customer, with spots' }, beganMs - hourMs)
  await holdBy(scene, code, 'lowSalinity', 'spots', beganMs)
  const startOn = new Date(beganMs).toISOString().slice(0, 10)
  const regimenId = await begin(scene, 'startLowSalinity', code, { kind: 'low salinity', startOn, lowPpt: 12, housePpt: 34, holdDays: 28, fallPerDay: 12, upPerDay: 3, downPpt: 0, upPpt: 38, evapLPerDay: 0.5 }, null, beganMs)
  await read(scene, code, 'salinityPpt', 34, null, beganMs + minuteMs)
  for (const [step, at] of [[0, beganMs + 10 * minuteMs], [1, beganMs + dayMs]] as const) {
    const { salinity } = commander.ask<RegimenView>('/api/regimens/:regimenId', { regimenId }, at)
    const next = salinity?.down[0]
    await commander.run('recordWaterChange', { tankId: tankId(scene, code) }, { litres: next?.swapL, productId: null, mixMgL: null, salinityPpt: 0, regimenId, happenedAtMs: at }, people.lead, at)
    await read(scene, code, 'salinityPpt', step === 0 ? 23 : 12, null, at + 30 * minuteMs)
  }
  for (const days of [2, 3, 4]) await read(scene, code, 'salinityPpt', 12 + days / 10, null, beganMs + days * dayMs)
  await read(scene, code, 'salinityPpt', 12.2, null, nowMs - 15 * hourMs)
}

/** Moved on once three days ago; the second move is due before noon, into a tank that was cleaned and dried. */
async function transfer(scene: Scene, nowMs: number): Promise<void> {
  const { commander, people } = scene
  const firstMs = nowMs - 72 * hourMs + 2 * hourMs
  const beganMs = firstMs - 72 * hourMs
  const [from, to] = ['Q1-02', 'Q1-05']
  await bringIn(scene, from, { species: 'Firefish', quantity: 1, note: 'from a customer who gave up his tank' }, beganMs - 10 * minuteMs)
  await holdBy(scene, from, 'tankTransfer', 'white spot where it came from', beganMs - 5 * minuteMs)
  const regimenId = await begin(scene, 'startTransfer', from, { kind: 'transfer', tankIds: [tankId(scene, from), tankId(scene, to)], transfers: 4, everyH: 72, lateH: 6, cleanDryH: 24 }, null, beganMs)
  const [lot] = commander.tank(from, firstMs).stock
  if (lot) await commander.run('moveFish', { tankId: tankId(scene, from) }, { lotId: lot.lotId, quantity: lot.quantity, toTankId: tankId(scene, to), note: null, happenedAtMs: firstMs }, people.lead, firstMs)
  await commander.run('recordRegimenStep', { regimenId }, { kind: 'cleaned', tankId: tankId(scene, from), happenedAtMs: firstMs + hourMs }, people.keepers[0] ?? people.lead, firstMs + hourMs)
}
