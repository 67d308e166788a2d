import { useEffect } from 'react'
import { NavLink, Outlet, useLocation } from 'react-router'
import { useSession } from '../api/session'
import { useTheme } from '../ui/useTheme'
import { ClockStrip } from './ClockStrip'
import { OutboxTray } from './OutboxTray'
import { screens } from './screens'

/** What surrounds every screen: the rail (a bar at the bottom on phones), the clock strip, who is recording. */
export function Frame() {
  const { recorder, changeRecorder } = useSession()
  const { pathname } = useLocation()
  // Hand screens use the whole phone: their own main action stands where the bar would be.
  const isHandScreen = /^\/(rounds|crates\/[^/]+\/unpack)/.test(pathname)
  useEffect(() => void window.scrollTo(0, 0), [pathname])
  return (
    <div className={isHandScreen ? 'frame is-hand-screen' : 'frame'}>
      <nav className="rail" aria-label="Screens">
        <p className="wordmark">
          Daily
          <br />
          Crate
        </p>
        <ul>
          {screens
            .filter((screen) => !screen.isForLeads || recorder.role === 'lead')
            .map((screen) => (
              <li key={screen.to}>
                <NavLink to={screen.to}>{screen.label}</NavLink>
              </li>
            ))}
        </ul>
        <div className="rail-foot">
          <ThemeSwitch />
          <button type="button" className="recorder" onClick={changeRecorder}>
            <small>recording</small> <strong>{recorder.name}</strong>
          </button>
        </div>
      </nav>
      <ClockStrip />
      <main>
        <OutboxTray />
        <Outlet />
      </main>
    </div>
  )
}

function ThemeSwitch() {
  const { isLightsOff, toggle } = useTheme()
  return (
    <button type="button" className="theme-switch" onClick={toggle}>
      {isLightsOff ? 'lights on' : 'lights off'}
    </button>
  )
}
