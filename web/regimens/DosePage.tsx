import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useRoomView } from '../api/sharedReads'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { TankOptions } from '../ui/TankOptions'
import { withParam } from '../ui/withParam'
import { levelWords } from './levelChart'
import { InTheWater } from './InTheWater'
import { Offer } from './Offer'
import { useDoseOffer, useRegimens, useRegimenWrites } from './useRegimens'
import './regimens.css'

/** One dose into the water of a tank, outside of any regimen. */
export function DosePage() {
  const { room } = useRoomView()
  const { regimens, problem } = useRegimens()
  if (!regimens || !room) return problem ? <Trouble problem={problem} back={{ to: '/regimens', label: 'Regimens' }} /> : <Waiting what="the agents" />
  return <Dose tanks={room.tanks} regimens={regimens} />
}

type Room = NonNullable<ReturnType<typeof useRoomView>['room']>
type Regimens = NonNullable<ReturnType<typeof useRegimens>['regimens']>

function Dose({ tanks, regimens: { products, waters, running } }: { tanks: Room['tanks']; regimens: Regimens }) {
  const [params, setParams] = useSearchParams()
  const writes = useRegimenWrites()
  const [isDone, setDone] = useState(false)
  const tank = tanks.find(({ code }) => code === params.get('tank'))
  const product = products.find(({ id }) => id === params.get('product'))
  const water = waters.find(({ tankCodes }) => tankCodes.includes(tank?.code ?? ''))
  const ladder = running.find(({ kind, tankCode }) => kind === 'ladder' && tank && (tankCode === tank.code || water?.tankCodes.includes(tankCode)))
  const { offer, problem } = useDoseOffer(tank && product ? { code: tank.code, productId: product.id } : null)
  const choose = (name: string, value: string): void => (setDone(false), setParams(withParam(params, name, value || null), { replace: true }))
  return (
    <>
      <Lead title="Dose a water" aside={<Link to="/regimens">Regimens</Link>}>
        The dose goes to all of the water, by your label and what is in it now.
      </Lead>
      <div className="field-row">
        <ChoiceField label="Into the water of" size="hand" value={tank?.id ?? ''} onChange={(id) => choose('tank', tanks.find((each) => each.id === id)?.code ?? '')}>
          <option value="">which tank</option>
          <TankOptions tanks={tanks} />
        </ChoiceField>
        <ChoiceField label="Agent" size="hand" value={product?.id ?? ''} onChange={(id) => choose('product', id)}>
          <option value="">which agent</option>
          {products.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </ChoiceField>
      </div>
      {product && product.missing.length > 0 && (
        <p className="aside-word">
          Its label lacks {product.missing.join(', ')}. <Link to="/setup/agents">Setup, Agents</Link>
        </p>
      )}
      <Problem>{problem ? 'It cannot be worked out now.' : null}</Problem>
      {isDone && <p role="status">Written down.</p>}
      {offer && !isDone && (
        <>
          {offer.level && <p>{levelWords({ offer, loMgL: 0, hiMgL: offer.product.hiMgL ?? Infinity } as Parameters<typeof levelWords>[0])}</p>}
          <Offer key={`${offer.tankId} ${offer.product.id}`} offer={offer} regimenId={null} writes={writes} onGiven={() => setDone(true)} />
        </>
      )}
      {ladder && (
        <p className="aside-word">
          <Link to={`/regimens/${ladder.id}`}>{ladder.title}</Link> runs in this water: it says what is next.
        </p>
      )}
      {tank && <InTheWater key={tank.id} tankId={tank.id} water={water} writes={writes} />}
    </>
  )
}
