import { overflowAfter } from '../core/acclimation/mixing'
import { nominalOf } from '../core/acclimation/question'
import type { BenchSubject, RunView } from '../core/bench/benchView'
import { figureInputs, wordInputs } from '../core/bench/bagFigures'
import type { CrateView } from '../core/crates/crateView'
import type { Furnished } from './furnish'
import type { Commander } from './commander'

const minuteMs = 60_000

interface Bench extends Furnished {
  commander: Commander
}

/** What is on the bench when the demo opens: a crossing that began this morning, and two lines of the crate on the floor. */
export async function putOnTheBench(scene: Bench, open: CrateView, nowMs: number): Promise<void> {
  const { commander, people } = scene
  await commander.run('keepAirline', {}, { name: 'Blue airline', dropsPerMl: 18 }, people.lead, nowMs - 300 * minuteMs)
  await crossMonos(scene, nowMs - 292 * minuteMs, nowMs)
  const [first, second] = open.lines
  if (!first || !second) return
  await floatLine(scene, first.id, nowMs - 5 * minuteMs)
  await siphonLine(scene, second.id, nowMs - 80_000)
}

/** What a run of these fish begins with, as the bench would send it. */
export const bodyOf = (subject: BenchSubject, more: object) => ({
  ...{ kind: 'acclimation', agentId: null, toOutside: null, isPooled: true, dropsPerMl: 18, isDark: false, sentence: null, predicted: null, tankId: subject.tank?.id ?? null },
  sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
  figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])),
  words: Object.fromEntries(wordInputs.map(({ name, options = [] }) => [name, subject.words[name] ?? options[0]])),
  ...more,
})

/** Silver monos on their way from the brackish rack to sea water: hour by hour, with two readings. */
async function crossMonos({ commander, people, tanks }: Bench, atMs: number, nowMs: number): Promise<void> {
  const from = ['B1-02', 'B1-03'].find((code) => commander.tank(code, atMs).stock.some(({ species }) => species === 'Silver mono'))
  const to = ['C1-01', 'Q1-04', 'Q1-06'].find((code) => commander.tank(code, atMs).stock.length === 0)
  const lot = from && commander.tank(from, atMs).stock.find(({ species }) => species === 'Silver mono')
  if (!from || !to || !lot) return
  const subject = commander.subject({ lot: lot.lotId, from: tanks.get(from) ?? '', tank: tanks.get(to) ?? '' }, atMs)
  const quantity = Math.min(4, lot.quantity)
  const body = { ...bodyOf(subject, { schoolKey: 'overflow', vessel: 'grey tub', vesselL: 25, happenedAtMs: atMs }), sources: [{ placeId: tanks.get(from) ?? '', lotId: lot.lotId, quantity }] }
  const { id } = await commander.run<{ id: string }>('startRun', {}, { ...body, figures: { ...body.figures, fish: quantity } }, people.lead, atMs)
  const run = (): RunView => commander.benchRun(id, nowMs)
  let at = atMs
  for (const [index, { minutes }] of run().plan.steps.entries()) {
    at += (minutes ?? 2) * minuteMs
    if (at > nowMs - 8 * minuteMs) break
    await commander.run('doStep', { runId: id }, { stepIndex: index, happenedAtMs: Math.round(at) }, people.lead, at)
  }
  await commander.run('recordRunReading', { runId: id }, { tempC: 24.8, salinityPpt: salinityOnTheWay(run(), nowMs - 6 * minuteMs), ph: 8, tanMgL: null, isSimulated: false, happenedAtMs: nowMs - 6 * minuteMs }, people.keepers[0] ?? people.lead, nowMs - 6 * minuteMs)
}

/** What a vessel that overflows as planned reads by then, a little behind. */
function salinityOnTheWay({ plan, events, startedAtMs }: RunView, atMs: number): number {
  const steps = events.filter(({ kind }) => kind === 'step')
  const inHand = plan.steps[steps.length]
  const deed = inHand?.water.find((each) => each.do === 'overflow')
  const from = plan.steps[steps.length - 1]?.toPpt ?? nominalOf(plan.question).salinityPpt
  if (!inHand?.minutes || !deed || !('litres' in deed)) return from
  const minutes = (atMs - (steps.at(-1)?.atMs ?? startedAtMs)) / minuteMs
  return Number(overflowAfter(0.95 * minutes, { volumeL: inHand.endL, flow: deed.litres / inHand.minutes, from, to: plan.question.tank.salinityPpt }).toFixed(1))
}

async function floatLine({ commander, people }: Bench, lineId: string, atMs: number): Promise<void> {
  const subject = commander.subject({ line: lineId }, atMs)
  if (subject.sources.length === 0) return
  const { id } = await commander.run<{ id: string }>('startRun', {}, bodyOf(subject, { schoolKey: 'netOver', vessel: 'their own bags', vesselL: 5, isDark: true, happenedAtMs: atMs }), people.lead, atMs)
  await commander.run('recordRunReading', { runId: id }, { tempC: 23.1, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: atMs + 3 * minuteMs }, people.lead, atMs + 3 * minuteMs)
}

async function siphonLine({ commander, people }: Bench, lineId: string, atMs: number): Promise<void> {
  const subject = commander.subject({ line: lineId }, atMs)
  if (subject.sources.length === 0) return
  // The bag that came badly stays beside it: it needs a first response.
  const sound = { ...subject, sources: subject.sources.slice(0, 3), figures: { ...subject.figures, bags: { value: 3, from: 'list' as const } } }
  const { id } = await commander.run<{ id: string }>('startRun', {}, bodyOf(sound, { schoolKey: 'siphon', vessel: 'white tub', vesselL: 40, happenedAtMs: atMs }), people.lead, atMs)
  await commander.run('doStep', { runId: id }, { stepIndex: 0, happenedAtMs: atMs + 10_000 }, people.lead, atMs + 10_000)
  await commander.run('setFlow', { runId: id }, { mlPerMin: 240, happenedAtMs: atMs + 60_000 }, people.lead, atMs + 60_000)
}
