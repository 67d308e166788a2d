import type { Mark } from './facts'
import type { Ate, RecordCheck, Sign } from '../rounds/rounds.schema'

/** What can be seen, read or done at a tank, one thing at a time; a closed list. */
export const observationKinds = ['ate', 'sign', 'seen', 'reading', 'dose', 'restart', 'note'] as const
export type ObservationKind = (typeof observationKinds)[number]

/** One thing of a touch, before it is known who, when and where. */
export interface Observed {
  kind: ObservationKind
  /** Null where the whole tank is meant: then it holds for every lot that stood in it. */
  lotId: string | null
  word: Ate | Sign | null
  /** Of a sign: 1 slight or one fish, 2 clear or several. */
  severity: number | null
  value: number | null
  note: string | null
}

const blank: Observed = { kind: 'note', lotId: null, word: null, severity: null, value: null, note: null }

/** The signs of a check with how badly and on whom; one without a mark is slight and of the tank. */
export const marksOf = ({ signs, marks = [] }: Pick<RecordCheck, 'signs' | 'marks'>): Mark[] =>
  signs.flatMap((sign): Mark[] => {
    const own = marks.filter((mark) => mark.sign === sign)
    return own.length > 0 ? own : [{ sign, severity: 1, lotId: null }]
  })

/**
 * Takes a check apart into what it says, the feeding response first.
 * @example observedAt({ ate: 'all', signs: [], seen: 4, note: null }) // [{ kind: 'ate', word: 'all' }, { kind: 'seen', value: 4 }]
 */
export function observedAt({ ate, signs, marks, answers = [], counts = [], seen, note }: Pick<RecordCheck, 'ate' | 'signs' | 'marks' | 'answers' | 'counts' | 'seen' | 'note'>): [Observed, ...Observed[]] {
  return [
    { ...blank, kind: 'ate', word: ate },
    ...answers.map(({ lotId, ate: own }): Observed => ({ ...blank, kind: 'ate', word: own, lotId })),
    ...marksOf({ signs, marks }).map(({ sign, severity, lotId }): Observed => ({ ...blank, kind: 'sign', word: sign, severity, lotId })),
    ...counts.map(({ lotId, seen: value }): Observed => ({ ...blank, kind: 'seen', lotId, value })),
    ...(seen === null ? [] : [{ ...blank, kind: 'seen' as const, value: seen }]),
    ...(note ? [{ ...blank, note }] : []),
  ]
}
