import type { ReactNode } from 'react'
import { ErrorBoundary } from 'react-error-boundary'
import { Button } from './Button'

interface Props {
  /** What it is, as a sentence begins: “Run 4”, “The clock strip”. */
  what: string
  /** What it is drawn from: once that changes it is tried again. */
  of?: unknown
  /** What still can be done with it. */
  instead?: ReactNode
  /** In a list. */
  isRow?: boolean
  children: ReactNode
}

/** Keeps a fault where it is: what breaks in here says so in its place, and everything around it goes on. */
export function Apart({ what, of, instead, isRow = false, children }: Props) {
  const said = (retry: () => void) => (
    <div className="broken-part">
      <p role="alert">
        <strong>{what} cannot be shown.</strong> What you recorded is kept, and the rest of this screen goes on.
      </p>
      <Button look="quiet" onClick={retry}>
        try again
      </Button>
      {instead && <div className="broken-instead">{instead}</div>}
    </div>
  )
  return (
    <ErrorBoundary resetKeys={[of]} fallbackRender={({ resetErrorBoundary }) => (isRow ? <li className="record">{said(resetErrorBoundary)}</li> : said(resetErrorBoundary))}>
      {children}
    </ErrorBoundary>
  )
}
