import { Link } from 'react-router'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Nothing } from '../ui/PageState'
import { setupGroups } from './setupScreens'
import './setup.css'

/** The first page of Setup: what can be set up, in the order in which a room is made. */
export function SetupHome() {
  const { roomName, recorder, signOut } = useSession()
  if (recorder.role !== 'lead') return <Nothing>A lead sets the room up.</Nothing>
  return (
    <>
      <Lead title="Setup" aside={roomName}>
        Systems and tanks first, then suppliers and species, then the people who record.
      </Lead>
      <div className="setup-home">
        {setupGroups.map(({ title, pages }) => (
          <section key={title} className="setup-section">
            <h2>{title}</h2>
            <ul>
              {pages.map(({ to, label }) => (
                <li key={to}>
                  <Link to={to}>{label}</Link>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
      <section className="setup-section">
        <h2>This device</h2>
        <Button onClick={() => void signOut()}>
          Close this device
        </Button>
        <p className="aside-word">Opening it again needs a passphrase.</p>
      </section>
    </>
  )
}
