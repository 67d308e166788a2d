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

/** A screen that broke: what was recorded is safe, and how to go on. */
export function Broken() {
  return (
    <div className="doorstep" role="alert">
      <h1>This screen broke</h1>
      <p>What you recorded is kept. Reload to go on; if it breaks again, tell whoever looks after this program what you did.</p>
      <a className="button" href="/">
        Reload
      </a>
    </div>
  )
}
