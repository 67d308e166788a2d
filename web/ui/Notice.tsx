import type { ReactNode } from 'react'

// A paragraph of our own: Bootstrap's Alert brings transitions and a button to close, and stands on every first screen.

/** Something to know beside the work: to mind, to be warned of, or done. */
export const Notice = ({ level, role, children }: { level?: 'watch' | 'harm' | 'done'; role?: 'alert' | 'status'; children: ReactNode }) => (
  <p className={level ? `notice is-${level}` : 'notice'} role={role}>
    {children}
  </p>
)

/** What is wrong, in plain words, at the foot of what was tried; nothing where nothing is. */
export const Problem = ({ children }: { children: ReactNode }) =>
  children ? (
    <p className="form-problem" role="alert">
      {children}
    </p>
  ) : null
