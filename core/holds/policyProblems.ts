import { byText } from '../contacts/contact'
import { backTo, phaseCounts, phaseKinds, type Gate, type HoldPolicy, type LevelRange, type Phase } from './policy'

const [phaseGates, releaseGates] = [['eating', 'fillingOut', 'looked', 'cleared', 'pairing', 'steps', 'reading'], ['eating', 'fillingOut', 'looked', 'cleared', 'pairing', 'reading']]
const mostDays = 365

const isUpsideDown = ({ lo, hi }: { lo?: number | null; hi?: number | null }): boolean => lo != null && hi != null && lo > hi
const hasNoRange = (level: LevelRange | undefined): boolean => (level?.lo ?? null) === null && (level?.hi ?? null) === null
const readingUpsideDown = (gates: readonly Gate[]): boolean => gates.some((gate) => gate.gate === 'reading' && isUpsideDown(gate))

function phaseProblems({ kind, days, counts, level, gates = [] }: Phase): string[] {
  const found: [boolean, string][] = [
    [!phaseKinds.includes(kind), 'unknown kind of phase'],
    [!Number.isInteger(days) || days < 0 || days > mostDays, 'days not 0 to 365'],
    [counts !== undefined && !phaseCounts.includes(counts), 'unknown way of counting'],
    [counts === 'atLevel' && hasNoRange(level), 'level without a range'],
    [(level !== undefined && isUpsideDown(level)) || readingUpsideDown(gates), 'range upside down'],
    [days === 0 && gates.length === 0, 'phase without days or gates'],
    [gates.some(({ gate }) => !phaseGates.includes(gate)), 'unknown gate'],
  ]
  return found.flatMap(([isSo, words]) => (isSo ? [words] : []))
}

/** Whether a step of its own course would send fish back before it was done. */
function restartsItself(policy: HoldPolicy): boolean {
  const back = backTo(policy, policy.onTreatment)
  return back >= 0 && policy.phases.slice(back).some(({ gates = [] }) => gates.some((gate) => gate.gate === 'steps' && gate.of !== 'transfer'))
}

/**
 * What is wrong with a policy, sorted; empty when it is sound. A sound one ends: with every gate given as soon as it is
 * asked, fish are ready after the sum of its phases.
 */
export function policyProblems(policy: HoldPolicy): string[] {
  const { phases, onSign, onAddition, onTreatment, release } = policy
  const found: [boolean, string][] = [
    [new Set(phases.map(({ id }) => id)).size < phases.length, 'phase named twice'],
    [[onSign, onAddition, onTreatment].some((rule) => rule !== null && backTo(policy, rule) < 0), 'goes back to no phase'],
    [restartsItself(policy), 'own treatment would restart it'],
    [release.some(({ gate }) => !releaseGates.includes(gate)), 'unknown gate'],
    [readingUpsideDown(release), 'range upside down'],
  ]
  return [...new Set([...phases.flatMap(phaseProblems), ...found.flatMap(([isSo, words]) => (isSo ? [words] : []))])].sort(byText)
}
