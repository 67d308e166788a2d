import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { NavLink, Outlet, useLocation } from 'react-router'
import { useSession } from '../api/session'
import { useLiveChanges } from '../api/useLiveChanges'
import { Button, ButtonLink } from '../ui/Button'
import { fetchAhead, lazyAhead } from '../ui/ahead'
import { Apart } from '../ui/Apart'
import { Sheet } from '../ui/Sheet'
import { useTheme } from '../ui/useTheme'
import { ClockStrip } from './ClockStrip'
import { OutboxTray } from './OutboxTray'
import { screensFor } from './screens'
import './frame.css'
import './find.css'

const Notices = lazy(() => import('./Notices'))
const FindBox = lazyAhead(() => import('./FindBox'))
const KeysSheet = lazyAhead(() => import('./KeysSheet'))

/** Other screens are fetched once this one has had the network to itself for a moment. */
const fetchAheadAfterMs = 1500

/** What surrounds every screen: the rail (a bar at the bottom on phones), the clock strip, who is recording. */
export function Frame() {
  const { recorder, changeRecorder } = useSession()
  const { pathname } = useLocation()
  const frame = useRef<HTMLDivElement>(null)
  useLiveChanges()
  // Hand screens use the whole phone: their own main action stands where the bar would be.
  const isHandScreen = /^\/(rounds|scan|kitchen$|handover$|stocktake\/walk|bench\/(runs|introductions)|room\/[^/]+\/move|plans\/new|regimens\/.|vessels|crates\/[^/]+\/unpack)/.test(pathname)
  useEffect(() => void window.scrollTo(0, 0), [pathname])
  useEffect(() => {
    const timer = setTimeout(() => void fetchAhead().then((isAll) => frame.current?.toggleAttribute('data-fetched-ahead', isAll)), fetchAheadAfterMs)
    return () => clearTimeout(timer)
  }, [])
  const [open, setOpen] = useState<'find' | 'keys' | 'more' | null>(null)
  useHotkeys(['/', 'ctrl+k', 'meta+k'], () => setOpen('find'), { preventDefault: true, useKey: true })
  useHotkeys('?', () => setOpen('keys'), { preventDefault: true, useKey: true })
  return (
    <div ref={frame} className={isHandScreen ? 'frame is-hand-screen' : 'frame'}>
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
          <Button look="bare" className="find-button" onClick={() => setOpen('find')}>
            find <kbd>/</kbd>
          </Button>
          <Button look="bare" className="keys-button" onClick={() => setOpen('keys')}>
            keys <kbd>?</kbd>
          </Button>
          <ThemeSwitch />
          <Button look="bare" className="more-button" onClick={() => setOpen('more')}>
            more
          </Button>
          <Button look="bare" className="recorder" onClick={changeRecorder}>
            <small>recording</small> <strong>{recorder.name}</strong>
          </Button>
        </div>
      </nav>
      <Apart what="The clock strip">
        <ClockStrip />
      </Apart>
      {open === 'find' && (
        <Apart what="The find box">
          <Suspense>
            <FindBox onClose={() => setOpen(null)} />
          </Suspense>
        </Apart>
      )}
      <Sheet title="More" isOpen={open === 'more'} onClose={() => setOpen(null)}>
        <div className="more-sheet">
          {screensFor(recorder.role)
            .filter((screen) => screen.isInMore)
            .map((screen) => (
              <ButtonLink key={screen.to} to={screen.to} size="hand" onClick={() => setOpen(null)}>
                {screen.label}
              </ButtonLink>
            ))}
          <Button size="hand" onClick={() => setOpen('find')}>
            find
          </Button>
          <ThemeSwitch />
        </div>
      </Sheet>
      {open === 'keys' && (
        <Suspense>
          <KeysSheet onClose={() => setOpen(null)} />
        </Suspense>
      )}
      <main>
        <Apart what="What waits on this device">
          <Suspense>
            <Notices />
          </Suspense>
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
    <Button look="bare" className="theme-switch" onClick={toggle}>
      {isLightsOff ? 'lights on' : 'lights off'}
    </Button>
  )
}
