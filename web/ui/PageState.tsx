import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { sentenceOf } from '../api/ApiProblem'

/** What a page says while it has nothing to show: why, and what to do next. */
export function Waiting({ what }: { what: string }) {
  return (
    <p className="page-state" role="status">
      Reading {what}…
    </p>
  )
}

export function Trouble({ problem, back }: { problem: unknown; back?: { to: string; label: string } }) {
  return (
    <div className="page-state" role="alert">
      <p>{sentenceOf(problem)}.</p>
      {back && <Link to={back.to}>{back.label}</Link>}
    </div>
  )
}

export function Nothing({ children }: { children: ReactNode }) {
  return <div className="page-state">{children}</div>
}
