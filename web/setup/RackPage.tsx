import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useForm, useWatch } from 'react-hook-form'
import { Link } from 'react-router'
import { addSystemSchema, sharings, tankKinds, waters, type AddSystem } from '../../core/room/room.schema'
import { planTankCodes } from '../../core/room/planTankCodes'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { schemaErrors } from '../ui/schemaErrors'
import { submitInto } from '../ui/submitInto'
import { useBack } from '../ui/useBack'
import { useGoOn } from '../ui/useGoOn'
import { readNumber, useUnits } from '../ui/useUnits'
import { useAddSystem } from './useSetup'
import './setup.css'

/** A system with its rack of tanks, coded by pattern. */
export function RackPage() {
  const { room } = useRoomView()
  const units = useUnits()
  const addSystem = useAddSystem()
  const back = useBack('')
  const goOn = useGoOn()
  const [added, setAdded] = useState<string | null>(null)
  const empty = { name: '', water: 'fresh', sharing: '', sumpL: '', rack: room && room.systems.length > 0 ? '' : 'R1', tankCount: 8, perShelf: 4, tankKind: 'glass', netVolumeL: '' }
  const form = useForm({ values: empty, resetOptions: { keepDirtyValues: true } })
  const [rack = '', tankCount = 0, perShelf = 1] = useWatch({ control: form.control, name: ['rack', 'tankCount', 'perShelf'] })

  const add = form.handleSubmit(async (typed) => {
    const read = (text: string): number | null => (text.trim() === '' ? null : units.read('volume', text))
    const body = { ...typed, rack: typed.rack.trim().toUpperCase(), tankCount: readNumber(String(typed.tankCount)), perShelf: readNumber(String(typed.perShelf)), sumpL: read(typed.sumpL), netVolumeL: read(typed.netVolumeL) } as AddSystem
    const errors = Object.entries(schemaErrors(addSystemSchema, body))
    for (const [name, message] of errors) form.setError(name as keyof typeof empty, { message })
    if (errors.length > 0) return
    if (!(await submitInto(form, () => addSystem(body)))) return
    if (back !== '') return goOn(back)
    setAdded(`${body.name}: ${plural(body.tankCount, 'tank')} in rack ${body.rack}.`)
    form.reset({ ...empty, rack: '' })
  })

  return (
    <>
      <Lead title="Add a rack">Tanks that are kept alike, on one water or each with its own. They are coded by rack and numbered on; each can be changed afterwards.</Lead>
      {added && (
        <Notice level="done" role="status">
          <strong>Added {added}</strong> Add another, or see <Link to="/room">the room</Link>.
        </Notice>
      )}
      <Form noValidate onSubmit={(event) => void add(event)}>
        <div className="field-row">
          <FormField form={form} name="name" label="New system" />
          <FormField form={form} name="water" label="Water" options={waters} />
          <FormField form={form} name="sharing" label="Water of its tanks" options={[{ value: '', label: 'choose' }, ...sharings]} hint="one water: a germ or an agent in one tank is in all" />
          <FormField form={form} name="sumpL" label="Sump" unit={units.label('volume')} inputMode="decimal" />
        </div>
        <div className="field-row">
          <FormField form={form} name="rack" label="Rack" hint="R1 gives R1-01 and on" />
          <FormField form={form} name="tankCount" label="Tanks" inputMode="numeric" />
          <FormField form={form} name="perShelf" label="On a shelf" inputMode="numeric" />
          <FormField form={form} name="tankKind" label="Kind" options={tankKinds} />
          <FormField form={form} name="netVolumeL" label="Net volume each" unit={units.label('volume')} inputMode="decimal" />
        </div>
        <RackPattern rack={rack.trim().toUpperCase()} tankCount={Number(tankCount)} perShelf={Number(perShelf)} standing={room?.tanks.filter((tank) => tank.rack === rack.trim().toUpperCase()) ?? []} />
        <FormProblem form={form} />
        <Button type="submit" look="act" disabled={form.formState.isSubmitting}>
          Add system and tanks
        </Button>
      </Form>
    </>
  )
}

/** The codes that the pattern would give, shelf by shelf, before anything is kept. */
function RackPattern({ rack, tankCount, perShelf, standing }: { rack: string; tankCount: number; perShelf: number; standing: { shelf: number }[] }) {
  const isSensible = /^[A-Z][A-Z0-9]{0,7}$/.test(rack) && Number.isInteger(tankCount) && tankCount >= 1 && tankCount <= 99 && Number.isInteger(perShelf) && perShelf >= 1 && perShelf <= 20
  if (!isSensible) return null
  const spots = planTankCodes(rack, tankCount, perShelf, { tanks: standing.length, shelves: Math.max(0, ...standing.map((tank) => tank.shelf)) })
  const shelves = [...new Set(spots.map(({ shelf }) => shelf))]
  return (
    <div className="rack-pattern" aria-label="Codes of the new tanks">
      {shelves.map((shelf) => (
        <p key={shelf}>
          {spots
            .filter((spot) => spot.shelf === shelf)
            .map(({ code }) => (
              <span key={code}>{code}</span>
            ))}
        </p>
      ))}
    </div>
  )
}
