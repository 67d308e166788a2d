import { yupResolver } from '@hookform/resolvers/yup'
import { Button, Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { mutate } from 'swr'
import { addSystemSchema, tankKinds, waters, type AddSystem } from '../../core/room/room.schema'
import type { RoomView } from '../../core/room/roomView'
import { addStaffSchema, roles, type AddStaff } from '../../core/staff/staff.schema'
import { useSession } from '../api/session'
import { useRoomView } from '../api/sharedReads'
import { useWrite } from '../api/useOutbox'
import { Field, FormProblem } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { submitInto } from '../ui/submitInto'

/** What a lead sets up: systems with their tanks, and people. */
export function SetupPage() {
  const { roomName, signOut } = useSession()
  const { room } = useRoomView()
  return (
    <>
      <Lead title="Setup" aside={roomName}>
        Systems and tanks first, then the people who record.
      </Lead>
      {room && <Systems room={room} />}
      <People />
      <section className="setup-section">
        <h2>This device</h2>
        <button type="button" className="button" onClick={() => void signOut()}>
          Close this device
        </button>
        <p className="aside-word">Opening it again needs a passphrase.</p>
      </section>
    </>
  )
}

function Systems({ room }: { room: RoomView }) {
  const write = useWrite()
  const empty: AddSystem = { name: '', water: 'fresh', sumpL: null, rack: room.systems.length === 0 ? 'R1' : '', tankCount: 8, perShelf: 4, tankKind: 'glass', netVolumeL: null }
  const form = useForm({ resolver: yupResolver(addSystemSchema), defaultValues: empty })
  const add = form.handleSubmit(async (body) => {
    const isDone = await submitInto(form, () => write({ command: 'addSystem', path: '/api/systems', label: `system ${body.name}`, body }, { refusals: 'form' }))
    if (isDone) form.reset({ ...empty, rack: '' })
  })
  return (
    <section className="setup-section">
      <h2>Systems and tanks</h2>
      <ul className="plain-list">
        {room.systems.map((system) => {
          const tanks = room.tanks.filter((tank) => tank.systemId === system.id)
          return (
            <li key={system.id}>
              <strong>{system.name}</strong> {system.water} water, {plural(tanks.length, 'tank')}: {tanks[0]?.code} to {tanks.at(-1)?.code}
            </li>
          )
        })}
      </ul>
      <Form noValidate onSubmit={(event) => void add(event)} className="entry-form">
        <div className="field-row">
          <Field form={form} name="name" label="New system" />
          <Field form={form} name="water" label="Water" options={waters} />
          <Field form={form} name="sumpL" label="Sump" unit="L" inputMode="decimal" />
        </div>
        <div className="field-row">
          <Field form={form} name="rack" label="Rack" hint="R1 gives R1-01 and on" />
          <Field form={form} name="tankCount" label="Tanks" inputMode="numeric" />
          <Field form={form} name="perShelf" label="On a shelf" inputMode="numeric" />
          <Field form={form} name="tankKind" label="Kind" options={tankKinds} />
          <Field form={form} name="netVolumeL" label="Net volume each" unit="L" inputMode="decimal" />
        </div>
        <FormProblem form={form} />
        <Button type="submit" className="act" disabled={form.formState.isSubmitting}>
          Add system and tanks
        </Button>
      </Form>
    </section>
  )
}

function People() {
  const { staff } = useSession()
  const write = useWrite()
  const empty: AddStaff = { name: '', role: 'keeper', pin: '', passphrase: null }
  const form = useForm({ resolver: yupResolver(addStaffSchema), defaultValues: empty })
  const add = form.handleSubmit(async (body) => {
    // PIN and passphrase are held in memory until they are sent, never in the browser's storage.
    const isDone = await submitInto(form, () => write({ command: 'addStaff', path: '/api/staff', label: `person ${body.name}`, body }, { refusals: 'form', isSecret: true }))
    if (isDone) form.reset(empty)
    await mutate(['session'])
  })
  return (
    <section className="setup-section">
      <h2>People</h2>
      <ul className="plain-list">
        {staff.map((person) => (
          <li key={person.id}>
            <strong>{person.name}</strong> {person.role}
          </li>
        ))}
      </ul>
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
    </section>
  )
}
