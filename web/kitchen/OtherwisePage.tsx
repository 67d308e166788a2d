import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { mostOrderDays, orderKinds, type OrderFeeding, type OrderKind } from '../../core/kitchen/kitchen.schema'
import type { KitchenView } from '../../core/kitchen/kitchenView'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useRegister, useRoomView, useTankOf } from '../api/sharedReads'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Notice, Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { TankOptions } from '../ui/TankOptions'
import { useKitchen, useKitchenWrites } from './useKitchen'
import './kitchen.css'

const about: Readonly<Record<OrderKind, string>> = {
  conditioning: 'Thin or weak fish: more of it in many small meals, soaked. It shortens no hold.',
  medicated: 'One food with medicine in it, alone and in a bowl of its own. Dose and days are those of its label and of a veterinarian; local law decides.',
  'without food': 'Nothing for some days, such as before a move.',
  'every other day': 'Of a tank that rich food fouls. Fish that are conditioned or medicated are fed all the same.',
}

/** Fish that are fed otherwise than by weight and mouth: who, how, until when. */
export function OtherwisePage() {
  const { kitchen, problem } = useKitchen(null)
  if (!kitchen) return problem ? <Trouble problem={problem} back={{ to: '/kitchen', label: 'Kitchen' }} /> : <Waiting what="the kitchen" />
  return (
    <>
      <Lead title="Fed otherwise" aside={<Link to="/kitchen">Kitchen</Link>}>
        A lot is fed so wherever it stands, a tank whoever stands in it, until the day that is said or somebody ends it.
      </Lead>
      <Orders kitchen={kitchen} />
      <OrderForm />
    </>
  )
}

function Orders({ kitchen: { orders } }: { kitchen: KitchenView }) {
  const { endOrder } = useKitchenWrites()
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <>
      <RowSection title="Now" count={orders.length} nothing="All fish are fed as usual.">
        {orders.map(({ id, kind, whom, food, untilOn, by, note, regimenId }) => (
          <li key={id} className="record order-row">
            <span>
              <strong>{whom}</strong> {kind}
              {food && ` with ${food}`}
              <small>
                {untilOn === null ? 'until somebody ends it' : `until ${untilOn}`}, {by}
                {note && `: ${note}`}
              </small>
            </span>
            {regimenId === undefined ? <Button onClick={() => void endOrder(id).catch((error: unknown) => setProblem(sentenceOf(error)))}>As usual again</Button> : <ButtonLink to={`/regimens/${regimenId}`}>The regimen</ButtonLink>}
          </li>
        ))}
      </RowSection>
      <Problem>{problem}</Problem>
    </>
  )
}

function OrderForm() {
  const [search] = useSearchParams()
  const { room } = useRoomView()
  const { rows: foods } = useRegister('foods')
  const { order } = useKitchenWrites()
  const [kind, setKind] = useState<OrderKind>('conditioning')
  const [tankId, setTankId] = useState<string | null>(null)
  const [typed, setTyped] = useState({ lotId: '', foodId: '', days: '', note: '' })
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [refused, setRefused] = useState<string | null>(null)
  const tanks = room?.tanks.filter(({ fish }) => fish > 0) ?? []
  const chosen = tanks.find((tank) => (tankId === null ? tank.code === search.get('tank') : tank.id === tankId))
  const { tank } = useTankOf(chosen?.code ?? null)
  const isOfTank = kind === 'every other day'
  const most = mostOrderDays[kind]
  const send = (): void => {
    setErrors({})
    setRefused(null)
    const days = typed.days.trim() === '' ? null : Number(typed.days)
    if (days !== null && !Number.isInteger(days)) return setErrors({ days: 'Days must be a whole number' })
    const body: OrderFeeding = { kind, lotId: isOfTank ? null : typed.lotId || null, tankId: isOfTank ? (chosen?.id ?? null) : null, foodId: kind === 'medicated' ? typed.foodId || null : null, days, note: typed.note.trim() || null }
    void order(body).then(
      () => setTyped({ lotId: '', foodId: '', days: '', note: '' }),
      (error: unknown) => {
        const said = errorsByField(error) ?? {}
        setErrors(said)
        if (Object.keys(said).length === 0) setRefused(sentenceOf(error))
      },
    )
  }
  return (
    <section className="row-section">
      <h2>Feed fish otherwise</h2>
      <form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), send())}>
        <ChoiceField label="How" value={kind} hint={about[kind]} problem={errors.kind} onChange={(value) => setKind(value as OrderKind)}>
          {orderKinds.map((each) => (
            <option key={each} value={each}>
              {each}
            </option>
          ))}
        </ChoiceField>
        <ChoiceField label="Tank" value={chosen?.id ?? ''} problem={errors.tankId} onChange={(id) => (setTankId(id), setTyped({ ...typed, lotId: '' }))}>
          <option value="">choose a tank</option>
          <TankOptions tanks={tanks} />
        </ChoiceField>
        {!isOfTank && (
          <ChoiceField label="Lot" value={typed.lotId} problem={errors.lotId} onChange={(lotId) => setTyped({ ...typed, lotId })}>
            <option value="">choose a lot</option>
            {tank?.stock.map(({ lotId, lotCode, quantity, species }) => (
              <option key={lotId} value={lotId}>
                {lotCode}: {quantity} {species}
              </option>
            ))}
          </ChoiceField>
        )}
        {kind === 'medicated' && (
          <ChoiceField label="Food with the medicine in it" value={typed.foodId} problem={errors.foodId} onChange={(foodId) => setTyped({ ...typed, foodId })}>
            <option value="">choose a food</option>
            {foods?.filter(({ retiredAtMs }) => retiredAtMs === null).map(({ id, values }) => (
              <option key={id} value={id}>
                {String(values.name)}
              </option>
            ))}
          </ChoiceField>
        )}
        <TextField label="For how many days" hint={most === null ? 'left out: until somebody ends it' : `1 to ${most}, today included`} inputMode="numeric" value={typed.days} problem={errors.days} onChange={(days) => setTyped({ ...typed, days })} />
        <TextField label="Note" isOptional value={typed.note} problem={errors.note} onChange={(note) => setTyped({ ...typed, note })} />
        {kind === 'medicated' && <Notice level="watch">The product’s label and a veterinarian decide on dose and days; local law decides what may be used. Gloves.</Notice>}
        <Problem>{refused}</Problem>
        <Button type="submit" look="act" size="hand">
          Feed so from today
        </Button>
      </form>
    </section>
  )
}
