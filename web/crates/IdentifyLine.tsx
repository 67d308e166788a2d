import { useId, useState } from 'react'
import { Form } from 'react-bootstrap'
import { useForm, useWatch } from 'react-hook-form'
import { unidentified } from '../../core/crates/crates.schema'
import type { CrateView, LineView } from '../../core/crates/crateView'
import { identities, type Identity } from '../../core/setup/words'
import { useNames } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { submitInto } from '../ui/submitInto'
import { useCrateEdits } from './useCrates'

/** Says what a lot is that was counted in without a name, and how sure one is. Its count stays as it is. */
export function IdentifyLine({ crate, line }: { crate: CrateView; line: LineView }) {
  const [isOpen, setIsOpen] = useState(false)
  return isOpen ? (
    <IdentityForm crate={crate} line={line} onDone={() => setIsOpen(false)} />
  ) : (
    <Button look="quiet" onClick={() => setIsOpen(true)}>
      {line.species === unidentified ? `name line ${line.position}` : `correct line ${line.position}`}
    </Button>
  )
}

function IdentityForm({ crate, line, onDone }: { crate: CrateView; line: LineView; onDone: () => void }) {
  const names = useNames('species')
  const listId = useId()
  const { identifyLine } = useCrateEdits(crate.id)
  const form = useForm({ defaultValues: { species: line.species === unidentified ? '' : line.species, identity: line.identity ?? ('likely' as Identity) } })
  const identity = useWatch({ control: form.control, name: 'identity' })
  const save = form.handleSubmit(async ({ species, identity: sure }) => {
    if (!species.trim()) return form.setError('species', { message: 'Species is missing' })
    if (await submitInto(form, () => identifyLine(line.id, { species: species.trim(), identity: sure, strain: line.strain, version: line.version }))) onDone()
  })
  return (
    <Form noValidate className="identify" onSubmit={(event) => void save(event)}>
      <datalist id={listId}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <FormField form={form} name="species" label={`what line ${line.position} is`} isLabelHidden list={listId} maxLength={80} autoComplete="off" />
      <FormField form={form} name="identity" label={`how sure of line ${line.position}`} isLabelHidden options={identities} />
      {identity !== 'sure' && line.lookAlikes.length > 0 && (
        <small>
          Is it perhaps{' '}
          {line.lookAlikes.map((name) => (
            <Button key={name} look="quiet" onClick={() => form.setValue('species', name)}>
              {name}?
            </Button>
          ))}
        </small>
      )}
      <Button type="submit">Keep the name</Button>
      <FormProblem form={form} />
    </Form>
  )
}
