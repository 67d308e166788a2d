import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createBagDraws, type DrawnBag } from '../core/acclimation/drawBag'
import { figuresOf } from '../core/acclimation/figures'
import { drawEnsemble, judge } from '../core/acclimation/judge'
import { offeredSchools, type AcclimationQuestion } from '../core/acclimation/question'
import { createFastRun, makeSeries, type FastRun, type Series } from '../core/acclimation/runFast'
import { schools, type School } from '../core/acclimation/schools'
import { sceneOf, tryMethod } from '../core/acclimation/tryMethod'
import { runVessel, type Phase, type VesselOptions, type VesselState } from '../core/acclimation/vessel'
import { standardLimits, type HouseLimitKey, type Limits } from '../core/limits/houseLimits'
import { questionOf, type Worked } from '../core/testing/workedCases'
import { totalPh } from '../core/water/carbonate'
import { waterConstants } from '../core/water/constants'
import { hydrogenOf, lookUp, makeConstants } from '../core/water/fastChemistry'

const draws = 2000
const { cases } = JSON.parse(readFileSync(join(import.meta.dirname, '..', 'core', 'fixtures', 'judgement-cases.json'), 'utf8')) as { cases: Worked[] }
const worked = (id: string): AcclimationQuestion => questionOf(cases.find((each) => each.id === id) as Worked)
const seconds = (work: () => void): number => {
  const start = performance.now()
  work()
  return (performance.now() - start) / 1000
}

/** Each school of the ten on a delivery that offers it. */
function tenSchools(): { school: School; question: AcclimationQuestion }[] {
  const taken = new Map<string, { school: School; question: AcclimationQuestion }>()
  for (const id of ['J01', 'J07', 'J08', 'J09']) for (const school of offeredSchools(worked(id), schools)) if (!taken.has(school.key)) taken.set(school.key, { school, question: worked(id) })
  // Aerated and still drip are one school of the table with two switches.
  return [...taken.values()].filter(({ school }) => school.key !== 'dripAir')
}

interface Run {
  start: VesselState
  tank: VesselState
  phases: readonly Phase[]
  options: VesselOptions
}

/** The very runs that a school makes of a bag, caught on their way into the quick engine. */
function runOf(school: School, question: AcclimationQuestion, bag: DrawnBag): Run {
  let caught: Run | null = null
  const catching: FastRun = (start, tank, phases, options, _longest, series) => {
    caught = { start, tank, phases, options }
    return Object.assign(series, { length: 0 })
  }
  tryMethod(school, bag, sceneOf(question, standardLimits), catching, makeSeries())
  return caught as unknown as Run
}

/** The reference's figures of a run: RK4 at one second, every constant solved anew, pH by halving. */
function referenceDose({ start, tank, phases, options }: Run): { dose: number; perRunS: number } {
  let dose = 0
  const perRunS = seconds(() => {
    const moments = runVessel(start, tank, phases, { ...options, stepMin: 1 / 60 })
    for (let nth = 1; nth < moments.length; nth += 1) dose += (((moments[nth]?.unionisedMgL ?? 0) + (moments[nth - 1]?.unionisedMgL ?? 0)) / 2) * ((moments[nth]?.atMin ?? 0) - (moments[nth - 1]?.atMin ?? 0))
  })
  return { dose, perRunS }
}

function doseOf(series: Series): number {
  let dose = 0
  for (let nth = 1; nth < series.length; nth += 1) dose += (((series.unionisedMgL[nth] ?? 0) + (series.unionisedMgL[nth - 1] ?? 0)) / 2) * ((series.atMin[nth] ?? 0) - (series.atMin[nth - 1] ?? 0))
  return dose
}

/** Monte Carlo over ten schools against the reference, the chemistry alone, and what the limits decide. */
export function benchAcclimation(): void {
  const ten = tenSchools()
  const [run, series] = [createFastRun(), makeSeries()]
  let [reference, worstError] = [0, 0]
  for (const { school, question } of ten) {
    const one = runOf(school, question, createBagDraws(question, 1)())
    const { dose, perRunS } = referenceDose(one)
    reference += perRunS
    run(one.start, one.tank, one.phases, one.options, 1, series)
    figuresOf(series, 0)
    worstError = Math.max(worstError, Math.abs(doseOf(series) / dose - 1))
  }
  const cpu = process.cpuUsage()
  const quick = seconds(() => {
    for (const { school, question } of ten) drawEnsemble(question, standardLimits, { draws, schools: [school] })
  })
  const used = process.cpuUsage(cpu)
  console.log(`\nAcclimation: ${draws.toLocaleString('en')} draws of ${ten.length} schools`)
  console.log(`  quick engine ${quick.toFixed(1)} s, ${(((used.user + used.system) / 1e6 / quick) * 50).toFixed(0)} % of two cores; the reference would take ${((reference * draws) / 3600).toFixed(2)} h (one draw of each took ${reference.toFixed(2)} s)`)
  const ratio = (reference * draws) / quick
  console.log(`  ratio ${ratio.toFixed(0)}   aim: 30 times faster, ${ratio >= 30 ? 'met' : 'NOT met'}; largest error of dose ${(worstError * 100).toFixed(2)} %   aim: 0.5 %, ${worstError <= 0.005 ? 'met' : 'NOT met'}`)
  benchChemistry()
  sweepLimits()
}

function benchChemistry(): void {
  const k = makeConstants()
  const [times, plainTimes] = [2_000_000, 20_000]
  let guard = 0
  const quick = seconds(() => {
    let h = 1e-7
    for (let nth = 0; nth < times; nth += 1) {
      const salinityPpt = 10 + (nth % 200) / 10
      lookUp(salinityPpt, 20 + (nth % 50) / 10, k)
      h = hydrogenOf(2.5, 2.6, 3, salinityPpt, k, h)
      guard += h
    }
  })
  const plain = seconds(() => {
    for (let nth = 0; nth < plainTimes; nth += 1) guard += totalPh({ alkalinityMeqL: 2.5, dicMmolL: 2.6, tanMgL: 3 }, waterConstants(10 + (nth % 200) / 10, 20 + (nth % 50) / 10))
  })
  console.log(`  pH of a water: ${((quick / times) * 1e9).toFixed(0)} ns against ${((plain / plainTimes) * 1e9).toFixed(0)} ns by halving with constants anew (${(plain / plainTimes / (quick / times)).toFixed(0)} times)${guard === 0 ? ' ' : ''}`)
}

const families: Record<string, HouseLimitKey[]> = {
  'peak NH3': ['peakNh3'],
  'dose NH3': ['doseNh3'],
  temperature: ['tempRise', 'tempFall'],
  salinity: ['salinityRise', 'salinityFall'],
  'own pH': ['ownPh'],
  'carbon dioxide pH': ['co2Ph'],
  oxygen: ['oxygenHardy', 'oxygenNormal', 'oxygenDelicate', 'oxygenVeryDelicate'],
  'salinity per hour': ['salinityPerHour'],
}

/** How many recommendations of the worked deliveries change when a family of limits does. */
function sweepLimits(): void {
  const recommend = (limits: Limits): string[] => cases.map((each) => judge(drawEnsemble(questionOf(each), limits, { draws: 150 })).recommended)
  const base = recommend(standardLimits)
  console.log(`  recommendations that change of ${cases.length} worked deliveries, 150 draws each${''.padEnd(4)}x0.7  x1.4`)
  for (const [family, keys] of Object.entries(families)) {
    const changed = [0.7, 1.4].map((factor) => recommend({ ...standardLimits, ...Object.fromEntries(keys.map((key) => [key, standardLimits[key] * factor])) }).filter((key, index) => key !== base[index]).length)
    console.log(`    ${family.padEnd(66)} ${String(changed[0]).padStart(4)}  ${String(changed[1]).padStart(4)}`)
  }
}
