import type { ReadingKind } from '../../core/acclimation/drawBag'
import type { Spread } from '../../core/acclimation/judge'
import { isEstimate, type FigureSource } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import { useUnits, type Units } from '../ui/useUnits'

interface Props {
  subject: BenchSubject
  figures: Readonly<Record<string, number | undefined>>
  /** Names of figures that somebody typed over. */
  typed: readonly string[]
  bag: Record<ReadingKind, Spread> | null
}

type Row = { label: string; value: string; from: string; isEstimate: boolean }

/** What the comparison goes by: what was measured, told or looked up stands firm; what is estimated is said so. */
export function BagFacts({ subject, figures, typed, bag }: Props) {
  const units = useUnits()
  const plain = (name: string, label: string, show: (value: number) => string): Row | null => {
    const value = figures[name]
    if (value === undefined) return null
    const source: FigureSource | undefined = subject.figures[name]?.from
    const isTyped = typed.includes(name)
    return { label, value: show(value), from: isTyped ? 'typed' : (source ?? ''), isEstimate: !isTyped && isEstimate(source) }
  }
  const read = (name: string, kind: ReadingKind, label: string, show: (value: number) => string, bare: (value: number) => string): Row | null => {
    const known = plain(name, label, show)
    if (known) return known
    const spread = bag?.[kind]
    return spread ? { label, value: `≈ ${show(spread.median)} (${bare(spread.low)}–${bare(spread.high)})`, from: 'estimated', isEstimate: true } : null
  }
  const groups: { title: string; rows: (Row | null)[] }[] = [
    {
      title: 'Bag water',
      rows: [
        read('measuredC', 'temperature', 'temperature', (value) => units.show('temperature', value), (value) => units.figure('temperature', value)),
        read('measuredPpt', 'salinity', 'salinity', (value) => units.show('salinity', value), (value) => units.figure('salinity', value)),
        read('measuredPh', 'pH', 'pH', (value) => value.toFixed(1), (value) => value.toFixed(1)),
        read('measuredTan', 'ammonia', 'total ammonia', (value) => `${value.toFixed(1)} mg N/L`, (value) => value.toFixed(1)),
        plain('waterL', 'water in a bag', (value) => units.show('volume', value)),
        plain('fish', 'fish in a bag', (value) => `${value} of ${(figures.massG ?? 0).toFixed(1)} g`),
        plain('hours', 'since packing', (value) => `${value.toFixed(1)} h`),
      ],
    },
    { title: subject.tank ? `Tank ${subject.tank.code}` : 'Their water', rows: tankRows(plain, units) },
  ]
  return (
    <div className="bag-facts">
      {groups.map(({ title, rows }) => (
        <section key={title}>
          <h2>{title}</h2>
          <dl>
            {rows.filter((row): row is Row => row !== null).map((row) => (
              <div key={row.label} className={row.isEstimate ? 'is-estimate' : undefined}>
                <dt>{row.label}</dt>
                <dd>
                  {row.value} <small>{row.from}</small>
                </dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  )
}

const tankRows = (plain: (name: string, label: string, show: (value: number) => string) => Row | null, units: Units): (Row | null)[] => [
  plain('tankC', 'temperature', (value) => units.show('temperature', value)),
  plain('tankPpt', 'salinity', (value) => units.show('salinity', value)),
  plain('preparedPpt', 'made ready at', (value) => units.show('salinity', value)),
  plain('tankPh', 'pH', (value) => value.toFixed(1)),
  plain('tankAlkalinity', 'alkalinity', (value) => `${value.toFixed(1)} meq/L`),
]
