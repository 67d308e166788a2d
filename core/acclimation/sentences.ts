import type { LimitName, SpeciesLimits } from './figures'
import type { JudgedSchool, Verdict } from './judge'
import type { ReadingKind } from './drawBag'
import { houseOrders, situationWords, type AcclimationQuestion } from './question'
import type { ReadingValue, TurningPoint } from './readingValue'
import type { Remedy } from './remedies'

const round = (value: number, digits: number): string => value.toFixed(digits).replace('-', '−')

/** What binds, with its figure and its limit, in words. */
export function figureAndLimit({ figures, binds, ratios }: JudgedSchool, limits: SpeciesLimits): { figure: string; value: string; limit: string } {
  const isRise = figures.tempRiseC / limits.tempRise >= figures.tempFallC / limits.tempFall
  const isUp = figures.salinityRisePpt / limits.salinityRise >= figures.salinityFallPpt / limits.salinityFall
  const words: Record<LimitName, [string, number, number, number, string]> = {
    nh3: ['peak NH3-N', figures.peakMgL, limits.nh3, 3, 'mg/L'],
    dose: ['NH3-N dose above 0.02', figures.doseAboveFloor, limits.dose, 2, 'mg·min/L'],
    T: [isRise ? 'warming in 5 min' : 'cooling in 5 min', isRise ? figures.tempRiseC : figures.tempFallC, isRise ? limits.tempRise : limits.tempFall, 1, '°C'],
    S: [isUp ? 'rise of salinity in 5 min' : 'fall of salinity in 5 min', isUp ? figures.salinityRisePpt : figures.salinityFallPpt, isUp ? limits.salinityRise : limits.salinityFall, 1, 'ppt'],
    own: ['change of the water’s own pH in 5 min', figures.ownPh, limits.own, 2, ''],
    co2: ['change of pH by carbon dioxide in 5 min', figures.co2Ph, limits.co2, 2, ''],
    do: ['lowest oxygen', figures.lowestOxygenMgL, limits.oxygen, 1, 'mg/L'],
    Shr: ['change of salinity in an hour', figures.salinityPerHour, limits.perHour, 1, 'ppt'],
  }
  const [figure, value, limit, digits, unit] = words[binds]
  return { figure, value: `${round(value, digits)}${unit && ` ${unit}`}`, limit: `${round(limit, digits)}${unit && ` ${unit}`} (${round(ratios[binds], 2)} of it)` }
}

const sureWord = (sure: number): string => (sure >= 0.9 ? 'firm' : sure >= 0.7 ? 'likely' : 'open')
const listed = (names: readonly string[]): string => (names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`)

/** How sure one can be, and of what. */
export function sureSentence({ sure, recommended, borderline, equal, schools }: Verdict, { measured }: AcclimationQuestion): string {
  const nameOf = (key: string): string => schools.find((each) => each.key === key)?.name ?? key
  const other = equal.find((key) => key !== recommended)
  const close = borderline.includes(recommended) ? `, close to a limit${other ? `; ${nameOf(other)} is as good` : ''}` : ''
  const from = Object.keys(measured).some((key) => key !== 'phBy') ? 'from your readings' : 'estimated from hours, fish and water'
  return `This is ${sureWord(sure)}${close}, ${from}; it compares water and does not predict survival.`
}

/** The recommendation in words. */
export function verdictSentence(verdict: Verdict, question: AcclimationQuestion, limits: SpeciesLimits, remedy: Remedy | null): string {
  const { schools, equal, recommended, situation, order } = verdict
  const school = schools.find((each) => each.key === recommended)
  if (!school) return ''
  const { figure, value, limit } = figureAndLimit(school, limits)
  const sure = sureSentence(verdict, question)
  if (equal.length === 0) return `No school stays under the limits. ${school.name} comes nearest: ${figure} ${value}, limit ${limit}. ${remedy ? `${remedy.words} would bring it to ${round(remedy.worst, 2)} of the limit. ` : ''}${sure}`
  if (equal.length === 1) {
    const next = schools.filter(({ key }) => key !== recommended).sort((a, b) => a.worst - b.worst)[0]
    const other = next && figureAndLimit(next, limits)
    return `${school.name}: the only one under every limit (${figure} ${value}, limit ${limit}). ${next && other ? `${next.name} would reach ${other.figure} ${other.value}, limit ${other.limit}. ` : ''}${sure}`
  }
  const names = equal.map((key) => schools.find((each) => each.key === key)?.name ?? key)
  return `${school.name} (${round(school.likely.minutes, 0)} min, ${round(school.litres, 1)} L of tank water). ${listed(names)} all stay under the house limits; ${school.name} is first in the house’s order for ${situationWords[situation]} because ${order[0] === houseOrders[situation].order[0] ? houseOrders[situation].why : 'the house chose it so'}. Nearest limit: ${figure} ${value}, limit ${limit}. ${sure}`
}

const readingWords: Record<ReadingKind, string> = { pH: 'the pH', ammonia: 'total ammonia', salinity: 'the salinity', temperature: 'the temperature', alkalinity: 'the alkalinity' }
/** Which reading to take first, in words. */
export const readingSentence = (best: ReadingValue | null): string =>
  best ? `Measure ${readingWords[best.kind]} first: in ${Math.round(best.change * 100)} % of cases it ${best.saving >= 0.02 ? 'changes the choice' : 'would let a preferred school be used'}.` : 'No further reading would change this; none is worth opening the bag for.'

const readingUnits: Record<ReadingKind, string> = { pH: '', ammonia: ' mg N/L', salinity: ' ppt', temperature: ' °C', alkalinity: ' meq/L' }
/** What would change the recommendation, in words; null when no plausible reading would. */
export function turningSentence(points: readonly TurningPoint[], schools: readonly { key: string; name: string }[]): string | null {
  if (points.length === 0) return null
  const said = points.map(({ kind, side, value, school }) => `${readingWords[kind].replace(/^the /, 'a ')} ${side} ${round(value, kind === 'pH' ? 2 : 1)}${readingUnits[kind]} would make it ${schools.find(({ key }) => key === school)?.name ?? school}`)
  const sentence = `${listed(said.map((each) => each.replace('a alkalinity', 'an alkalinity').replace('total ammonia', 'ammonia')))}.`
  return sentence.charAt(0).toUpperCase() + sentence.slice(1)
}
