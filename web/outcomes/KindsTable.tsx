import type { OutcomesView } from '../../core/outcomes/outcomesPage'
import { Table } from '../ui/Table'
import { percentOf } from './survivalChart'

/** What died of what, by when: a pattern in the record, no diagnosis. */
export function KindsTable({ kinds }: { kinds: OutcomesView['kinds'] }) {
  if (kinds.length === 0) return null
  return (
    <section className="row-section">
      <h2>What died of what</h2>
      <p className="aside-word">Of all fish at opening, with the band by crate. Patterns in the record, no diagnosis; where nobody looked, there is no pattern.</p>
      <Table responsive>
        <thead>
          <tr>
            <th scope="col">pattern</th>
            <th scope="col">dead</th>
            <th scope="col">by day 14</th>
            <th scope="col">by day 30</th>
          </tr>
        </thead>
        <tbody>
          {kinds.map(({ pattern, dead, by14, by30 }) => (
            <tr key={pattern}>
              <th scope="row">{pattern}</th>
              <td>{Math.round(dead * 10) / 10}</td>
              {[by14, by30].map((row, index) => (
                <td key={index}>
                  {percentOf(row?.incidence ?? null)} {row?.incidence != null && <small>{percentOf(row.low)} to {percentOf(row.high)}</small>}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  )
}
