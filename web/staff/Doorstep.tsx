import type { ReactNode } from 'react'

/** The page before the room: name of the program, one thing to do. */
export function Doorstep({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="doorstep">
      <p className="wordmark">
        Daily
        <br />
        Crate
      </p>
      <h1>{title}</h1>
      {children}
    </main>
  )
}
