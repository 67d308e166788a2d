import { causes, evidenceNames, evidenceTable, type Cause, type Evidence, type EvidenceRow } from './causeTable'
import { dust, outcomeRules, type OutcomeRules } from './outcomeRules'

/** Whether something is so; unknown where nobody looked or measured. */
export type Answer = 'yes' | 'no' | 'unknown'
export type Answers = Readonly<Partial<Record<Evidence, Answer>>>

export interface CauseHint {
  cause: Cause
  word: 'points to' | 'fits'
  score: number
  /** Evidence for it and against it, the strongest first; `not x` where the answer was no. */
  for: string[]
  against: string[]
}

export interface CauseHints {
  hints: CauseHint[]
  /** Evidence nobody has yet that would part the causes most, three at most. */
  lookNext: Evidence[]
}

interface Weighed {
  evidence: Evidence
  answer: 'yes' | 'no'
  group: string
  weight: number
}

const causeNames = Object.keys(causes) as Cause[]
const shownMost = 3

/** Always said below hints. */
export const notADiagnosis = 'A pattern in the record, not a diagnosis. Ask a veterinarian.'

const rowOf = (evidence: Evidence): EvidenceRow => evidenceTable[evidence]

/** What losses look like, with what speaks for and against it and what to look at next; never a diagnosis. Source: docs/outcomes.md. */
export function causeHints({ evidence, limits }: { evidence: Answers; limits?: Partial<OutcomeRules> }): CauseHints {
  const rules = outcomeRules(limits)
  const scored = causeNames.map((cause) => ({ cause, ...scoreOf(cause, evidence, rules) })).sort((one, other) => other.score - one.score)
  const hints = scored.flatMap(({ cause, score, weighed }, place): CauseHint[] => {
    const favouring = weighed.filter(({ answer, weight }) => answer === 'yes' && weight > 0)
    const isAhead = place === 0 && score - (scored[1]?.score ?? -Infinity) >= Math.log(rules.lead) - dust
    const isPointed = isAhead && score >= Math.log(rules.pointsTo) - dust && new Set(favouring.map(({ group }) => group)).size >= 2
    if (!isPointed && (score < Math.log(rules.fits) - dust || favouring.length === 0)) return []
    return [{ cause, word: isPointed ? 'points to' : 'fits', score, for: named(weighed, 1), against: named(weighed, -1) }]
  })
  const shown = hints.slice(0, shownMost)
  return { hints: shown, lookNext: lookNext(evidence, shown.length > 0 ? shown.map(({ cause }) => cause) : causeNames.slice(0, shownMost)) }
}

function scoreOf(cause: Cause, evidence: Answers, { hintCap }: OutcomeRules): { score: number; weighed: Weighed[] } {
  const weighed = evidenceNames.flatMap((name): Weighed[] => {
    const [answer, row] = [evidence[name], rowOf(name)]
    const ratios = row.ratios[cause]
    if (!ratios || (answer !== 'yes' && answer !== 'no')) return []
    return [{ evidence: name, answer, group: row.group, weight: Math.log(answer === 'yes' ? ratios[0] : ratios[1]) }]
  })
  const strongest = new Map<string, number>()
  for (const { group, weight } of weighed) if (Math.abs(weight) > Math.abs(strongest.get(group) ?? 0) + dust) strongest.set(group, weight)
  const sum = [...strongest.values()].reduce((total, weight) => total + weight, 0)
  return { score: Math.min(Math.log(hintCap), Math.max(-Math.log(hintCap), sum)), weighed }
}

const named = (weighed: readonly Weighed[], sign: 1 | -1): string[] =>
  weighed
    .filter(({ weight }) => weight * sign > 0)
    .sort((one, other) => strength(other) - strength(one))
    .map(({ evidence, answer }) => (answer === 'no' ? `not ${evidence}` : evidence))
/** Equals keep the order of the table: logs of the same ratio may differ in their last digit. */
const strength = ({ weight }: Weighed): number => Math.round(Math.abs(weight) * 1e9)

function lookNext(evidence: Answers, shown: readonly Cause[]): Evidence[] {
  const parts = (name: Evidence): number =>
    Math.max(
      ...shown.map((cause) => {
        const ratios = rowOf(name).ratios[cause]
        return ratios ? Math.round(Math.abs(Math.log(ratios[0] / ratios[1])) * 1e9) : 0
      }),
    )
  return evidenceNames
    .filter((name) => (evidence[name] ?? 'unknown') === 'unknown' && parts(name) > 0)
    .sort((one, other) => parts(other) - parts(one))
    .slice(0, shownMost)
}
