import { Command } from 'cmdk'
import { useState } from 'react'
import { Modal } from 'react-bootstrap'
import { useNavigate } from 'react-router'
import { useSession } from '../api/session'
import { screensFor } from './screens'
import { useFind } from './useFind'

/** Finds a tank, lot, crate, species or screen by a few letters, and goes there. */
export default function FindBox({ onClose }: { onClose: () => void }) {
  const { recorder } = useSession()
  const navigate = useNavigate()
  const [words, setWords] = useState('')
  const asked = words.trim()
  const { hits, problem } = useFind(asked)
  const screens = screensFor(recorder.role).filter(({ label }) => label.toLowerCase().includes(asked.toLowerCase()))
  const go = (to: string): void => {
    onClose()
    void navigate(to)
  }
  return (
    <Modal show onHide={onClose} className="find" aria-label="Find" animation={false}>
      <Command label="Find" shouldFilter={false} loop>
        <Command.Input value={words} onValueChange={setWords} placeholder="tank, lot, crate, species, screen" autoFocus />
        <Command.List>
          {problem ? <p className="find-nothing">The server cannot be reached; screens can still be gone to.</p> : null}
          {hits.length === 0 && screens.length === 0 && <p className="find-nothing">Nothing here is called that.</p>}
          {hits.map(({ kind, label, detail, to }) => (
            <Command.Item key={`${kind} ${label} ${to}`} value={`${kind} ${label} ${to}`} onSelect={() => go(to)}>
              <small>{kind}</small> <strong>{label}</strong> <span>{detail}</span>
            </Command.Item>
          ))}
          {screens.map(({ to, label }) => (
            <Command.Item key={to} value={`screen ${to}`} onSelect={() => go(to)}>
              <small>screen</small> <strong>{label}</strong>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
    </Modal>
  )
}
