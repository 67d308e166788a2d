import { yupResolver } from '@hookform/resolvers/yup'
import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { addStaffSchema, resetPinSchema, roles, setPassphraseSchema, type AddStaff, type PersonView } from '../../core/staff/staff.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { FormField, FormProblem, TickField } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { StaleChoice } from '../ui/StaleChoice'
import { submitInto } from '../ui/submitInto'
import { useVersionedForm } from '../ui/useVersionedForm'
import { useAddPerson, usePeople, usePersonWrites } from './usePeople'
import './setup.css'

/** People: who records here, who leads, who opens devices. */
export function PeoplePage() {
  const { people, problem } = usePeople()
  const [open, setOpen] = useState<string | null>(null)
  if (!people) return problem ? <Trouble problem={problem} /> : <Waiting what="the people" />
  return (
    <>
      <Lead title="Staff">Keepers record; leads also set up. Nobody is deleted: what they recorded goes on naming them.</Lead>
      <ul className="record-list people">
        {people.map((person) => (
          <li key={person.id} className="record person">
            <Button look="bare" className="person-line" aria-expanded={open === person.id} onClick={() => setOpen(open === person.id ? null : person.id)}>
              <strong>{person.name}</strong>
              <span>
                {person.role}
                {person.opensDevices ? ', opens devices' : ''}
                {person.retiredAtMs === null ? '' : ', retired'}
              </span>
            </Button>
            {open === person.id && <PersonForms person={person} />}
          </li>
        ))}
      </ul>
      <AddPerson />
    </>
  )
}

function PersonForms({ person }: { person: PersonView }) {
  const writes = usePersonWrites(person)
  const [said, setSaid] = useState<string | null>(null)
  const pin = useForm({ resolver: yupResolver(resetPinSchema), defaultValues: { pin: '' } })
  const passphrase = useForm({ resolver: yupResolver(setPassphraseSchema), defaultValues: { passphrase: null as string | null, closesDevices: true } })
  const { form: who, submit, stale, isBusy } = useVersionedForm({
    row: person,
    toFields: ({ name, role }) => ({ name, role }),
    write: (values, version) => writes.edit({ ...values, version }),
  })
  const mine = who.getValues()
  const savePin = pin.handleSubmit(async (body) => {
    if (!(await submitInto(pin, () => writes.resetPin(body)))) return
    pin.reset({ pin: '' })
    setSaid(`${person.name} has a new PIN; every device asks for it again.`)
  })
  const savePassphrase = passphrase.handleSubmit(async (body) => {
    if (!(await submitInto(passphrase, () => writes.setPassphrase(body)))) return
    passphrase.reset({ passphrase: null, closesDevices: true })
    setSaid(body.passphrase === null ? `${person.name} opens no devices any more.` : `${person.name} opens devices with the new passphrase.`)
  })
  const retire = (isRetired: boolean): void => void writes.retire(isRetired).catch((error: unknown) => setSaid(sentenceOf(error)))
  return (
    <div className="entry-form">
      {stale && (
        <StaleChoice
          one="person"
          fields={[{ label: 'name', mine: mine.name, theirs: stale.theirs.name }, { label: 'role', mine: mine.role, theirs: stale.theirs.role }]}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <Form noValidate onSubmit={(event) => (event.preventDefault(), void submit())} className="field-row">
        <FormField form={who} name="name" label="Name" autoComplete="off" />
        <FormField form={who} name="role" label="Role" options={roles} />
        <Button type="submit" disabled={isBusy}>
          Save
        </Button>
      </Form>
      <FormProblem form={who} />
      <Form noValidate onSubmit={(event) => void savePin(event)} className="field-row">
        <FormField form={pin} name="pin" label="New PIN" type="password" inputMode="numeric" autoComplete="off" hint="4 to 8 digits" />
        <Button type="submit">Reset the PIN</Button>
      </Form>
      <FormProblem form={pin} />
      <Form noValidate onSubmit={(event) => void savePassphrase(event)} className="field-row">
        <FormField form={passphrase} name="passphrase" label="New passphrase" type="password" autoComplete="new-password" hint="at least 10 characters; left empty, this person opens no devices" />
        <TickField form={passphrase} name="closesDevices" label="Close the devices opened before (this one stays open)" />
        <Button type="submit">Set the passphrase</Button>
      </Form>
      <FormProblem form={passphrase} />
      <div className="entry-buttons">
        <Button onClick={() => retire(person.retiredAtMs === null)}>
          {person.retiredAtMs === null ? `Retire ${person.name}` : `Bring ${person.name} back`}
        </Button>
      </div>
      {said && (
        <Notice role="status">
          {said}
        </Notice>
      )}
    </div>
  )
}

function AddPerson() {
  const addPerson = useAddPerson()
  const empty: AddStaff = { name: '', role: 'keeper', pin: '', passphrase: null }
  const form = useForm({ resolver: yupResolver(addStaffSchema), defaultValues: empty })
  const add = form.handleSubmit(async (body) => {
    if (await submitInto(form, () => addPerson(body))) form.reset(empty)
  })
  return (
    <Form noValidate onSubmit={(event) => void add(event)} className="entry-form">
      <div className="field-row">
        <FormField form={form} name="name" label="New person" autoComplete="off" />
        <FormField form={form} name="role" label="Role" options={roles} />
        <FormField form={form} name="pin" label="PIN" type="password" inputMode="numeric" autoComplete="off" hint="4 to 8 digits" />
        <FormField form={form} name="passphrase" label="Passphrase" type="password" autoComplete="new-password" hint="only for people who open devices" />
      </div>
      <FormProblem form={form} />
      <Button type="submit" look="act" disabled={form.formState.isSubmitting}>
        Add person
      </Button>
    </Form>
  )
}
