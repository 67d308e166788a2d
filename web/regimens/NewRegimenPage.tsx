import { useState, type ReactNode } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { dosingLimits } from '../../core/dosing/agents'
import { regimenKinds, type RegimenKind, type RegimenPlan } from '../../core/regimens/regimens.schema'
import { regimenTitles } from '../../core/regimens/regimenWords'
import { dayInZone } from '../../core/time/dayInZone'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { useRegister, useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { TankOptions } from '../ui/TankOptions'
import { readNumber, useUnits } from '../ui/useUnits'
import { useRegimens, useRegimenWrites } from './useRegimens'
import './regimens.css'

const about: Readonly<Record<RegimenKind, string>> = {
  ladder: 'A part dose first, raised once they eat, kept at its level for days, stepped out by changes.',
  doses: 'One dose on each of some days, such as a dewormer that is repeated after a week.',
  'medicated feed': 'A food with medicine in it, alone, on each of some days: the kitchen reads them.',
  transfer: 'From tank to clean, dry tank every three days. Against marine white spot only.',
  'low salinity': 'Down within a day or two, low for weeks, slowly up again.',
}

/** A regimen is begun: what it is, where, and how it goes. */
export function NewRegimenPage() {
  const { room } = useRoomView()
  const { regimens, problem } = useRegimens()
  const foods = useRegister('foods').rows
  if (!room || !regimens || !foods) return problem ? <Trouble problem={problem} back={{ to: '/regimens', label: 'Regimens' }} /> : <Waiting what="tanks and agents" />
  return <NewRegimen tanks={room.tanks} products={regimens.products} foods={foods.flatMap(({ id, retiredAtMs, values }) => (retiredAtMs === null ? [{ id, name: String(values.name) }] : []))} />
}

interface Asked {
  tanks: NonNullable<ReturnType<typeof useRoomView>['room']>['tanks']
  products: NonNullable<ReturnType<typeof useRegimens>['regimens']>['products']
  foods: readonly { id: string; name: string }[]
}

/** What the fields of each kind begin with. */
const beginnings = (today: string): Record<string, string> => ({
  ...{ levelDays: '21', fromOn: today, days: '1', pauseDays: '6', times: '2', onSignDays: '0', mostDays: '0' },
  ...{ transfers: String(dosingLimits.transfers), everyH: String(dosingLimits.transferEveryH), lateH: String(dosingLimits.transferLateH), cleanDryH: String(dosingLimits.transferCleanDryH) },
  ...{ startOn: today, lowPpt: '12', holdDays: '28', fallPerDay: String(dosingLimits.salinityFallPerDay), upPerDay: String(dosingLimits.salinityPerDay), downPpt: '0', evapLPerDay: '0' },
})

function NewRegimen({ tanks, products, foods }: Asked) {
  const [params] = useSearchParams()
  const { timeZone } = useSession()
  const units = useUnits()
  const navigate = useNavigate()
  const writes = useRegimenWrites()
  const [kind, setKind] = useState<RegimenKind | null>(regimenKinds.find((each) => each === params.get('kind')) ?? null)
  const [tankId, setTank] = useState(tanks.find(({ code }) => code === params.get('tank'))?.id ?? '')
  const [typed, setTyped] = useState<Record<string, string>>(() => ({ ...beginnings(dayInZone(nowMs(), timeZone)), ...(units.display.salinityUnit === 'ppt' ? {} : { lowPpt: '', downPpt: '' }) }))
  const [others, setOthers] = useState<readonly string[]>([''])
  const [problem, setProblem] = useState<unknown>(null)
  const errors = errorsByField(problem) ?? {}
  const tank = tanks.find(({ id }) => id === tankId)
  const value = (name: string): string => typed[name] ?? ''
  const number = (name: string): number => readNumber(value(name))
  const salinity = (name: string): number => units.read('salinity', value(name))
  const line = (name: string, label: string, unit?: string, hint?: ReactNode) => <TextField key={name} label={label} unit={unit} hint={hint} size="hand" inputMode="decimal" value={value(name)} problem={errors[name] ?? null} onChange={(next) => setTyped({ ...typed, [name]: next })} />
  const date = (name: string, label: string) => <TextField key={name} label={label} size="hand" type="date" value={value(name)} problem={errors[name] ?? null} onChange={(next) => setTyped({ ...typed, [name]: next })} />
  const chosen = (name: string, label: string, rows: readonly { id: string; name: string }[]) => (
    <ChoiceField label={label} size="hand" value={value(name)} problem={errors[name] ?? null} onChange={(next) => setTyped({ ...typed, [name]: next })}>
      <option value="">which</option>
      {rows.map((row) => (
        <option key={row.id} value={row.id}>
          {row.name}
        </option>
      ))}
    </ChoiceField>
  )
  const course = () => ({ fromOn: value('fromOn'), days: number('days'), pauseDays: number('pauseDays'), times: number('times'), onSignDays: number('onSignDays'), mostDays: number('mostDays') })
  const plans: Readonly<Record<RegimenKind, () => RegimenPlan>> = {
    ladder: () => ({ kind: 'ladder', productId: value('productId'), levelDays: number('levelDays') }),
    doses: () => ({ kind: 'doses', productId: value('productId'), ...course() }),
    'medicated feed': () => ({ kind: 'medicated feed', foodId: value('foodId'), ...course() }),
    transfer: () => ({ kind: 'transfer', tankIds: [tankId, ...others.filter((each) => each !== '')], transfers: number('transfers'), everyH: number('everyH'), lateH: number('lateH'), cleanDryH: number('cleanDryH') }),
    'low salinity': () => ({ kind: 'low salinity', startOn: value('startOn'), lowPpt: salinity('lowPpt'), housePpt: salinity('housePpt'), holdDays: number('holdDays'), fallPerDay: number('fallPerDay'), upPerDay: number('upPerDay'), downPpt: salinity('downPpt'), upPpt: salinity('upPpt'), evapLPerDay: units.read('volume', value('evapLPerDay')) }),
  }
  const courseFields = (
    <>
      {date('fromOn', 'First day')}
      {line('days', 'Days at a stretch')}
      {line('times', 'Times')}
      {line('pauseDays', 'Days between')}
      {line('onSignDays', 'Days after a confirmed sign', undefined, '0: none')}
      {line('mostDays', 'Most days at a stretch, by the label', undefined, '0: it says nothing')}
    </>
  )
  const fields: Readonly<Record<RegimenKind, ReactNode>> = {
    ladder: (
      <>
        {chosen('productId', 'Agent', products)}
        {line('levelDays', 'Days at level', undefined, 'where no clock of its fish says')}
      </>
    ),
    doses: (
      <>
        {chosen('productId', 'Agent', products)}
        {courseFields}
      </>
    ),
    'medicated feed': (
      <>
        {chosen('foodId', 'Food with the medicine in it', foods)}
        {courseFields}
      </>
    ),
    transfer: (
      <>
        {others.map((each, index) => (
          <ChoiceField key={index} label={index === 0 ? 'Then into' : 'then into'} size="hand" value={each} problem={errors[`tankIds[${index + 1}]`] ?? null} onChange={(id) => setOthers([...others.slice(0, index), id, ...others.slice(index + 1)])}>
            <option value="">which tank</option>
            <TankOptions tanks={tanks.filter(({ id }) => id !== tankId)} />
          </ChoiceField>
        ))}
        <Button size="hand" onClick={() => setOthers([...others, ''])}>
          + tank
        </Button>
        {line('transfers', 'Transfers')}
        {line('everyH', 'Hours between', 'h')}
        {line('lateH', 'Late at most', 'h')}
        {line('cleanDryH', 'To clean and dry', 'h')}
      </>
    ),
    'low salinity': (
      <>
        {date('startOn', 'First day')}
        {line('lowPpt', 'Low', units.label('salinity'))}
        {line('holdDays', 'Days low')}
        {line('housePpt', 'As the house keeps it', units.label('salinity'))}
        {line('fallPerDay', 'Down a day at most', 'ppt')}
        {line('upPerDay', 'Up a day at most', 'ppt')}
        {line('downPpt', 'Water added on the way down', units.label('salinity'))}
        {line('upPpt', 'Water made up for the way up', units.label('salinity'), 'saltier than the house')}
        {line('evapLPerDay', 'Evaporation a day', units.label('volume'))}
      </>
    ),
  }
  const begin = (): void => {
    if (kind) void writes.begin(tankId, value('note').trim() || null, plans[kind]()).then(({ id }) => navigate(`/regimens/${id}`), setProblem)
  }
  return (
    <>
      <Lead title="Begin a regimen" aside={<Link to="/regimens">Regimens</Link>}>
        {kind ? about[kind] : 'Which one?'}
      </Lead>
      <div className="entry-buttons" role="group" aria-label="Kind">
        {regimenKinds.map((each) => (
          <Button key={each} size="hand" aria-pressed={kind === each} onClick={() => setKind(each)}>
            {regimenTitles[each]}
          </Button>
        ))}
      </div>
      {kind && (
        <>
          <div className="regimen-fields">
            <ChoiceField label={kind === 'transfer' ? 'They stand in' : 'In the water of'} size="hand" value={tankId} problem={errors.tankId ?? errors['tankIds[0]'] ?? null} onChange={setTank}>
              <option value="">which tank</option>
              <TankOptions tanks={tanks} />
            </ChoiceField>
            {fields[kind]}
            <TextField label="Note" isOptional size="hand" maxLength={500} value={value('note')} problem={errors.note ?? null} onChange={(note) => setTyped({ ...typed, note })} />
          </div>
          <Button size="hand" look="act" disabled={!tank} onClick={begin}>
            <strong>begin</strong>
          </Button>
          <Problem>{problem && Object.keys(errors).length === 0 ? sentenceOf(problem) : null}</Problem>
          <p className="aside-word">The days, doses and levels are those of your product’s label and of a veterinarian; local law decides.</p>
        </>
      )}
    </>
  )
}
