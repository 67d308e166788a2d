import { NavLink } from 'react-router'

const pages = [
  ['', 'Crate'],
  ['/preparation', 'Prepare'],
  ['/tanks', 'Tanks'],
  ['/unpack', 'Unpack'],
  ['/claim', 'Claim'],
] as const

/** The pages of one crate, in the order of the work. */
export function CrateTabs({ crateId }: { crateId: string }) {
  return (
    <nav className="crate-tabs" aria-label="Pages of this crate">
      {pages.map(([path, label]) => (
        <NavLink key={path} to={`/crates/${crateId}${path}`} end>
          {label}
        </NavLink>
      ))}
    </nav>
  )
}
