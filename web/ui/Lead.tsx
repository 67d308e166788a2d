import type { ReactNode } from 'react'

interface Props {
  title: ReactNode
  aside?: ReactNode
  /** Pages beside this one. They stand above all that grows or shrinks with what is read: a link that moves under a finger loses the touch. */
  nav?: ReactNode
  children?: ReactNode
}

/** Head of a page: its name and, in a sentence, what to do next and why. */
export function Lead({ title, aside, nav, children }: Props) {
  return (
    <header className={nav ? 'lead-block has-nav' : 'lead-block'}>
      <div className="lead-title">
        <h1>{title}</h1>
        {aside && <div className="lead-aside">{aside}</div>}
      </div>
      {nav}
      {children && <p className="lead-sentence">{children}</p>}
    </header>
  )
}
