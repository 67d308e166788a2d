import type { ReactNode } from 'react'
import { Link, useRouteError } from 'react-router'
import { sentenceOf } from '../api/ApiProblem'
import { ButtonLink } from './Button'

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

/** The code of a screen could not be had. */
export class NotFetched extends Error {}

/** A screen that broke or could not be fetched: what was recorded is safe, and how to go on. */
export function Broken() {
  const isAway = useRouteError() instanceof NotFetched
  if (isAway) {
    return (
      <div className="page-state" role="alert">
        <p>This screen is not on this device yet: the server cannot be reached, or it was updated meanwhile. What you recorded is kept.</p>
        <ButtonLink href={window.location.href}>
          Try again
        </ButtonLink>
      </div>
    )
  }
  return (
    <div className="doorstep" role="alert">
      <h1>This screen broke</h1>
      <p>What you recorded is kept. Reload to go on; if it breaks again, tell whoever looks after this program what you did.</p>
      <ButtonLink href="/">
        Reload
      </ButtonLink>
    </div>
  )
}
