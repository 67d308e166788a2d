import { Link } from 'react-router'
import type { VesselView } from '../../core/moves/moveView'
import { kindName } from '../../core/pools/poolsOf'
import { nowMs } from '../api/clock'
import { formatSpan } from '../ui/format'
import { useOfTank } from './useRoom'

/** What else belongs to a tank: fish in boxes and buckets with its water, newcomers that are on their way in. */
export function StandsHere({ tankId }: { tankId: string }) {
  const { vessels, introductions } = useOfTank(tankId)
  if (vessels.length === 0 && introductions.length === 0) return null
  return (
    <ul className="missing" aria-label="With this tank">
      {introductions.map(({ id, number, day, newcomers }) => (
        <li key={id}>
          <span>
            Introduction {number}, day {day}: {newcomers.map(({ name, quantity }) => `${quantity} ${name}`).join(', ')}
          </span>
          <Link to={`/bench/introductions/${id}`}>open it</Link>
        </li>
      ))}
      {vessels.map((vessel) => (
        <li key={vessel.id}>
          <span>{vesselWords(vessel)}</span>
          <Link to={`/vessels/${vessel.id}`}>{vessel.name}</Link>
        </li>
      ))}
    </ul>
  )
}

function vesselWords({ name, fish, limit }: VesselView): string {
  const left = (limit?.actAtMs ?? 0) - nowMs()
  return `${fish.map((each) => `${each.quantity} ${kindName(each)}`).join(', ')} in ${name}, ${left > 0 ? `${formatSpan(left)} more` : 'its time is over'}`
}
