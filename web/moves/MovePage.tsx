import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { MovedFish } from '../../core/moves/moves.schema'
import { kindName, poolsOf, type Pool } from '../../core/pools/poolsOf'
import type { TankView } from '../../core/room/roomView'
import { errorsByField } from '../api/ApiProblem'
import { useTankOf, useToolSets } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { HandScreen } from '../ui/HandScreen'
import { Trouble, Waiting } from '../ui/PageState'
import { Refused, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { useBack } from '../ui/useBack'
import { CatchCards } from './CatchCards'
import { FishPicker } from './FishPicker'
import { MoveCheckLines } from './MoveCheckLines'
import { NetPicker } from './NetPicker'
import { PlacePicker } from './PlacePicker'
import { useMoveDraft } from './useMoveDraft'
import { readStand, standWord, useCatch, useMoveCheck, useMoveChoices, useMoveWrites } from './useMoves'
import './moves.css'

/** Fish of a tank go somewhere else: which, where to, with what, and what speaks against it, before anything is netted. */
export function MovePage() {
  const { code = '' } = useParams()
  const { tank, problem } = useTankOf(code)
  if (!tank) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tank" />
  return <Move key={tank.id} tank={tank} />
}

function Move({ tank }: { tank: TankView }) {
  const pools = poolsOf(tank.stock)
  const [refused, setRefused] = useState<unknown>(null)
  const [isBusy, setBusy] = useState(false)
  const { picks, fish, open, setOpen, to, toolSetId, waterGoesAlong, planId, setTo, setToolSetId, setWater, pick } = useMoveDraft(pools, () => setRefused(null))
  const navigate = useNavigate()
  const back = useBack(`/room/${tank.code}`)
  const writes = useMoveWrites()
  const { tools = [] } = useToolSets()
  const from = standWord({ kind: 'tank', id: tank.id })
  const check = useMoveCheck({ from, to, fish, toolSetId, waterGoesAlong, planId })
  const choices = useMoveChoices(from, fish, planId)
  const isChosen = fish.some(({ chosen = [] }) => chosen.length > 0)
  const cards = useCatch(tank.id, fish, isChosen)
  const target = choices?.find((each) => standWord(each) === to)
  const words = fish.map((one) => `${one.quantity} ${nameOf(pools, one)}`).join(', ')

  const send = (against: AgainstRule | null): void => {
    const place = readStand(to)
    if (!place) return
    setBusy(true)
    void writes
      .move({ from: { kind: 'tank', id: tank.id }, to: place, fish, toolSetId, waterGoesAlong, note: null, ...(planId === null ? {} : { planId }), ...(against ?? {}) })
      .then(({ movementIds }) => navigate(back, { state: { done: { words: `${words} to ${target?.code ?? ''}`, movementId: movementIds[0] ?? '', isWhole: true } } }))
      .catch(setRefused)
      .finally(() => setBusy(false))
  }
  const byField = errorsByField(refused) ?? {}
  const problems = Object.fromEntries(Object.keys(picks).flatMap((key, index) => (byField[`fish[${index}].quantity`] ? [[key, byField[`fish[${index}].quantity`] ?? '']] : [])))
  const isElsewhere = refused !== null && (Object.keys(problems).length === 0 || ruleRefusalOf(refused) !== null)
  return (
    <HandScreen className="move" title={`Move from ${tank.code}`} back={{ to: back, label: `back to ${tank.code}` }}>
      <div className="move-parts">
        <div>
          <FishPicker pools={pools} picks={picks} open={open} onOpen={setOpen} onPick={pick} problems={problems} />
          {fish.length > 0 && <PlacePicker choices={choices} chosen={to} onChoose={setTo} rackTo={`/room?from=${tank.code}&fish=${encodeURIComponent(JSON.stringify(fish))}`} />}
        </div>
        {fish.length > 0 && to !== null && (
          <div>
            {check && <MoveCheckLines check={check} />}
            {check?.needsIntroduction && (
              <Link className="btn btn-plain" to={`/bench/introductions/new?from=${tank.code}&to=${target?.code ?? ''}&fish=${encodeURIComponent(JSON.stringify(fish))}`}>
                make an introduction plan
              </Link>
            )}
            {planId === null && target?.kind === 'tank' && (
              <Link className="btn btn-quiet" to={`/plans/new?from=${tank.code}&to=${target.id}&fish=${encodeURIComponent(JSON.stringify(fish))}`}>
                not now: make a plan
              </Link>
            )}
            <NetPicker tools={tools} chosen={toolSetId} onChoose={setToolSetId} waterGoesAlong={waterGoesAlong} onWater={setWater} />
            <CatchCards cards={cards} onLift={() => void writes.lift(tank.id)} onUndo={(id) => void writes.undoLift(id)} />
          </div>
        )}
      </div>
      {isElsewhere && <Refused problem={refused} mayRescue onAgain={send} />}
      <div className="thumb-bar">
        <Button look="act" size="hand" disabled={isBusy || fish.length === 0 || !target || check?.verdict === 'impossible'} onClick={() => send(null)}>
          <strong>{fish.length === 0 ? 'How many?' : to === null ? 'Where to?' : `Move ${words}`}</strong>
          <small>{fish.length > 0 && to !== null ? `${tank.code} to ${target?.code ?? '…'}` : ' '}</small>
        </Button>
      </div>
    </HandScreen>
  )
}

const nameOf = (pools: readonly Pool[], { speciesId, strain }: MovedFish): string => {
  const pool = pools.find((each) => each.speciesId === speciesId && each.strain === strain)
  return pool ? kindName(pool) : 'fish'
}
