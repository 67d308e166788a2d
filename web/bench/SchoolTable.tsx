import { memo } from 'react'
import type { LimitName, SpeciesLimits } from '../../core/acclimation/figures'
import type { JudgedSchool, Verdict } from '../../core/acclimation/judge'
import { figureAndLimit } from '../../core/acclimation/sentences'
import { spanWords } from '../../core/time/spanWords'
import { Table } from '../ui/Table'
import { useUnits, type Units } from '../ui/useUnits'

interface Column {
  heading: string
  /** Limit that the figure is held against; null for what has none. */
  limit: LimitName | null
  show: (school: JudgedSchool) => string
  showLimit?: string
}

function columnsOf(limits: SpeciesLimits, verdict: Verdict, units: Units): Column[] {
  // Between 6 and 8 ppt ordinary schools have a looser limit than crossings.
  const perHours = [...new Set(verdict.schools.flatMap(({ perHour }) => (perHour === null ? [] : [perHour])))].sort((a, b) => a - b)
  const { change } = units
  // The unit stands in the heading: figures of a column are compared with each other.
  const [degrees, ppt] = [units.label('temperature'), 'ppt']
  const bare = (quantity: 'temperature' | 'salinity', value: number): string => change(quantity, value).split(' ')[0] ?? ''
  const pair = (quantity: 'temperature' | 'salinity', up: number, down: number): string => `${bare(quantity, up)} / ${bare(quantity, down)}`
  return [
    { heading: 'NH3-N peak, mg/L', limit: 'nh3', show: ({ figures }) => figures.peakMgL.toFixed(3), showLimit: limits.nh3.toFixed(3) },
    { heading: 'dose above 0.02, mg·min/L', limit: 'dose', show: ({ figures }) => figures.doseAboveFloor.toFixed(2), showLimit: limits.dose.toFixed(2) },
    { heading: `warming / cooling in 5 min, ${degrees}`, limit: 'T', show: ({ figures }) => pair('temperature', figures.tempRiseC, figures.tempFallC), showLimit: pair('temperature', limits.tempRise, limits.tempFall) },
    { heading: `salinity up / down in 5 min, ${ppt}`, limit: 'S', show: ({ figures }) => pair('salinity', figures.salinityRisePpt, figures.salinityFallPpt), showLimit: pair('salinity', limits.salinityRise, limits.salinityFall) },
    ...(perHours.length > 0 ? [{ heading: `salinity in an hour, ${ppt}`, limit: 'Shr', show: ({ figures }: JudgedSchool) => bare('salinity', figures.salinityPerHour), showLimit: perHours.map((each) => bare('salinity', each)).join(' or ') } as const] : []),
    { heading: 'own pH', limit: 'own', show: ({ figures }) => figures.ownPh.toFixed(2), showLimit: limits.own.toFixed(2) },
    { heading: 'pH by CO2', limit: 'co2', show: ({ figures }) => figures.co2Ph.toFixed(2), showLimit: limits.co2.toFixed(2) },
    { heading: 'lowest oxygen, mg/L', limit: 'do', show: ({ figures }) => figures.lowestOxygenMgL.toFixed(1), showLimit: limits.oxygen.toFixed(1) },
    { heading: 'time', limit: null, show: ({ likely }) => spanWords(likely.minutes) },
    { heading: 'work, min', limit: null, show: ({ workMinutes }) => workMinutes.toFixed(0) },
    { heading: `water, ${units.label('volume')}`, limit: null, show: ({ litres }) => units.figure('volume', litres) },
  ]
}

/** Schools as they are listed: the recommended one first, then by how near they come to a limit. */
export const inOrder = ({ schools }: Verdict, advised: string | null): JudgedSchool[] => [...schools].sort((a, b) => Number(b.key === advised) - Number(a.key === advised) || a.worst - b.worst)

interface Props {
  verdict: Verdict
  limits: SpeciesLimits
  advised?: string | null
  /** Whether the ranking stands beside it, which says what binds each school. */
  isBesideRanking?: boolean
}

/** All schools side by side in every figure that has a limit; what is over its limit carries a cross. */
export const SchoolTable = memo(function SchoolTable({ verdict, limits, advised = verdict.recommended, isBesideRanking = false }: Props) {
  const units = useUnits()
  const columns = columnsOf(limits, verdict, units)
  return (
    <section className="school-table">
      {!isBesideRanking && <h2>All schools in figures</h2>}
      <div className="table-responsive" role="region" aria-label="Figures of all schools" tabIndex={0}>
        <Table aria-label="All schools in figures">
          <thead>
            <tr>
              <th scope="col">school</th>
              {!isBesideRanking && <th scope="col">nearest limit</th>}
              {columns.map(({ heading }) => (
                <th key={heading} scope="col" className="number">
                  {heading}
                </th>
              ))}
            </tr>
            <tr>
              <td>limit</td>
              {!isBesideRanking && <td />}
              {columns.map(({ heading, showLimit }) => (
                <td key={heading} className="number">
                  {showLimit ?? '–'}
                </td>
              ))}
            </tr>
          </thead>
          <tbody>
            {inOrder(verdict, advised).map((school) => (
              <tr key={school.key}>
                <th scope="row">
                  {school.name} {school.key === advised && <small>recommended</small>}
                </th>
                {!isBesideRanking && (
                  <td className="nearest">
                    {school.worst < 1 ? 'under' : 'over'}: {figureAndLimit(school, limits, units.display).figure}, {school.ratios[school.binds].toFixed(2)}
                  </td>
                )}
                {columns.map(({ heading, limit, show }) => (
                  <td key={heading} className={limit && school.ratios[limit] >= 1 ? 'number is-over' : 'number'}>
                    {limit && school.ratios[limit] >= 1 ? '✕ ' : ''}
                    {show(school)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
      <p className="aside-word">Figures are 90th percentiles over plausible bags: nine of ten are no worse. Dose counts above 0.02 mg/L. Limits are guidance of this house (Setup, House limits), scaled by what the species bears.</p>
    </section>
  )
})
