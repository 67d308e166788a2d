import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { VesselView } from '../../core/moves/moveView'
import { kindName } from '../../core/pools/poolsOf'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useVessels } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { formatSpan } from '../ui/format'
import { HandScreen } from '../ui/HandScreen'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { Notice, Problem } from '../ui/Notice'
import { Refused, type AgainstRule } from '../ui/RuleRefusal'
import { useFormat } from '../ui/useFormat'
import { PlacePicker } from './PlacePicker'
import { MoveCheckLines } from './MoveCheckLines'
import { readStand, standWord, useMoveCheck, useMoveChoices, useMoveWrites } from './useMoves'
import './moves.css'

/** A bucket or a box: who stands in it, until when it bears them, and where they go next. */
export function VesselPage() {
  const { vesselId = '' } = useParams()
  const { vessels, problem } = useVessels()
  const vessel = vessels?.find(({ id }) => id === vesselId)
  if (!vessels) return problem ? <Trouble problem={problem} back={{ to: '/bench', label: 'The bench' }} /> : <Waiting what="the vessel" />
  if (!vessel) return <Nothing>There is no such bucket or box. A lead keeps the list under Setup, Buckets and boxes.</Nothing>
  return <Vessel key={vessel.id} vessel={vessel} />
}

function Vessel({ vessel }: { vessel: VesselView }) {
  const { id, name, tank, fish, limit } = vessel
  const [to, setTo] = useState<string | null>(null)
  const [refused, setRefused] = useState<unknown>(null)
  const navigate = useNavigate()
  const writes = useMoveWrites()
  const from = standWord({ kind: 'vessel', id })
  const all = fish.map(({ speciesId, strain, quantity }) => ({ speciesId, strain, lotIds: [], quantity }))
  const place = to ?? (tank ? standWord({ kind: 'tank', id: tank.id }) : null)
  const choices = useMoveChoices(from, all)
  const check = useMoveCheck({ from, to: place, fish: all, toolSetId: null, waterGoesAlong: false, planId: null })
  const target = choices?.find((each) => standWord(each) === place)
  const back = tank ? { to: `/room/${tank.code}`, label: `back to ${tank.code}` } : { to: '/bench', label: 'the bench' }
  const send = (against: AgainstRule | null): void => {
    const stand = readStand(place)
    if (!stand) return
    void writes.move({ from: { kind: 'vessel', id }, to: stand, fish: all, toolSetId: null, waterGoesAlong: false, note: null, ...(against ?? {}) }).then(() => navigate(stand.kind === 'tank' && target ? `/room/${target.code}` : '/bench'), setRefused)
  }
  return (
    <HandScreen className="move vessel-page" title={name} back={back}>
      {limit && <Clock vessel={vessel} limit={limit} />}
      {fish.length === 0 && <Nothing>No fish stand in it. They come by a move from a tank.</Nothing>}
      <ul className="stock-list">
        {fish.map((each) => (
          <InVessel key={`${each.speciesId} ${each.strain ?? ''}`} name={kindName(each)} quantity={each.quantity} onDied={() => writes.loseInVessel(id, each, 1, 'found dead')} />
        ))}
      </ul>
      {fish.length > 0 && (
        <>
          <PlacePicker choices={choices} chosen={place} onChoose={setTo} />
          {check && <MoveCheckLines check={check} />}
          <Refused problem={refused} mayRescue onAgain={send} />
          <div className="thumb-bar">
            <Button look="act" size="hand" disabled={place === null} onClick={() => send(null)}>
              <strong>{target ? `All into ${target.code}` : 'Where to?'}</strong>
              <small>{fish.map((each) => `${each.quantity} ${kindName(each)}`).join(', ')}</small>
            </Button>
          </div>
        </>
      )}
    </HandScreen>
  )
}

/** Until when a vessel bears its fish, by the server's clock. */
function Clock({ vessel: { sinceMs, tank, kind }, limit }: { vessel: VesselView; limit: NonNullable<VesselView['limit']> }) {
  const format = useFormat()
  const left = limit.actAtMs - nowMs()
  const level = left <= 0 ? 'harm' : nowMs() >= limit.watchAtMs ? 'watch' : undefined
  return (
    <Notice role="status" {...(level ? { level } : {})}>
      In it since {sinceMs === null ? '…' : format.moment(sinceMs)}
      {tank && (
        <>
          , {kind === 'box' ? 'hangs in' : 'water of'} <Link to={`/room/${tank.code}`}>{tank.code}</Link>
        </>
      )}
      . {left <= 0 ? `It bears them no longer (${limit.binds}): back into a tank, or another vessel.` : `It bears them ${formatSpan(left)} more (${limit.binds}).`}
    </Notice>
  )
}

function InVessel({ name, quantity, onDied }: { name: string; quantity: number; onDied: () => Promise<unknown> }) {
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <li className="stock">
      <p className="lot-line">
        <strong className="lot-count">{quantity}</strong> <strong>{name}</strong>
      </p>
      <Button size="hand" onClick={() => void onDied().then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))}>
        1 died
      </Button>
      <Problem>{problem}</Problem>
    </li>
  )
}
