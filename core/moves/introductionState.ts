import { byText } from '../contacts/contact'
import { shippedMoveRules, type MoveRules } from './moveRules'

export const introductionEvents = ['in', 'back', 'box', 'divider out', 'look', 'dead', 'taken out'] as const
export type IntroductionEventKind = (typeof introductionEvents)[number]
export const lookLevels = ['quiet', 'chased', 'hurt'] as const
export type LookLevel = (typeof lookLevels)[number]

/** Something that happened while fish got used to each other; minutes, in order. */
export interface IntroductionEvent {
  at: number
  kind: IntroductionEventKind
  who?: string | null
  /** What a look saw. */
  level?: LookLevel | null
}

export const introductionStates = ['not begun', 'running', 'time out', 'done', 'failed'] as const

export interface IntroductionState {
  state: (typeof introductionStates)[number]
  /** Bullies that sit in a box, and until when. */
  boxes: { who: string; dueAt: number }[]
  nextLookAt: number | null
  proposes: 'box' | 'return' | 'look' | 'take out' | null
}

/**
 * How an introduction stands. Only a quiet look ends it, days after the last trouble; looks are not asked for more often
 * than they help. Source: docs/moves.md.
 * @param boxDays - house limit: how long a bully sits in its box.
 */
export function introductionState({ now, events }: { now: number; events: readonly IntroductionEvent[] }, boxDays: number, rules: MoveRules = shippedMoveRules): IntroductionState {
  const first = events.find(({ kind }) => kind === 'in')
  if (first === undefined || first.at > now) return { state: 'not begun', boxes: [], nextLookAt: null, proposes: null }
  const lastAt = first.at + rules.introMostDays * 1440
  const boxed = new Map<string, number>()
  const timesBoxed = new Map<string, number>()
  let [anchor, troubles, quiets] = [first.at, 0, [] as number[]]
  const began = (at: number): void => void ([anchor, troubles, quiets] = [at, 0, []])
  const boxes = (): IntroductionState['boxes'] => [...boxed].map(([who, at]) => ({ who, dueAt: at + boxDays * 1440 })).sort((a, b) => byText(a.who, b.who))
  const over = (state: 'done' | 'failed', proposes: 'take out' | null): IntroductionState => ({ state, boxes: boxes(), nextLookAt: null, proposes })
  for (const { at, kind, who, level } of events) {
    if (at > now || at > lastAt) break
    if (at < first.at) continue
    if (kind === 'dead' || kind === 'taken out') return over('failed', null)
    if (kind !== 'look') {
      began(at)
      if (kind === 'back') boxed.delete(who ?? '')
      if (kind !== 'box') continue
      boxed.set(who ?? '', at)
      timesBoxed.set(who ?? '', (timesBoxed.get(who ?? '') ?? 0) + 1)
      if ((timesBoxed.get(who ?? '') ?? 0) > rules.introMostBoxes) return over('failed', 'take out')
    } else if (level === 'quiet') {
      troubles = 0
      const isCalm = boxed.size === 0 && at - anchor >= rules.introCalmHours * 60
      if (isCalm && quiets.some((quiet) => at - quiet >= rules.introLooksApartHours * 60)) return over('done', null)
      quiets.push(at)
    } else {
      const sofar = level === 'hurt' ? 2 : troubles + 1
      began(at)
      troubles = sofar
    }
  }
  if (now >= lastAt) return over('failed', 'take out')
  const nextLookAt = nextLook(anchor, quiets.at(-1) ?? anchor, rules)
  const isDue = boxes().some(({ dueAt }) => dueAt <= now)
  return { state: boxed.size > 0 ? 'time out' : 'running', boxes: boxes(), nextLookAt, proposes: troubles >= 2 ? 'box' : isDue ? 'return' : nextLookAt <= now ? 'look' : null }
}

function nextLook(anchor: number, after: number, { introLooks }: MoveRules): number {
  const planned = introLooks.map((minutes) => anchor + minutes).find((at) => at > after)
  if (planned !== undefined) return planned
  const last = anchor + (introLooks.at(-1) ?? 0)
  return last + (Math.floor((after - last) / 1440) + 1) * 1440
}
