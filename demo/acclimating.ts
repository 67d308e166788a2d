import type { TrialOfCrate } from '../core/outcomes/outcomeViews'
import type { BenchView } from '../core/bench/benchView'
import { Problem } from '../server/http/problem'
import type { Furnished } from './furnish'
import type { Commander } from './commander'
import { bodyOf } from './onTheBench'

const minuteMs = 60_000

interface Bench extends Furnished {
  commander: Commander
}

/** Schools that a supplier's crates are taken in by, one crate after the other: nobody here knows yet which is better. */
const schoolsOfSupplier: Record<string, readonly string[]> = {
  'Hollow Reed Hatchery': ['netOver', 'drip'],
  'Brackwater Nurseries': ['drip', 'netOver'],
  'Pale Harbour Livestock': ['drip', 'siphon'],
}

/** The school of a supplier's next crate. */
function schoolOf(supplier: string, crates: number): string {
  const own = schoolsOfSupplier[supplier] ?? []
  return own[crates % own.length] ?? 'netOver'
}

/** Schools as the bench calls them, by the name that a trial has them under. */
const keyOfSchool: Record<string, string> = { 'Net-over': 'netOver', 'Slow drip, still': 'drip' }

/** The school that a trial gives a crate; null where none runs, or it has no place for it. */
async function schoolOfTrial({ commander, people: { lead } }: Bench, crateId: string, atMs: number): Promise<string | null> {
  const { trial } = commander.ask<{ trial: TrialOfCrate | null }>('/api/crates/:crateId/trial', { crateId }, atMs)
  if (!trial?.next) return null
  const { school } = await commander.run<{ school: string }>('takePart', { trialId: trial.trialId }, { crateId, worstA: 0.5, worstB: 0.6, hasBinder: false }, lead, atMs)
  return keyOfSchool[school] ?? null
}

/** Takes lines of a crate through one school, from the first bag afloat to the count; what no run takes goes in the plain way. */
export async function acclimateCrate(scene: Bench, crateId: string, { supplier, nth, atMs: openedMs }: { supplier: string; nth: number; atMs: number }, fromMs: number): Promise<string> {
  const schoolKey = (await schoolOfTrial(scene, crateId, openedMs)) ?? schoolOf(supplier, nth)
  const { lines } = scene.commander.crate(crateId, fromMs)
  // Every other line goes over the bench; the rest is settled by the van's crew, and nobody wrote a run down.
  for (const [index, { id }] of lines.entries()) if (index % 2 === 0) await acclimateLine(scene, id, schoolKey, fromMs + index * 3 * minuteMs)
  await placeRest(scene, crateId, fromMs + 150 * minuteMs)
  return schoolKey
}

/** Fish go where they are planned; what has become one too many for its tank meanwhile, the lead decides. */
async function placeRest({ commander, people }: Bench, crateId: string, atMs: number): Promise<void> {
  const left = (): { lineId: string }[] => commander.crate(crateId, atMs).bags.filter(({ inBag }) => inBag > 0)
  if (left().length === 0) return
  await commander.run('placeBags', { crateId }, { tankId: null, happenedAtMs: atMs }, people.lead, atMs)
  const { lines } = commander.crate(crateId, atMs)
  const tanks = new Set(left().map(({ lineId }) => lines.find(({ id }) => id === lineId)?.tank?.id))
  for (const tankId of tanks) if (tankId) await commander.run('placeBags', { crateId }, { tankId, override: 'a few more than listed; some are sold tomorrow', happenedAtMs: atMs }, people.lead, atMs)
}

async function acclimateLine({ commander, people }: Bench, lineId: string, schoolKey: string, fromMs: number): Promise<void> {
  const subject = commander.subject({ line: lineId }, fromMs)
  if (subject.sources.length === 0 || subject.tank === null || subject.against.length > 0) return
  const started = await commander.run<{ id: string }>('startRun', {}, bodyOf(subject, { schoolKey, vessel: 'grey tub', vesselL: 60, happenedAtMs: fromMs }), people.lead, fromMs).catch((error: unknown) => {
    // What the bench asks first, such as a salinity nobody read, is not made up here.
    if (error instanceof Problem) return null
    throw error
  })
  if (started === null) return
  const { id } = started
  let atMs = fromMs
  const { steps } = commander.benchRun(id, fromMs).plan
  for (const [stepIndex, { minutes, countsOut }] of steps.entries()) {
    atMs += (minutes ?? 1) * minuteMs
    const happenedAtMs = Math.round(atMs)
    if (countsOut) return void (await commander.run('countOut', { runId: id }, { stepIndex, counts: countsOf(subject.sources), tankId: null, override: null, look: 'as expected', cause: 'found dead', note: null, happenedAtMs }, people.lead, happenedAtMs))
    await commander.run('doStep', { runId: id }, { stepIndex, happenedAtMs }, people.lead, happenedAtMs)
  }
}

function countsOf(sources: readonly { lotId: string; quantity: number }[]): { lotId: string; alive: number; dead: number }[] {
  const lots = new Map<string, number>()
  for (const { lotId, quantity } of sources) lots.set(lotId, (lots.get(lotId) ?? 0) + quantity)
  return [...lots].map(([lotId, alive]) => ({ lotId, alive, dead: 0 }))
}

/** Looks again at whatever came into its tank by a run, as the bench asks for it. */
export async function lookAgain({ commander, people }: Bench, atMs: number): Promise<void> {
  const { rechecks } = commander.ask<BenchView>('/api/bench', {}, atMs)
  for (const { id, dueAtMs, doneAtMs } of rechecks) if (doneAtMs === null && dueAtMs <= atMs) await commander.run('doRecheck', { recheckId: id }, { look: 'as expected', note: null, happenedAtMs: Math.max(dueAtMs, atMs - minuteMs) }, people.lead, atMs)
}
