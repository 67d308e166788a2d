import { yupResolver } from '@hookform/resolvers/yup'
import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useWatch } from 'react-hook-form'
import { phInstruments, salinityInstruments } from '../../core/acclimation/instruments'
import { roomSettingsSchema, type RoomSettings } from '../../core/staff/staff.schema'
import { baseUnits, salinityUnits, temperatureUnits, volumeUnits } from '../../core/units/units'
import { salinityFromSg, sgReferenceNames, sgReferences } from '../../core/water/density'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { StaleChoice } from '../ui/StaleChoice'
import { useVersionedForm } from '../ui/useVersionedForm'
import { useChangeRoom } from './usePeople'
import './setup.css'

const temperatureWords = { '°C': '°C, Celsius', '°F': '°F, Fahrenheit' }
const volumeWords = { L: 'L, litres', gal: 'gal, US gallons' }
const salinityWords = { ppt: 'ppt, grams per kg', SG: 'SG, specific gravity' }
const fieldWords = { name: 'name', timeZone: 'time zone', temperatureUnit: 'temperature', volumeUnit: 'volume', salinityUnit: 'salinity', sgReference: 'reference pair', salinityBy: 'salt instrument', phBy: 'meter or kit' }
const options = (words: Record<string, string>, values: readonly string[]) => values.map((value) => ({ value, label: words[value] ?? value }))

/** What the room is called, where its clock stands, and how figures are shown. */
export function RoomSettingsPage() {
  const { roomName, timeZone, units, instruments, roomVersion, isSecure } = useSession()
  const change = useChangeRoom()
  const [isSaved, setIsSaved] = useState(false)
  const room: RoomSettings = { name: roomName, timeZone, ...(units ?? baseUnits), ...instruments, version: roomVersion }
  const { form, submit, stale, isBusy } = useVersionedForm<RoomSettings, RoomSettings>({
    row: room,
    toFields: (row) => row,
    resolver: () => yupResolver(roomSettingsSchema) as never,
    write: async (body, version) => {
      setIsSaved(false)
      const saved = await change({ ...body, version })
      setIsSaved(true)
      return saved
    },
  })
  const mine = form.getValues()
  const isGravity = useWatch({ control: form.control, name: 'salinityUnit' }) === 'SG'
  return (
    <>
      <Lead title="Name and units">Records always hold °C, litres and ppt; this is how people see and type them.</Lead>
      {stale && (
        <StaleChoice
          one="room"
          fields={(['name', 'timeZone', 'temperatureUnit', 'volumeUnit', 'salinityUnit', 'sgReference', 'salinityBy', 'phBy'] as const).map((field) => ({ label: fieldWords[field], mine: mine[field] ?? '', theirs: stale.theirs[field] ?? '' }))}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <Form noValidate onSubmit={(event) => (event.preventDefault(), void submit())}>
        <div className="field-row">
          <FormField form={form} name="name" label="Name of the room" />
          <FormField form={form} name="timeZone" label="Time zone" hint="such as Europe/Lisbon; days and rounds go by it" />
        </div>
        <div className="field-row">
          <FormField form={form} name="temperatureUnit" label="Temperature" options={options(temperatureWords, temperatureUnits)} />
          <FormField form={form} name="volumeUnit" label="Volume" options={options(volumeWords, volumeUnits)} />
          <FormField form={form} name="salinityUnit" label="Salinity" options={options(salinityWords, salinityUnits)} />
          {isGravity && <FormField form={form} name="sgReference" label="Reference pair of the hydrometer" options={sgReferenceNames} hint="printed on the glass" />}
        </div>
        <div className="field-row">
          <FormField form={form} name="salinityBy" label="Salt instrument" options={salinityInstruments} hint="how far a reading may be off; a bag can say otherwise" />
          <FormField form={form} name="phBy" label="Meter or kit" options={phInstruments} />
        </div>
        {isGravity && <GravityNote />}
        <FormProblem form={form} />
        <div className="entry-buttons">
          <Button type="submit" look="act" disabled={isBusy}>
            Save
          </Button>
          {isSaved && <span role="status">Saved.</span>}
        </div>
      </Form>
      <section className="setup-section">
        <h2>How devices reach this room</h2>
        {isSecure ? <p>Encrypted (TLS).</p> : <PlainHttpNotice />}
      </section>
    </>
  )
}

/** The same reading means another salinity on another glass; whoever chooses should see how much. */
function GravityNote() {
  const readings = sgReferenceNames.map((name) => `${salinityFromSg(1.025, sgReferences[name].sampleC, sgReferences[name].waterC).toFixed(1)} ppt on ${name}`)
  return <Notice>The pair matters: a reading of 1.025 is {readings.join(', ')}.</Notice>
}

/** Says what plain http means, without crying wolf on the machine itself. */
export function PlainHttpNotice() {
  const isHere = ['localhost', '127.0.0.1', '[::1]'].includes(window.location.hostname)
  return (
    <p className={isHere ? undefined : 'notice'}>
      Plain http{isHere ? ', on this machine only' : ': passphrases, PINs and records can be read by others on this network'}. With a certificate and key (CRATE_TLS_CERT and CRATE_TLS_KEY, see docs/operations.md) everything travels encrypted, and phones may keep the
      screen awake.
    </p>
  )
}
