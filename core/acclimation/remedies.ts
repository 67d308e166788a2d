import type { Limits } from '../limits/houseLimits'
import { baseUnits, showFigure, type DisplayUnits } from '../units/units'
import { drawEnsemble, judge, type JudgedSchool } from './judge'
import { nominalOf, targetOf, type AcclimationQuestion } from './question'
import { schools as tradeSchools, type School, type SchoolStep } from './schools'

/** Something that would bring a school nearer to its limits, and how near: simulated, not guessed. */
export interface Remedy {
  words: string
  worst: number
  /** 10th percentile, as in a verdict. */
  lowestOxygenMgL: number
}

const draws = 200
const withSteps = (school: School, change: (step: SchoolStep) => SchoolStep[]): School => ({ ...school, steps: school.steps.flatMap(change) })

interface Idea {
  words: string
  question?: AcclimationQuestion
  school?: School
}

/** What could be tried for the limit that binds; what the school does not do cannot be left out of it. */
function ideasFor(judged: JudgedSchool, school: School, question: AcclimationQuestion, units: DisplayUnits): Idea[] {
  return allIdeas(judged, school, question, units).filter((idea) => !idea.school || JSON.stringify(idea.school.steps) !== JSON.stringify(school.steps))
}

function allIdeas({ binds }: JudgedSchool, school: School, question: AcclimationQuestion, units: DisplayUnits): Idea[] {
  const [nominal, target] = [nominalOf(question), targetOf(question)]
  const toward = (from: number, to: number, share: number): number => from + (to - from) * share
  const nearerTank = (tempC: number, salinityPpt: number): AcclimationQuestion => ({ ...question, prepared: { tempC, salinityPpt } })
  const longer = withSteps(school, (step) => [step.step === 'fill' ? { ...step, minutes: step.minutes * 2 } : step])
  const dilutedFirst = withSteps(school, (step) => (step.step === 'pour' ? [step, { step: 'dump', share: 0.5 }, { step: 'add', times: 0.5 }] : [step]))
  const roomier = withSteps(school, (step) => [step.step === 'overflow' ? { ...step, leastL: 3 * step.leastL, gramsPerL: step.gramsPerL / 3 } : step])
  const still = withSteps(school, (step) => [step.step === 'fill' && step.handling === 'air' ? { ...step, handling: 'bucket' } : step])
  switch (binds) {
    case 'T':
      return [{ words: `A tank at ${showFigure('temperature', toward(target.tempC, nominal.tempC, 0.5), units)}`, question: nearerTank(toward(target.tempC, nominal.tempC, 0.5), target.salinityPpt) }]
    case 'S':
      return [{ words: `A tank prepared to ${showFigure('salinity', nominal.salinityPpt, units)}`, question: nearerTank(target.tempC, nominal.salinityPpt) }, { words: 'Twice the minutes', school: longer }]
    case 'own':
      return [{ words: 'Twice the minutes', school: longer }]
    case 'co2':
      return [{ words: 'Dripping still, without an air stone', school: still }, { words: 'Twice the minutes', school: longer }]
    case 'nh3':
    case 'dose':
      return [{ words: 'Without an air stone', school: still }, { words: 'Pouring half of the bag water away first', school: dilutedFirst }, { words: 'Three times the made-up water', school: roomier }]
    case 'do':
      return [{ words: 'Diluting by half first', school: dilutedFirst }]
    case 'Shr':
      return [{ words: 'Half the step for each hour', school: withSteps(school, (step) => [step.step === 'tankRamp' ? { ...step, pptPerDay: step.pptPerDay / 2 } : step]) }]
  }
}

/**
 * Finds what would help a school most, by trying it out on the same bags. Nothing is said to help that takes the oxygen away.
 * @returns null when nothing that was tried helps by a twentieth.
 */
export function bestRemedy(judged: JudgedSchool, question: AcclimationQuestion, limits: Limits, all: readonly School[] = tradeSchools, units: DisplayUnits = baseUnits): Remedy | null {
  const plain = all.find(({ key }) => key === judged.key)
  if (!plain) return null
  const school = judged.variant === 'slowed float' ? { ...plain, variant: judged.variant } : plain
  const tried = ideasFor(judged, school, question, units).flatMap((idea): Remedy[] => {
    const only = { ...(idea.school ?? school) }
    delete only.needs
    const tried = judge(drawEnsemble(idea.question ?? question, limits, { draws, schools: [only] })).schools[0]
    return tried === undefined || tried.ratios.do >= 1 ? [] : [{ words: idea.words, worst: tried.worst, lowestOxygenMgL: tried.figures.lowestOxygenMgL }]
  })
  const best = tried.sort((a, b) => a.worst - b.worst)[0]
  return best && best.worst < judged.worst - 0.05 ? best : null
}
