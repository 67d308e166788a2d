import { inARow } from '../words/inARow'
import type { LimitName, SpeciesLimits } from './figures'
import { nearlyEqual, type JudgedSchool, type Verdict } from './judge'
import type { ReadingKind } from './drawBag'
import { houseOrders, situationWords, type AcclimationQuestion } from './question'
import type { ReadingValue, TurningPoint } from './readingValue'
import type { Remedy } from './remedies'
import { baseUnits, showChange, showFigure, type DisplayUnits } from '../units/units'
import { spanWords } from '../time/spanWords'
import { capital } from '../words/capital'

const round = (value: number, digits: number): string => value.toFixed(digits).replace('-', '−')

/** What binds, with its figure and its limit, in words. */
export function figureAndLimit({ figures, binds, ratios, perHour }: JudgedSchool, limits: SpeciesLimits, units: DisplayUnits = baseUnits): { figure: string; value: string; limit: string } {
  const isRise = figures.tempRiseC / limits.tempRise >= figures.tempFallC / limits.tempFall
  const isUp = figures.salinityRisePpt / limits.salinityRise >= figures.salinityFallPpt / limits.salinityFall
  const plain = (digits: number, unit = '') => (value: number): string => `${round(value, digits)}${unit && ` ${unit}`}`
  const change = (quantity: 'temperature' | 'salinity') => (value: number): string => showChange(quantity, value, units)
  const words: Record<LimitName, [figure: string, value: number, limit: number, show: (value: number) => string]> = {
    nh3: ['peak NH3-N', figures.peakMgL, limits.nh3, plain(3, 'mg/L')],
    dose: ['NH3-N dose above 0.02', figures.doseAboveFloor, limits.dose, plain(2, 'mg·min/L')],
    T: [isRise ? 'warming in 5 min' : 'cooling in 5 min', isRise ? figures.tempRiseC : figures.tempFallC, isRise ? limits.tempRise : limits.tempFall, change('temperature')],
    S: [isUp ? 'rise of salinity in 5 min' : 'fall of salinity in 5 min', isUp ? figures.salinityRisePpt : figures.salinityFallPpt, isUp ? limits.salinityRise : limits.salinityFall, change('salinity')],
    own: ['change of the water’s own pH in 5 min', figures.ownPh, limits.own, plain(2)],
    co2: ['change of pH by carbon dioxide in 5 min', figures.co2Ph, limits.co2, plain(2)],
    do: ['lowest oxygen', figures.lowestOxygenMgL, limits.oxygen, plain(1, 'mg/L')],
    Shr: ['change of salinity in an hour', figures.salinityPerHour, perHour ?? limits.perHour, change('salinity')],
  }
  const [figure, value, limit, show] = words[binds]
  return { figure, value: show(value), limit: `${show(limit)} (${round(ratios[binds], 2)} of it)` }
}

const sureWord = (sure: number): string => (sure >= 0.9 ? 'firm' : sure >= 0.7 ? 'likely' : 'open')

/** How sure one can be, and of what. */
export function sureSentence({ sure, recommended, borderline, equal, schools }: Verdict, { measured }: AcclimationQuestion): string {
  const nameOf = (key: string): string => schools.find((each) => each.key === key)?.name ?? key
  const other = equal.find((key) => key !== recommended)
  const close = borderline.includes(recommended) ? `, close to a limit${other ? `; ${nameOf(other)} is as good` : ''}` : ''
  const from = Object.keys(measured).some((key) => key !== 'phBy' && key !== 'salinityBy') ? 'from your readings' : 'estimated from hours, fish and water'
  return `This is ${sureWord(sure)}${close}, ${from}.`
}

/** What stands once beside every verdict. */
export const verdictCaveat = 'It compares water and does not predict survival; the choice stays yours.'

/** The recommendation in at most three short sentences, and the rest of it, for whoever asks why. */
export interface VerdictWords {
  sentence: string
  why: string
}

/** The recommendation in words: what to do, what binds, how sure. */
export function verdictWords(verdict: Verdict, question: AcclimationQuestion, limits: SpeciesLimits, remedy: Remedy | null, units: DisplayUnits = baseUnits): VerdictWords {
  const { schools, equal, recommended } = verdict
  const school = schools.find((each) => each.key === recommended)
  if (!school) return { sentence: '', why: '' }
  const { figure, value, limit } = figureAndLimit(school, limits, units)
  const sure = sureSentence(verdict, question)
  if (equal.length === 0) {
    const help = remedy ? ` ${remedy.words} would bring it to ${round(remedy.worst, 2)} of the limit, with oxygen at ${round(remedy.lowestOxygenMgL, 1)} mg/L or more.` : ''
    return { sentence: `No school stays under the limits; ${nearestWords(school, schools)}: ${figure} ${value}, limit ${limit}.${help} ${sure}`, why: whyWords(verdict, school, limits, units) }
  }
  const water = school.litres > 0 ? `, ${showChange('volume', school.litres, units)} of tank water` : ''
  return { sentence: `${school.name} (${spanWords(school.likely.minutes)}${water}). Nearest limit: ${figure} ${value}, limit ${limit}. ${sure}`, why: whyWords(verdict, school, limits, units) }
}

/** The recommended one may come second by a hair: it is then not called the nearest. */
function nearestWords(school: JudgedSchool, schools: readonly JudgedSchool[]): string {
  const nearest = schools.reduce((best, each) => (each.worst < best.worst ? each : best), school)
  return nearest.worst.toFixed(2) === school.worst.toFixed(2) ? `${school.name} comes nearest` : `${school.name} is as near as ${nearest.name} within ${round(school.worst - nearest.worst, 2)} and goes first in this house`
}

function whyWords({ schools, equal, situation, order }: Verdict, school: JudgedSchool, limits: SpeciesLimits, units: DisplayUnits): string {
  const reason = order[0] === houseOrders[situation].order[0] ? houseOrders[situation].why : 'the house chose it so'
  const first = `first in the house’s order for ${situationWords[situation]} because ${reason}`
  if (equal.length > 1) return `${inARow(equal.map((key) => schools.find((each) => each.key === key)?.name ?? key))} ${equal.length === 2 ? 'both' : 'all'} stay under the house limits; ${school.name} is ${first}.`
  const next = schools.filter(({ key }) => key !== school.key).sort((a, b) => a.worst - b.worst)[0]
  const other = next && figureAndLimit(next, limits, units)
  const nextWords = next && other ? ` ${next.name} would reach ${other.figure} ${other.value}, limit ${other.limit}.` : ''
  return equal.length === 1 ? `It is the only one under every limit.${nextWords}` : `Schools within ${nearlyEqual} of the nearest count as the same.${nextWords}`
}

const readingWords: Record<ReadingKind, string> = { pH: 'the pH', ammonia: 'total ammonia', salinity: 'the salinity', temperature: 'the temperature', alkalinity: 'the alkalinity' }
/** Which reading to take first, in words. */
export const readingSentence = (best: ReadingValue | null): string =>
  best ? `Measure ${readingWords[best.kind]} first: in ${Math.round(best.change * 100)} % of cases it ${best.saving >= 0.02 ? 'changes the choice' : 'would let a preferred school be used'}.` : 'No further reading would change this; none is worth opening the bag for.'

const readingValue = (kind: ReadingKind, value: number, units: DisplayUnits): string =>
  kind === 'salinity' || kind === 'temperature' ? showFigure(kind, value, units) : { pH: round(value, 2), ammonia: `${round(value, 1)} mg N/L`, alkalinity: `${round(value, 1)} meq/L` }[kind]
/** What would change the recommendation, in words; null when no plausible reading would. */
export function turningSentence(points: readonly TurningPoint[], schools: readonly { key: string; name: string }[], units: DisplayUnits = baseUnits): string | null {
  if (points.length === 0) return null
  const said = points.map(({ kind, side, value, school }) => `${readingWords[kind].replace(/^the /, 'a ')} ${side} ${readingValue(kind, value, units)} would make it ${schools.find(({ key }) => key === school)?.name ?? school}`)
  const sentence = `${inARow(said.map((each) => each.replace('a alkalinity', 'an alkalinity').replace('total ammonia', 'ammonia')))}.`
  return capital(sentence)
}
