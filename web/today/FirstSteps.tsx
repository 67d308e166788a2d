import { Link } from 'react-router'
import { firstSteps, nextStep, type FirstStep, type RoomCounts } from '../../core/today/todayView'
import { useSession } from '../api/session'
import { ButtonLink } from '../ui/Button'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'

interface Step {
  title: string
  why: string
  to: string
  act: string
  done: (counts: RoomCounts) => string
}

const steps: Record<FirstStep, Step> = {
  tanks: { title: 'The first system with its tanks', why: 'One body of water; its tanks are coded by pattern, R1-01 and on.', to: '/setup/rack', act: 'Add the first rack', done: ({ tanks }) => plural(tanks, 'tank') },
  suppliers: { title: 'The first supplier', why: 'Who sends the crate, and the water they usually ship in if you know it.', to: '/setup/suppliers/new', act: 'Add a supplier', done: ({ suppliers }) => plural(suppliers, 'supplier') },
  species: { title: 'Species from the book', why: 'Tick what is kept here; anything else comes by itself with a packing list.', to: '/setup/book', act: 'Open the book', done: ({ species }) => plural(species, 'species', 'species') },
  crates: { title: 'The first crate', why: 'Its packing list as a file, pasted, or typed line by line.', to: '/crates/new', act: 'Enter the crate', done: ({ crates }) => plural(crates, 'crate') },
}

/** A new room on its way to the first crate: what is done, and the one next step. */
export default function FirstSteps({ counts }: { counts: RoomCounts }) {
  const { recorder, units, timeZone } = useSession()
  const next = nextStep(counts)
  if (recorder.role !== 'lead' && next !== 'crates') return <Lead title="Today">This room is being set up by a lead. Once there are tanks, crates and rounds stand here.</Lead>
  return (
    <>
      <Lead title="A new room">Four steps to the first crate. Each can be changed later under Setup.</Lead>
      <ol className="first-steps">
        {firstSteps.map((name, index) => {
          const { title, why, to, act, done } = steps[name]
          const isDone = counts[name] > 0
          return (
            <li key={name} className={isDone ? 'is-done' : name === next ? 'is-next' : undefined}>
              <span className="step-number" aria-hidden="true">
                {isDone ? '✓' : index + 1}
              </span>
              <span>
                <strong>{title}</strong>
                <small>{isDone ? `done: ${done(counts)}` : why}</small>
              </span>
              {name === next ? (
                <ButtonLink look="act" size="hand" to={to} state={{ back: '/today' }}>
                  {act}
                </ButtonLink>
              ) : (
                <Link to={to} state={{ back: '/today' }}>{isDone ? 'more' : act.toLowerCase()}</Link>
              )}
            </li>
          )
        })}
      </ol>
      {units && recorder.role === 'lead' && (
        <p className="aside-word">
          Shown in {units.temperatureUnit}, {units.volumeUnit === 'gal' ? 'US gal' : 'L'} and {units.salinityUnit}, days by the clock of {timeZone}. <Link to="/setup/room">Change that</Link>
        </p>
      )}
    </>
  )
}
