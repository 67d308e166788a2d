import { useState } from 'react'
import { Link } from 'react-router'
import type { RecheckView } from '../../core/bench/benchView'
import { looksAfter } from '../../core/bench/expectedCourse'
import { nowMs } from '../api/clock'
import { formatSpan } from '../ui/format'
import { useBenchWrites } from './useBench'

/** A look at fish some time after their run: what is usual by then, and one touch for how they look. */
export function RecheckRow({ recheck }: { recheck: RecheckView }) {
  const { doRecheck } = useBenchWrites()
  const [isOpen, setOpen] = useState(false)
  const isDue = recheck.dueAtMs <= nowMs()
  return (
    <li className="record recheck">
      <button type="button" className={`today-row ${isDue ? 'is-act' : 'is-plan'}`} aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        <span>
          <strong>{recheck.tankCodes.join(', ')}</strong> {recheck.species}, {recheck.label} after
          <small>usual by then: {recheck.usual}</small>
        </span>
        <span className="today-aside">{isDue ? `due ${formatSpan(nowMs() - recheck.dueAtMs)} ago` : `in ${formatSpan(recheck.dueAtMs - nowMs())}`}</span>
      </button>
      {isOpen && (
        <div className="recheck-answers">
          {looksAfter.map((look) => (
            <button key={look} type="button" className="hand-button" onClick={() => doRecheck(recheck.id, look, null)}>
              {look}
            </button>
          ))}
          {recheck.tankCodes.map((code) => (
            <Link key={code} to={`/room/${code}`}>
              to {code}
            </Link>
          ))}
        </div>
      )}
    </li>
  )
}
