import { NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { ChoiceField } from './Field'

export interface PageGroup {
  title: string
  pages: readonly { to: string; label: string }[]
}

/** Several pages of one screen: their list beside whichever is open; a list to pick from on a phone. */
export function SideFrame({ name, groups }: { name: string; groups: readonly PageGroup[] }) {
  return (
    <div className="setup">
      <PagePicker name={name} groups={groups} />
      <nav className="setup-nav" aria-label={`${name} pages`}>
        {groups.map(({ title, pages }) => (
          <section key={title}>
            <h2>{title}</h2>
            <ul>
              {pages.map(({ to, label }) => (
                <li key={to}>
                  <NavLink to={to}>{label}</NavLink>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </nav>
      <div className="setup-page">
        <Outlet />
      </div>
    </div>
  )
}

function PagePicker({ name, groups }: { name: string; groups: readonly PageGroup[] }) {
  const { pathname } = useLocation()
  const navigate = useNavigate()
  const current = groups.flatMap((group) => group.pages).find(({ to }) => pathname.startsWith(to))?.to ?? ''
  return (
    <ChoiceField label={`${name} page`} className="setup-picker" value={current} onChange={(to) => void navigate(to)}>
      {current === '' && <option value="">choose</option>}
      {groups.map(({ title, pages }) => (
        <optgroup key={title} label={title}>
          {pages.map(({ to, label }) => (
            <option key={to} value={to}>
              {label}
            </option>
          ))}
        </optgroup>
      ))}
    </ChoiceField>
  )
}
