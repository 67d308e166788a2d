import type { BrokenRule, RuleCode } from '../tankChoice/company'

/** What somebody decided for a lot and a tank: the rules by code, and all of them in words as they were said then. */
export interface Overruled {
  codes: readonly RuleCode[]
  broken: string
}

/** Figures change from day to day, and whoever was to come may stand there by now; the rule is the same. */
const sameWords = (words: string): string => words.replace(/\d+(\.\d+)?/g, '#').replace(/ \((run|crate) #\)/g, '')

/** Rules that name no animal: but for their figures they are their code. */
const ofFigures: readonly RuleCode[] = ['salinity', 'temperature', 'too-small']

/** Answers whether a rule was decided on before: the same rule about the same animals, whatever its figures. */
export const isOverruled = ({ code, why }: BrokenRule, decided: readonly Overruled[]): boolean =>
  code !== 'water-unknown' && decided.some(({ codes, broken }) => codes.includes(code) && (ofFigures.includes(code) || sameWords(broken).includes(sameWords(why))))
