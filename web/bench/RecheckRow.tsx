import { useState } from 'react'
import { Link } from 'react-router'
import type { RecheckView } from '../../core/bench/benchView'
import { looksAfter } from '../../core/bench/expectedCourse'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { formatSpan } from '../ui/format'
import { useBenchWrites } from './useBench'

/** A look at fish some time after their run: what is usual by then, and one touch for how they look. */
export function RecheckRow({ recheck }: { recheck: RecheckView }) {
  const { doRecheck } = useBenchWrites()
  const [isOpen, setOpen] = useState(false)
  const isDue = recheck.dueAtMs <= nowMs()
  return (
    <li className="record recheck">
      <Button look="bare" className={`record-row ${isDue ? 'is-act' : 'is-plan'}`} aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        <span>
          <strong>{recheck.tankCodes.join(', ')}</strong> {recheck.species}, {recheck.label} after
          <small>usual by then: {recheck.usual}</small>
        </span>
        <span>{isDue ? `due ${formatSpan(nowMs() - recheck.dueAtMs)} ago` : `in ${formatSpan(recheck.dueAtMs - nowMs())}`}</span>
      </Button>
      {isOpen && (
        <div className="recheck-answers">
          {looksAfter.map((look) => (
            <Button key={look} size="hand" onClick={() => doRecheck(recheck.id, look, null)}>
              {look}
            </Button>
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
