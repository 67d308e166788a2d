import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { choreKinds, type ChoreKind, type SaveChore } from '../../core/chores/chores.schema'
import { choreRuleKinds, type ChoreRuleKind } from '../../core/chores/choresDue'
import type { ChoreSetUp } from '../../core/chores/choreView'
import { dayInZone } from '../../core/time/dayInZone'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { ChoiceField, TextField, Tick } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { PlaceFields } from './PlaceFields'
import { emptyPlace, toPlace, type TypedPlace, typedOf } from './typedPlace'
import { useChores, useChoreWrites } from './useChores'
import './chores.css'

const ruleLabels: Readonly<Record<ChoreRuleKind, string>> = { every: 'so many days after it was done', fixed: 'every so many days, by the calendar', weekdays: 'on days of the week', arrivals: 'after so many fish came', once: 'once' }
const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const whole = (text: string): number | null => (text.trim() === '' ? null : Number(text))

/** A chore as a lead sets it up: how it comes round, where, and what it uses there. */
export function ChorePage() {
  const { choreId } = useParams()
  const { chores, problem } = useChores()
  const { recorder, timeZone } = useSession()
  if (recorder.role !== 'lead') return <Nothing>Chores are set up by a lead. <Link to="/chores">What is due</Link></Nothing>
  if (!chores) return problem ? <Trouble problem={problem} back={{ to: '/chores', label: 'Chores' }} /> : <Waiting what="the chore" />
  const chore = choreId === undefined ? null : (chores.chores.find(({ id }) => id === choreId) ?? null)
  if (choreId !== undefined && chore === null) return <Nothing>There is no such chore any more. <Link to="/chores">Chores</Link></Nothing>
  return <ChoreForm key={chore ? `${chore.id} ${chore.version}` : 'new'} chore={chore} today={dayInZone(nowMs(), timeZone)} items={chores.supplies.map(({ item }) => item)} />
}

function ChoreForm({ chore, today, items }: { chore: ChoreSetUp | null; today: string; items: readonly string[] }) {
  const { save, retire } = useChoreWrites()
  const navigate = useNavigate()
  const [name, setName] = useState(chore?.name ?? '')
  const [kind, setKind] = useState<ChoreKind>(chore?.kind ?? 'filter bags')
  const [rule, setRule] = useState({ kind: chore?.rule.kind ?? ('every' as ChoreRuleKind), days: String(chore?.rule.days ?? ''), weekdays: [...(chore?.rule.weekdays ?? [])], fish: String(chore?.rule.fish ?? ''), earlyDays: String(chore?.rule.earlyDays ?? 0) })
  const [startOn, setStartOn] = useState(chore?.startOn ?? today)
  const [note, setNote] = useState(chore?.note ?? '')
  const [places, setPlaces] = useState<TypedPlace[]>(() => chore?.places.map(typedOf) ?? [emptyPlace()])
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [refused, setRefused] = useState<string | null>(null)
  const needsDays = rule.kind === 'every' || rule.kind === 'fixed'

  const send = (): void => {
    setErrors({})
    setRefused(null)
    const body: SaveChore = { name, kind, rule: { kind: rule.kind, days: needsDays ? whole(rule.days) : null, weekdays: rule.kind === 'weekdays' ? rule.weekdays : [], fish: rule.kind === 'arrivals' ? whole(rule.fish) : null, earlyDays: whole(rule.earlyDays) ?? 0 }, startOn, places: places.map((place) => toPlace(place, kind)), note: note.trim() || null, version: chore?.version ?? 0 }
    save(chore?.id ?? null, body).then(
      () => navigate('/chores'),
      (error: unknown) => {
        const said = errorsByField(error) ?? {}
        setErrors(said)
        setRefused(Object.keys(said).length === 0 ? sentenceOf(error) : null)
      },
    )
  }
  return (
    <>
      <Lead title={chore ? chore.name : 'Another chore'} aside={<Link to="/chores">Chores</Link>}>
        Done or missed, it is due at each place once, however long it was left.
      </Lead>
      <form noValidate className="entry-form chore-form" onSubmit={(event) => (event.preventDefault(), send())}>
        <div className="field-row">
          <TextField label="Name" value={name} onChange={setName} problem={errors.name} />
          <ChoiceField label="Kind" value={kind} onChange={(value) => setKind(value as ChoreKind)} problem={errors.kind}>
            {choreKinds.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </ChoiceField>
        </div>
        <div className="field-row">
          <ChoiceField label="Comes round" value={rule.kind} onChange={(value) => setRule({ ...rule, kind: value as ChoreRuleKind })} problem={errors['rule.kind']}>
            {choreRuleKinds.map((each) => (
              <option key={each} value={each}>
                {ruleLabels[each]}
              </option>
            ))}
          </ChoiceField>
          {needsDays && <TextField label="Days" inputMode="numeric" value={rule.days} onChange={(days) => setRule({ ...rule, days })} problem={errors['rule.days']} />}
          {rule.kind === 'arrivals' && <TextField label="Fish" inputMode="numeric" value={rule.fish} onChange={(fish) => setRule({ ...rule, fish })} problem={errors['rule.fish']} />}
          {(rule.kind === 'fixed' || rule.kind === 'weekdays') && <TextField label="Counts when done early by" unit="days" inputMode="numeric" value={rule.earlyDays} onChange={(earlyDays) => setRule({ ...rule, earlyDays })} problem={errors['rule.earlyDays']} />}
          <TextField label={rule.kind === 'once' ? 'On' : 'First on'} type="date" value={startOn} onChange={setStartOn} problem={errors.startOn} />
        </div>
        {rule.kind === 'weekdays' && (
          <div className="weekdays" role="group" aria-label="Days of the week">
            {weekdays.map((label, index) => (
              <Tick key={label} label={label} isOn={rule.weekdays.includes(index + 1)} onChange={(isOn) => setRule({ ...rule, weekdays: isOn ? [...rule.weekdays, index + 1] : rule.weekdays.filter((day) => day !== index + 1) })} />
            ))}
            <Problem>{errors['rule.weekdays']}</Problem>
          </div>
        )}
        {places.map((place, index) => (
          <PlaceFields key={place.id} kind={kind} place={place} items={items} errors={errors} path={`places[${index}]`} onChange={(changed) => setPlaces(places.map((each) => (each.id === place.id ? changed : each)))} onRemove={places.length > 1 ? () => setPlaces(places.filter(({ id }) => id !== place.id)) : null} />
        ))}
        <Button onClick={() => setPlaces([...places, emptyPlace(places.at(-1))])}>Another place</Button>
        <TextField label="Note" isOptional value={note} onChange={setNote} problem={errors.note} />
        <Problem>{errors.places ?? refused}</Problem>
        <div className="field-row">
          <Button type="submit" look="act" size="hand">
            Save the chore
          </Button>
          {chore && <Button onClick={() => retire(chore.id, chore.version).then(() => navigate('/chores'), (error: unknown) => setRefused(sentenceOf(error)))}>Drop it</Button>}
        </div>
      </form>
    </>
  )
}
