import { yupResolver } from '@hookform/resolvers/yup'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { mutate } from 'swr'
import { staffApi } from '../../core/staff/staff.api'
import { addStaffSchema, resetPinSchema, roles, setPassphraseSchema, type AddStaff, type PersonView } from '../../core/staff/staff.schema'
import { currentOf, sentenceOf } from '../api/ApiProblem'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'
import { Field, FormProblem, TickField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { StaleChoice } from '../ui/StaleChoice'
import { submitInto } from '../ui/submitInto'

/** People: who records here, who leads, who opens devices. */
export function PeoplePage() {
  const { data, problem } = useRead(staffApi.readPeople, {})
  const [open, setOpen] = useState<string | null>(null)
  if (!data) return problem ? <Trouble problem={problem} /> : <Waiting what="the people" />
  return (
    <>
      <Lead title="Staff">Keepers record; leads also set up. Nobody is deleted: what they recorded goes on naming them.</Lead>
      <ul className="record-list people">
        {data.people.map((person) => (
          <li key={person.id} className="record person">
            <button type="button" className="person-line" aria-expanded={open === person.id} onClick={() => setOpen(open === person.id ? null : person.id)}>
              <strong>{person.name}</strong>
              <span>
                {person.role}
                {person.opensDevices ? ', opens devices' : ''}
                {person.retiredAtMs === null ? '' : ', retired'}
              </span>
            </button>
            {open === person.id && <PersonForms person={person} />}
          </li>
        ))}
      </ul>
      <AddPerson />
    </>
  )
}

function PersonForms({ person }: { person: PersonView }) {
  const write = useWrite()
  const params = { staffId: person.id }
  const [said, setSaid] = useState<string | null>(null)
  const who = useForm({ defaultValues: { name: person.name, role: person.role } })
  const [version, setVersion] = useState(person.version)
  const [stale, setStale] = useState<PersonView | null>(null)
  const pin = useForm({ resolver: yupResolver(resetPinSchema), defaultValues: { pin: '' } })
  const passphrase = useForm({ resolver: yupResolver(setPassphraseSchema), defaultValues: { passphrase: null as string | null, closesDevices: true } })
  const label = `person ${person.name}`
  const saveWho = (asVersion: number) => who.handleSubmit(async (values) => {
    const edit = write(staffApi.editStaff, { params, label, body: { ...values, version: asVersion } }, { refusals: 'form' })
    await submitInto(who, () => edit.then((saved) => setVersion(saved.version), (error: unknown) => setStale(currentOf<PersonView>(error))))
    await mutate(['session'])
  })()
  const mine = who.getValues()
  const savePin = pin.handleSubmit(async (body) => {
    if (!(await submitInto(pin, () => write(staffApi.resetPin, { params, label, body }, { refusals: 'form', isSecret: true })))) return
    pin.reset({ pin: '' })
    setSaid(`${person.name} has a new PIN; every device asks for it again.`)
    await mutate(['session'])
  })
  const savePassphrase = passphrase.handleSubmit(async (body) => {
    if (!(await submitInto(passphrase, () => write(staffApi.setPassphrase, { params, label, body }, { refusals: 'form', isSecret: true })))) return
    passphrase.reset({ passphrase: null, closesDevices: true })
    setSaid(body.passphrase === null ? `${person.name} opens no devices any more.` : `${person.name} opens devices with the new passphrase.`)
  })
  const retire = (isRetired: boolean): void => void write(staffApi.retireStaff, { params, label, body: { isRetired, version: person.version } }, { refusals: 'form' }).then(() => mutate(['session']), (error: unknown) => setSaid(sentenceOf(error)))
  return (
    <div className="entry-form">
      {stale && (
        <StaleChoice
          one="person"
          fields={[{ label: 'name', mine: mine.name, theirs: stale.name }, { label: 'role', mine: mine.role, theirs: stale.role }]}
          onMine={() => {
            setStale(null)
            void saveWho(stale.version)
          }}
          onTheirs={() => {
            setStale(null)
            setVersion(stale.version)
            who.reset({ name: stale.name, role: stale.role })
          }}
        />
      )}
      <Form noValidate onSubmit={(event) => (event.preventDefault(), void saveWho(version))} className="field-row">
        <Field form={who} name="name" label="Name" autoComplete="off" />
        <Field form={who} name="role" label="Role" options={roles} />
        <Button type="submit" className="button">Save</Button>
      </Form>
      <FormProblem form={who} />
      <Form noValidate onSubmit={(event) => void savePin(event)} className="field-row">
        <Field form={pin} name="pin" label="New PIN" type="password" inputMode="numeric" autoComplete="off" hint="4 to 8 digits" />
        <Button type="submit" className="button">Reset the PIN</Button>
      </Form>
      <FormProblem form={pin} />
      <Form noValidate onSubmit={(event) => void savePassphrase(event)} className="field-row">
        <Field form={passphrase} name="passphrase" label="New passphrase" type="password" autoComplete="new-password" hint="at least 10 characters; left empty, this person opens no devices" />
        <TickField form={passphrase} name="closesDevices" label="Close the devices opened before (this one stays open)" />
        <Button type="submit" className="button">Set the passphrase</Button>
      </Form>
      <FormProblem form={passphrase} />
      <div className="entry-buttons">
        <button type="button" className="button" onClick={() => retire(person.retiredAtMs === null)}>
          {person.retiredAtMs === null ? `Retire ${person.name}` : `Bring ${person.name} back`}
        </button>
      </div>
      {said && (
        <p className="notice" role="status">
          {said}
        </p>
      )}
    </div>
  )
}

function AddPerson() {
  const write = useWrite()
  const empty: AddStaff = { name: '', role: 'keeper', pin: '', passphrase: null }
  const form = useForm({ resolver: yupResolver(addStaffSchema), defaultValues: empty })
  const add = form.handleSubmit(async (body) => {
    // PIN and passphrase are held in memory until they are sent, never in the browser's storage.
    const isDone = await submitInto(form, () => write(staffApi.addStaff, { label: `person ${body.name}`, body }, { refusals: 'form', isSecret: true }))
    if (isDone) form.reset(empty)
    await mutate(['session'])
  })
  return (
    <Form noValidate onSubmit={(event) => void add(event)} className="entry-form">
      <div className="field-row">
        <Field form={form} name="name" label="New person" autoComplete="off" />
        <Field form={form} name="role" label="Role" options={roles} />
        <Field form={form} name="pin" label="PIN" type="password" inputMode="numeric" autoComplete="off" hint="4 to 8 digits" />
        <Field form={form} name="passphrase" label="Passphrase" type="password" autoComplete="new-password" hint="only for people who open devices" />
      </div>
      <FormProblem form={form} />
      <Button type="submit" className="act" disabled={form.formState.isSubmitting}>
        Add person
      </Button>
    </Form>
  )
}
