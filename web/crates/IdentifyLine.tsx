import { useId, useState } from 'react'
import { Form } from 'react-bootstrap'
import { unidentified } from '../../core/crates/crates.schema'
import type { CrateView, LineView } from '../../core/crates/crateView'
import { identities, type Identity } from '../../core/setup/words'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useNames } from '../api/sharedReads'
import { useCrateEdits } from './useCrates'

/** Says what a lot is that was counted in without a name, and how sure one is. Its count stays as it is. */
export function IdentifyLine({ crate, line }: { crate: CrateView; line: LineView }) {
  const [isOpen, setIsOpen] = useState(false)
  const names = useNames('species')
  const listId = useId()
  const [species, setSpecies] = useState(line.species === unidentified ? '' : line.species)
  const [identity, setIdentity] = useState<Identity>(line.identity ?? 'likely')
  const [problem, setProblem] = useState<string | null>(null)
  const { identifyLine } = useCrateEdits(crate.id)
  const save = async (): Promise<void> => {
    setProblem(null)
    if (!species.trim()) return setProblem('Species is missing')
    await identifyLine(line.id, { species: species.trim(), identity, strain: line.strain, version: line.version }).then(
      () => setIsOpen(false),
      (error: unknown) => setProblem(errorsByField(error)?.species ?? sentenceOf(error)),
    )
  }
  if (!isOpen) {
    return (
      <button type="button" className="quiet-button" onClick={() => setIsOpen(true)}>
        {line.species === unidentified ? `name line ${line.position}` : `correct line ${line.position}`}
      </button>
    )
  }
  return (
    <span className="identify">
      <datalist id={listId}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <Form.Control aria-label={`what line ${line.position} is`} list={listId} value={species} maxLength={80} isInvalid={problem !== null} onChange={(event) => setSpecies(event.currentTarget.value)} />
      <Form.Select aria-label={`how sure of line ${line.position}`} value={identity} onChange={(event) => setIdentity(event.currentTarget.value as Identity)}>
        {identities.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </Form.Select>
      {identity !== 'sure' && line.lookAlikes.length > 0 && (
        <small>
          Is it perhaps{' '}
          {line.lookAlikes.map((name) => (
            <button key={name} type="button" className="quiet-button" onClick={() => setSpecies(name)}>
              {name}?
            </button>
          ))}
        </small>
      )}
      <button type="button" className="button" onClick={() => void save()}>
        Keep the name
      </button>
      {problem && <small role="alert">{problem}</small>}
    </span>
  )
}
