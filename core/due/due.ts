import { alarmsOf, isForgotten } from '../bench/alarms'
import type { RecheckView, RunView } from '../bench/benchView'
import { followRun } from '../bench/followRun'
import { choreWords, type AskedChore } from '../chores/askedChore'
import type { ChoresView } from '../chores/choreView'
import { groupBy } from '../collections/groupBy'
import { openClaim } from '../crates/claim'
import { summaryStage, type CrateSummary } from '../crates/crateSummary'
import type { StepView } from '../crates/preparation'
import type { Limits } from '../limits/houseLimits'
import type { VesselView } from '../moves/moveView'
import type { IntroductionView } from '../moves/introductionView'
import { proposalWords } from '../moves/introductionWords'
import { isAmiss, stateWords } from '../plans/planWords'
import type { PlanView } from '../plans/planView'
import { lowerFirst } from '../words/lowerFirst'
import type { DisplayUnits } from '../units/units'

/** Work that waits for somebody: steps of runs, looks after them, crates to unpack and to prepare for, claims, fish in buckets and boxes, newcomers, plans that can go or never will, what was asked for at a tank, the next step of a feed, probes that failed, what holds wait for, days on which they may be ready, steps of regimens; a closed list that later rules add to. */
export type DueKind = 'run step' | 'recheck' | 'crate' | 'preparation' | 'claim' | 'vessel' | 'introduction' | 'plan' | 'chore' | 'feed' | 'probe' | 'hold' | 'hold day' | 'regimen'

/** Late or calling; within the hour or without a time; later. */
export type Urgency = 'now' | 'soon' | 'later'

/** One piece of work, whatever it is about. */
export interface DueItem {
  /** Stays the same while the work does. */
  id: string
  kind: DueKind
  /** What is to be done, in a few words. */
  what: string
  /** Why, or how it stands, in a sentence; null where the few words say it. */
  detail: string | null
  /** The fish or the supplier it is about. */
  about: string
  /** Codes of tanks, or what else tells where; null where the screen does. */
  where: string | null
  /** Address of the screen where it is done. */
  to: string
  /** Since when it can be done, of a crate since it was packed; null when nobody knows. */
  sinceMs: number | null
  /** By when it is to be done; null for what a touch ends. */
  byMs: number | null
  urgency: Urgency
  /** Who did it; null while it waits. */
  done: { by: string; atMs: number } | null
}

const soonMs = 3_600_000

/** How urgent work is by its clock alone. */
export const urgencyAt = (byMs: number | null, nowMs: number): Urgency => (byMs === null || byMs - nowMs <= soonMs ? (byMs !== null && byMs <= nowMs ? 'now' : 'soon') : 'later')

const rank: Record<Urgency, number> = { now: 0, soon: 1, later: 2 }
/** Orders work: what calls first, then by when it is due, what has no time last. */
export const byUrgency = (a: DueItem, b: DueItem): number => rank[a.urgency] - rank[b.urgency] || (a.byMs ?? Infinity) - (b.byMs ?? Infinity) || (a.id < b.id ? -1 : 1)

/** The fish of a run, by species. */
export const speciesOfRun = (run: RunView): string => [...new Set(run.sources.map(({ species }) => species))].join(', ')

/** How a run stands now: its step, when that is due (null: a touch ends it), what it alarms of first, whether it was forgotten. */
export function runNow(run: RunView, limits: Limits, nowMs: number, units: DisplayUnits) {
  const now = followRun(run, limits, nowMs, units)
  const alarm = alarmsOf(run, now, limits, nowMs)[0]
  const dueAtMs = now.dueAtMs !== null && Number.isFinite(now.dueAtMs) ? now.dueAtMs : null
  return { index: now.index, step: now.step?.title ?? null, stepStartedAtMs: now.stepStartedAtMs, dueAtMs, alarm: alarm?.words ?? null, isAlarm: alarm?.level === 'act', isForgotten: isForgotten(now, limits, nowMs) }
}

/** A run and how it stands; null where it cannot be followed. */
export interface FollowedRun {
  run: RunView
  now: ReturnType<typeof runNow> | null
}

/** The step of a run that is in hand; none once its fish are in their tank or it has ended. One that cannot be followed is looked at and ended by hand. */
export function runDue({ run, now }: FollowedRun, nowMs: number): DueItem[] {
  if (run.endedAtMs !== null || run.outAtMs !== null) return []
  const of = { kind: 'run step' as const, about: speciesOfRun(run), where: run.tank?.code ?? null, to: `/bench/runs/${run.id}`, done: null }
  if (!now) return [{ ...of, id: `run step ${run.id} broken`, what: `run ${run.number} cannot be reckoned`, detail: 'Look at its fish, open it and end it.', sinceMs: run.startedAtMs, byMs: null, urgency: 'now' }]
  const { index, step, stepStartedAtMs, dueAtMs, alarm, isAlarm, isForgotten: isLeft } = now
  return [{ ...of, id: `run step ${run.id} ${index}`, what: step ?? 'End the run', detail: alarm, sinceMs: stepStartedAtMs, byMs: dueAtMs, urgency: isAlarm || isLeft ? 'now' : urgencyAt(dueAtMs, nowMs) }]
}

/** A look at fish some time after their run. */
export const recheckDue = ({ id, label, usual, species, tankCodes, dueAtMs, doneAtMs, doneBy }: RecheckView, nowMs: number): DueItem => ({
  ...{ id: `recheck ${id}`, kind: 'recheck', what: `look again, ${label} after`, detail: `usual by now: ${usual}`, about: species, where: tankCodes.join(', ') || null, to: '/bench', sinceMs: dueAtMs, byMs: dueAtMs },
  ...{ urgency: urgencyAt(dueAtMs, nowMs), done: doneAtMs === null ? null : { by: doneBy ?? '', atMs: doneAtMs } },
})

/** A crate that is due, or not out of its bags yet; none once it is. */
export function crateDue(crate: CrateSummary, nowMs: number): DueItem[] {
  const stage = summaryStage(crate)
  if (stage === 'done' || stage === 'closed') return []
  const what = { due: `crate ${crate.number} comes`, opening: `unpack crate ${crate.number}`, placing: `place crate ${crate.number}` }[stage]
  const byMs = stage === 'due' ? crate.expectedAtMs : null
  return [{ id: `crate ${crate.id} ${stage}`, kind: 'crate', what, detail: null, about: crate.supplier, where: null, to: `/crates/${crate.id}${stage === 'due' ? '' : '/unpack'}`, sinceMs: crate.packedAtMs, byMs, urgency: stage === 'due' ? urgencyAt(byMs, nowMs) : 'now', done: null }]
}

/** A step of the preparation for a crate that has not come yet. */
export const preparationDue = (crate: CrateSummary, { key, what, why, dueAtMs, done }: StepView, nowMs: number): DueItem => ({
  ...{ id: `preparation ${crate.id} ${key}`, kind: 'preparation', what, detail: why, about: `crate ${crate.number}, ${crate.supplier}`, where: null, to: `/crates/${crate.id}/preparation`, sinceMs: null, byMs: dueAtMs },
  ...{ urgency: urgencyAt(dueAtMs, nowMs), done },
})

/** Fish in a bucket or a box, until it bears them no longer. */
export function vesselDue({ id, name, tank, fish, sinceMs, limit }: VesselView, nowMs: number): DueItem[] {
  if (limit === null) return []
  const { watchAtMs, actAtMs, binds } = limit
  const where = tank?.code ?? null
  const detail = nowMs >= actAtMs ? `${name} bears them no longer (${binds}): back into a tank, or another vessel` : nowMs >= watchAtMs ? `${name} bears them not much longer (${binds})` : null
  return [{ id: `vessel ${id}`, kind: 'vessel', what: `fish in ${name}`, detail, about: fish.map(({ species, quantity }) => `${quantity} ${species}`).join(', '), where, to: `/vessels/${id}`, sinceMs, byMs: actAtMs, urgency: nowMs >= watchAtMs ? (nowMs >= actAtMs ? 'now' : 'soon') : urgencyAt(actAtMs, nowMs), done: null }]
}

/** What an introduction waits for: the next step, then the next look, a bully to be boxed or let out. */
export function introductionDue({ id, number, tank, newcomers, steps, proposes, nextLookAtMs, boxes, endedAtMs, startedAtMs, state }: IntroductionView, nowMs: number): DueItem[] {
  if (endedAtMs !== null) return []
  const of = { kind: 'introduction' as const, about: newcomers.map(({ name, quantity }) => `${quantity} ${name}`).join(', '), where: tank.code, to: `/bench/introductions/${id}`, sinceMs: startedAtMs, done: null }
  const step = steps.find(({ doneAtMs }) => doneAtMs === null)
  const isUrgent = proposes === 'box' || proposes === 'take out'
  const next = isUrgent || (proposes === 'return' && state === 'time out')
  const item = (what: string, byMs: number | null, detail: string | null, urgency = urgencyAt(byMs, nowMs)): DueItem => ({ ...of, id: `introduction ${id} ${what}`, what: `introduction ${number}: ${lowerFirst(what)}`, detail, byMs, urgency })
  return [
    ...(next ? [item(proposalWords(proposes) ?? '', isUrgent ? nowMs : (boxes[0]?.dueAtMs ?? nowMs), boxes.map(({ who }) => who).join(', ') || null, 'now')] : []),
    ...(step ? [item(step.words, step.dueAtMs, null)] : []),
    ...(!isUrgent && nextLookAtMs !== null ? [item('Look', nextLookAtMs, null)] : []),
  ]
}

/** A plan that can go now, asks for a measure, or will never go: somebody turns to it. */
export function planDue({ id, number, state, from, to, fish, waits, deadlock }: PlanView): DueItem[] {
  const isAsking = state === 'ready' || state === 'ask'
  if (!isAsking && !isAmiss(state)) return []
  const detail = state === 'ready' ? null : deadlock.length > 0 ? `waits for ${deadlock.join(', ')}, and they for it: one needs a third place` : waits.join('; ') || null
  const about = fish.map(({ name, quantity }) => `${quantity} ${name}`).join(', ')
  return [{ id: `plan ${id} ${state}`, kind: 'plan', what: `plan ${number} ${stateWords[state]}`, detail, about, where: `${from.code} to ${to.code}`, to: `/plans#plan-${number}`, sinceMs: null, byMs: null, urgency: isAsking ? 'soon' : 'later', done: null }]
}

/** Work at a tank that somebody asked for. */
export const choreDue = (chore: AskedChore, nowMs: number): DueItem => ({
  ...{ id: `chore ${chore.id}`, kind: 'chore', what: choreWords(chore), detail: `asked by ${chore.askedBy}`, about: chore.tankCode, where: null, to: `/room/${chore.tankCode}` },
  ...{ sinceMs: chore.askedAtMs, byMs: chore.byMs, urgency: urgencyAt(chore.byMs, nowMs), done: null },
})

/** Work that comes round, each chore once with its places. */
export const routineDue = ({ on, due }: Pick<ChoresView, 'on' | 'due'>): DueItem[] =>
  [...groupBy(due, ({ choreId }) => choreId)].map(([choreId, places]): DueItem => {
    const late = Math.max(...places.map(({ lateDays }) => lateDays))
    return {
      ...{ id: `routine ${choreId} ${on}`, kind: 'chore', what: places.map(({ place }) => place).join(', '), detail: late > 0 ? `late by ${late} day${late === 1 ? '' : 's'}` : null, about: places[0]?.chore ?? '', where: null, to: `/chores#chore-${choreId}` },
      ...{ sinceMs: null, byMs: null, urgency: late > 0 ? 'now' : 'soon', done: null },
    }
  })

/** The claim of a crate, while its window is open. */
export const claimDue = (crate: CrateSummary, nowMs: number): DueItem[] =>
  openClaim(crate, nowMs).map(({ crateId, number, supplier, dead, missing, endsAtMs }) => ({
    ...{ id: `claim ${crateId}`, kind: 'claim', what: `claim ${[dead > 0 ? `${dead} dead` : '', missing > 0 ? `${missing} missing` : ''].filter(Boolean).join(', ')} of crate ${number}`, detail: null, about: supplier, where: null, to: `/crates/${crateId}/claim` },
    ...{ sinceMs: crate.arrivedAtMs, byMs: endsAtMs, urgency: urgencyAt(endsAtMs, nowMs), done: null },
  }))
