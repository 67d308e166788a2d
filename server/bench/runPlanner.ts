import { TZDate } from '@date-fns/tz'
import { schoolFor } from '../../core/acclimation/judge'
import { isToSaltier, nominalOf, offeredSchools, type AcclimationQuestion } from '../../core/acclimation/question'
import { schools as tradeSchools, type School } from '../../core/acclimation/schools'
import { toSchool } from '../../core/acclimation/schools.schema'
import { toQuestion } from '../../core/bench/bagFigures'
import type { StartRun } from '../../core/bench/bench.schema'
import { poisonsBag } from '../../core/species/handling'
import { judgeAfterBath, questionAfterBath, schoolsInVessel } from '../../core/bench/afterBath'
import { practiceAt } from '../../core/bench/deliveryOf'
import { hasInvertebrate, mayBePooled, staysUnderWater, withheldSchools, type BenchFish } from '../../core/bench/fishRules'
import { planRun, startLitres } from '../../core/bench/planRun'
import type { RunPlan } from '../../core/bench/runPlan'
import { planBath, planLook } from '../../core/bench/specialRuns'
import { strongStep, triageBag, type TriageInput } from '../../core/crates/triage'
import type { Limits } from '../../core/limits/houseLimits'
import { markedUnits } from '../../core/units/units'
import { fieldProblem } from '../http/problem'
import type { SchoolsService } from '../schools/schools.service'
import type { BenchStore } from './bench.store'
import type { SubjectStore, SubjectTank } from './subject.store'

interface Collaborators {
  store: Pick<BenchStore, 'lineOfBag'>
  subjects: SubjectStore
  schools: Pick<SchoolsService, 'list'>
  limits: () => Limits
  zone: () => string
}

/** Makes the plan of a run from what the house has and what was asked for, or says beside the field why there is none. */
export function createRunPlanner({ store, subjects, schools, limits, zone }: Collaborators) {
  const allSchools = (): School[] => [...tradeSchools, ...schools.list().schools.filter(({ retiredAtMs }) => retiredAtMs === null).map(toSchool)]
  function schoolOf(key: string | null): School {
    const school = allSchools().find((each) => each.key === key)
    if (!school) throw fieldProblem('schoolKey', 'There is no such school')
    return school
  }

  /** The plan of a run, from what the house has and what was asked for. */
  function planOf(input: StartRun, tank: SubjectTank | null): RunPlan {
    const figures = Object.fromEntries(Object.entries(input.figures).map(([name, value]) => [name, value ?? undefined]))
    if (input.words.waterClass === 'unknown' && input.kind !== 'look') throw fieldProblem('figures.measuredPpt', 'Read the salinity first: nobody knows which water the bags hold')
    const question = toQuestion(figures, input.words, practiceAt(limits(), new TZDate(input.happenedAtMs, zone()).getHours()))
    const to = tank?.code ?? input.toOutside ?? ''
    const fish = input.sources.reduce((sum, { quantity }) => sum + quantity, 0)
    const kinds = subjects.kindsOf(input.sources.map(({ lotId }) => lotId))
    const poisoner = kinds.find((kind) => poisonsBag(kind))
    if (poisoner && kinds.length > 1) throw fieldProblem('sources', `${poisoner.species} poisons its bag water: its own vessel, its own water`)
    const isPooled = input.isPooled && question.bags > 1 && mayBePooled(kinds)
    const scene = { question, isUnderWater: staysUnderWater(kinds), limits: limits(), to, tankL: tank?.netVolumeL ?? null, isPooled, dropsPerMl: input.dropsPerMl, units: markedUnits }
    const base = { kind: input.kind, question, hasBinder: input.words.binder === 'yes', vessel: input.vessel, vesselL: input.vesselL, dropsPerMl: input.dropsPerMl, isDark: input.isDark, biomassG: fish * question.bag.massG, sentence: input.sentence, predicted: input.predicted }
    if (input.kind === 'look') return { ...base, school: null, startL: question.bag.waterL, steps: planLook(to, limits()) }
    if (input.kind === 'bath' || input.kind === 'dip') {
      if (input.kind === 'dip') refuseDipOfWeak(input, kinds)
      const agent = subjects.agents().find(({ id }) => id === input.agentId)
      if (!agent) throw fieldProblem('agentId', 'Choose the agent; the list is in Setup, Agents')
      const bath = planBath(input.kind, { agent, fish, bags: input.sources.length, kinds, to, bag: nominalOf(question), then: afterBath(question, fish, kinds, tank), limits: limits(), units: markedUnits })
      if (!bath.ok) throw fieldProblem('agentId', bath.reason)
      return { ...base, school: null, startL: bath.litres, steps: bath.steps }
    }
    const school = schoolFor(schoolOf(input.schoolKey), input.variant ?? null, question, limits())
    if (offeredSchools(question, [school]).length === 0) throw fieldProblem('schoolKey', `${school.name} is not for this delivery`)
    const withheld = withheldSchools(kinds, [school], tank?.water ?? null, isToSaltier(question))[0]
    if (withheld) throw fieldProblem('schoolKey', `${school.name} is not for these fish: ${withheld.why}`)
    const startL = startLitres(scene)
    const steps = planRun(school, scene)
    if (startL > input.vesselL && steps.some(({ fish: at }) => at === 'vessel')) throw fieldProblem('vesselL', `The vessel holds ${input.vesselL} L, less than the ${startL.toFixed(1)} L of bag water`)
    return { ...base, school, startL, steps }
  }

  /** How fish go on from a bath: by what is judged best for its water. */
  function afterBath(question: AcclimationQuestion, fish: number, kinds: readonly BenchFish[], tank: SubjectTank | null): { school: School; question: AcclimationQuestion } {
    const after = questionAfterBath(question, fish, limits())
    const all = allSchools()
    const withheld = withheldSchools(kinds, all, tank?.water ?? null, isToSaltier(question))
    const { recommended, schools: judged } = judgeAfterBath(after, limits(), all.filter(({ key }) => !withheld.some((each) => each.key === key)))
    const school = schoolsInVessel(all).find(({ key }) => key === recommended)
    if (!school) throw fieldProblem('tankId', 'No school leads from a bath into this tank')
    const variant = judged.find(({ key }) => key === recommended)?.variant ?? null
    return { school: schoolFor(school, variant, after, limits()), question: after }
  }

  /** A harsher dip is for fish that arrived strong; any doubt about a bag keeps it out. */
  function refuseDipOfWeak(input: StartRun, kinds: readonly BenchFish[]): void {
    for (const { placeId } of input.sources) {
      const lineId = store.lineOfBag(placeId)
      const bag = lineId === null ? undefined : subjects.bags(lineId).find((each) => each.placeId === placeId)
      const triage = bag?.findings ? triageBag({ findings: bag.findings as TriageInput['findings'], hoursInBag: null, isInvertebrate: hasInvertebrate(kinds), poisons: kinds.find(({ species }) => species === bag.species)?.poisons ?? null }, limits()) : null
      if (triage?.step !== strongStep) throw fieldProblem('kind', `A dip is only for fish that arrived strong; ${bag?.from ?? 'these'}: ${triage?.reasons.join(', ') ?? 'not looked at'}`)
    }
  }

  return planOf
}
