import { useId, useState } from 'react'
import { unidentified } from '../../core/crates/crates.schema'
import type { CrateView, LineView } from '../../core/crates/crateView'
import { identities, type Identity } from '../../core/setup/words'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useNames } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
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
      <Button look="quiet" onClick={() => setIsOpen(true)}>
        {line.species === unidentified ? `name line ${line.position}` : `correct line ${line.position}`}
      </Button>
    )
  }
  return (
    <div className="identify">
      <datalist id={listId}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <TextField label={`what line ${line.position} is`} isLabelHidden problem={problem} list={listId} maxLength={80} value={species} onChange={setSpecies} />
      <ChoiceField label={`how sure of line ${line.position}`} isLabelHidden value={identity} onChange={(sure) => setIdentity(sure as Identity)}>
        {identities.map((each) => (
          <option key={each}>{each}</option>
        ))}
      </ChoiceField>
      {identity !== 'sure' && line.lookAlikes.length > 0 && (
        <small>
          Is it perhaps{' '}
          {line.lookAlikes.map((name) => (
            <Button key={name} look="quiet" onClick={() => setSpecies(name)}>
              {name}?
            </Button>
          ))}
        </small>
      )}
      <Button onClick={() => void save()}>
        Keep the name
      </Button>
    </div>
  )
}
