import type { ReactNode } from 'react'

/** Head of a page: its name and, in a sentence, what to do next and why. */
export function Lead({ title, aside, children }: { title: ReactNode; aside?: ReactNode; children?: ReactNode }) {
  return (
    <header className="lead-block">
      <div className="lead-title">
        <h1>{title}</h1>
        {aside && <div className="lead-aside">{aside}</div>}
      </div>
      {children && <p className="lead-sentence">{children}</p>}
    </header>
  )
}
