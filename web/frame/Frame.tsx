import { useEffect, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { Link, NavLink, Outlet, useLocation } from 'react-router'
import { useSession } from '../api/session'
import { useLiveChanges } from '../api/useLiveChanges'
import { Apart } from '../ui/Apart'
import { Sheet } from '../ui/Sheet'
import { useTheme } from '../ui/useTheme'
import { ClockStrip } from './ClockStrip'
import { OutboxTray } from './OutboxTray'
import { FindBox } from './FindBox'
import { Notices } from './Notices'
import { KeysSheet } from './KeysSheet'
import { screensFor } from './screens'

/** What surrounds every screen: the rail (a bar at the bottom on phones), the clock strip, who is recording. */
export function Frame() {
  const { recorder, changeRecorder } = useSession()
  const { pathname } = useLocation()
  useLiveChanges()
  // Hand screens use the whole phone: their own main action stands where the bar would be.
  const isHandScreen = /^\/(rounds|bench\/runs|crates\/[^/]+\/unpack)/.test(pathname)
  useEffect(() => void window.scrollTo(0, 0), [pathname])
  const [open, setOpen] = useState<'find' | 'keys' | 'more' | null>(null)
  useHotkeys(['/', 'ctrl+k', 'meta+k'], () => setOpen('find'), { preventDefault: true, useKey: true })
  useHotkeys('?', () => setOpen('keys'), { preventDefault: true, useKey: true })
  return (
    <div className={isHandScreen ? 'frame is-hand-screen' : 'frame'}>
      <nav className="rail" aria-label="Screens">
        <p className="wordmark">
          Daily
          <br />
          Crate
        </p>
        <ul>
          {screensFor(recorder.role).map((screen) => (
            <li key={screen.to} className={screen.isInMore ? 'is-in-more' : undefined}>
              <NavLink to={screen.to}>{screen.label}</NavLink>
            </li>
          ))}
        </ul>
        <div className="rail-foot">
          <button type="button" className="find-button" onClick={() => setOpen('find')}>
            find <kbd>/</kbd>
          </button>
          <button type="button" className="keys-button" onClick={() => setOpen('keys')}>
            keys <kbd>?</kbd>
          </button>
          <ThemeSwitch />
          <button type="button" className="more-button" onClick={() => setOpen('more')}>
            more
          </button>
          <button type="button" className="recorder" onClick={changeRecorder}>
            <small>recording</small> <strong>{recorder.name}</strong>
          </button>
        </div>
      </nav>
      <Apart what="The clock strip">
        <ClockStrip />
      </Apart>
      {open === 'find' && (
        <Apart what="The find box">
          <FindBox onClose={() => setOpen(null)} />
        </Apart>
      )}
      <Sheet title="More" isOpen={open === 'more'} onClose={() => setOpen(null)}>
        <div className="more-sheet">
          {screensFor(recorder.role)
            .filter((screen) => screen.isInMore)
            .map((screen) => (
              <Link key={screen.to} to={screen.to} className="hand-button" onClick={() => setOpen(null)}>
                {screen.label}
              </Link>
            ))}
          <button type="button" className="hand-button" onClick={() => setOpen('find')}>
            find
          </button>
          <ThemeSwitch />
        </div>
      </Sheet>
      <KeysSheet isOpen={open === 'keys'} onClose={() => setOpen(null)} />
      <main>
        <Apart what="What waits on this device">
          <Notices />
          <OutboxTray />
        </Apart>
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
