import { NavLink } from 'react-router'

/** Pages that belong together, the open one marked. */
export const Tabs = ({ label, pages }: { label: string; pages: readonly { to: string; label: string }[] }) => (
  <nav className="tabs" aria-label={label}>
    {pages.map((page) => (
      <NavLink key={page.to} to={page.to} end>
        {page.label}
      </NavLink>
    ))}
  </nav>
)
