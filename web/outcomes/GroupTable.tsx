import { Link } from 'react-router'
import type { OutcomesQuestion, OutcomesView } from '../../core/outcomes/outcomesPage'
import { Table } from '../ui/Table'
import { fishAddress, groupingWords } from './outcomesQuestion'
import { percentOf } from './survivalChart'

/** Every group in figures; the fish behind each are one touch away. */
export function GroupTable({ view, question, search }: { view: OutcomesView; question: OutcomesQuestion; search: URLSearchParams }) {
  const days = view.groups[0]?.days.map(({ day }) => day) ?? []
  if (view.groups.length === 0) return null
  return (
    <Table responsive className="group-table">
      <caption>Alive on the days since opening, with the 95 % band of the day asked about, by crate</caption>
      <thead>
        <tr>
          <th scope="col">{groupingWords[question.by]}</th>
          <th scope="col">crates</th>
          <th scope="col">fish</th>
          <th scope="col">dead in the bag</th>
          {days.map((day) => (
            <th key={day} scope="col">
              day {day}
            </th>
          ))}
          <th scope="col">at risk, day {question.day}</th>
        </tr>
      </thead>
      <tbody>
        {view.groups.map((group) => (
          <tr key={group.name}>
            <th scope="row">
              <Link to={fishAddress(search, group.name)}>{group.name}</Link>
            </th>
            <td>{group.crates}</td>
            <td>{group.fish}</td>
            <td>
              {group.deadInBag} <small>of {group.received}</small>
            </td>
            {group.days.map(({ day, survival, low, high }) => (
              <td key={day}>
                {survival === null ? <small>not yet</small> : percentOf(survival)}
                {day === question.day && survival !== null && (
                  <small>
                    {' '}
                    {percentOf(low)} to {percentOf(high)}
                  </small>
                )}
              </td>
            ))}
            <td>{Math.round(group.days.find(({ day }) => day === question.day)?.atRisk ?? 0)}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}
