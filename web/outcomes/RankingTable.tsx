import type { Ranking } from '../../core/outcomes/shrinkRank'
import { Table } from '../ui/Table'
import { percentOf } from './survivalChart'

/** Groups by their losses, each drawn towards all; a rank is shown with its interval or not at all. */
export function RankingTable({ ranking: { overall, groups }, by, day }: { ranking: { overall: number | null; groups: Ranking['groups'] }; by: string; day: number | null }) {
  return (
    <section className="row-section">
      <h2>Losses by {by}</h2>
      <p className="aside-word">
        {day === null ? 'Lost' : `Lost by day ${day}`}, each drawn towards {overall === null ? 'all' : `the ${percentOf(overall)} of all`} by as much as its crates are few{by === 'supplier' ? '; hard fish count as more fish' : ''}. A place, of {groups.length}, is no more than its interval.
      </p>
      <Table responsive>
        <thead>
          <tr>
            <th scope="col">{by}</th>
            <th scope="col">crates</th>
            <th scope="col">lost</th>
            <th scope="col">place</th>
            <th scope="col">how sure</th>
          </tr>
        </thead>
        <tbody>
          {groups.map(({ group, crates, mean, low, high, rankLow, rankHigh, word }) => (
            <tr key={group}>
              <th scope="row">{group}</th>
              <td>{crates}</td>
              <td>
                {percentOf(mean)} <small>{percentOf(low)} to {percentOf(high)}</small>
              </td>
              <td>{rankLow === rankHigh ? rankLow : `${rankLow} to ${rankHigh}`}</td>
              <td>{word}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  )
}
