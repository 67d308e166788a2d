import { choresDue, type ChoresAsked } from './chores/choresDue'
import { foodLoad, type FoodLoadAsked } from './kitchen/foodLoad'
import { thawList, type ThawAsked } from './kitchen/thawList'
import { expectedCourse, type CourseEvent, type CourseSpecies } from './rounds/expectedCourse'
import type { LevelAsked } from './rounds/levelReason'
import { missingProbability, type UnseenAsked } from './rounds/missing'
import { notEating, type NotEatingAsked } from './rounds/notEating'
import { partChange } from './rounds/partChange'
import { roundOrder } from './rounds/roundOrder'
import { roundState, type StateAsked } from './rounds/roundState'
import { splitRound, type SplitTank } from './rounds/splitRound'
import { tankLevel } from './rounds/tankLevel'
import { walkLength, type WalkAsked } from './rounds/walk'
import { byText } from './contacts/contact'

/** The judgement of the round, under the names of the specification (rounds, 9). */
export const roundAcceptance = {
  expectedCourse({ events, species = {} }: { events: readonly CourseEvent[]; species?: CourseSpecies }) {
    const { signs, ...course } = expectedCourse(events, species)
    return { signs: [...signs].map(([sign, left]) => ({ sign, ...left })).sort((a, b) => byText(a.sign, b.sign)), ...course }
  },
  tankLevel(asked: LevelAsked) {
    const { reasons, lots, ...level } = tankLevel(asked)
    return { ...level, lots: [...lots].sort((a, b) => byText(a.lot, b.lot)), reasons: reasons.map(({ why, what, lot, points }) => ({ why, what, lot, points })) }
  },
  partChange: ({ volumeL, nowMgL, targetMgL, freshMgL, mostShare }: { volumeL: number; nowMgL: number; targetMgL: number; freshMgL?: number; mostShare?: number }) =>
    partChange({ volumeL, now: nowMgL, target: targetMgL, fresh: freshMgL, mostShare }) ?? { problem: 'fresh water is no better' },
  missingProbability: (asked: UnseenAsked) => missingProbability(asked),
  notEating: (asked: NotEatingAsked) => notEating(asked),
  roundState: (asked: StateAsked) => roundState(asked),
  walkLength: ({ order, ...asked }: WalkAsked & { order: readonly string[] }) => walkLength(asked, order) ?? { isValid: false, seconds: null, changes: null },
  roundOrder(asked: WalkAsked) {
    const { isValid, seconds, isExact } = roundOrder(asked)
    return { isValid, seconds, isExact }
  },
  splitRound({ tanks, order, people, ...asked }: WalkAsked<SplitTank> & { order: readonly string[]; people: number }) {
    const byCode = new Map(tanks.map((tank) => [tank.code, tank]))
    return splitRound({ ...asked, tanks: order.flatMap((code) => byCode.get(code) ?? []) }, people)
  },
  thawList(asked: ThawAsked) {
    const { rations: _, ...list } = thawList(asked)
    return list
  },
  foodLoad: (asked: FoodLoadAsked) => foodLoad(asked),
  choresDue: (asked: ChoresAsked) => choresDue(asked),
}
