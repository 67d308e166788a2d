import { useEffect, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import type { MovedFish } from '../../core/moves/moves.schema'
import { kindName, poolsOf, type Pool } from '../../core/pools/poolsOf'
import type { TankView } from '../../core/room/roomView'
import { errorsByField } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { HandScreen } from '../ui/HandScreen'
import { Trouble, Waiting } from '../ui/PageState'
import { Refused, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { CatchCards } from './CatchCards'
import { FishPicker, type Picks } from './FishPicker'
import { MoveCheckLines } from './MoveCheckLines'
import { NetPicker } from './NetPicker'
import { PlacePicker } from './PlacePicker'
import { readStand, standWord, useCatch, useMoveCheck, useMoveChoices, useMoveWrites, useTankOf, useToolSets } from './useMoves'
import './moves.css'

/** Fish of a tank go somewhere else: which, where to, with what, and what speaks against it, before anything is netted. */
export function MovePage() {
  const { code = '' } = useParams()
  const { tank, problem } = useTankOf(code)
  if (!tank) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tank" />
  return <Move key={tank.id} tank={tank} />
}

/** What an address says already: the kind that was pressed, fish and place when they were chosen on the racks. */
function picksOf(pools: readonly Pool[], search: URLSearchParams): Picks {
  try {
    const said = JSON.parse(search.get('fish') ?? '[]') as MovedFish[]
    return Object.fromEntries(said.flatMap((fish) => pools.filter((pool) => pool.speciesId === fish.speciesId && pool.strain === fish.strain).map((pool) => [pool.key, fish])))
  } catch {
    return {}
  }
}

function Move({ tank }: { tank: TankView }) {
  const pools = poolsOf(tank.stock)
  const [search, setSearch] = useSearchParams()
  const [picks, setPicks] = useState<Picks>(() => picksOf(pools, search))
  const only = pools.length === 1 ? pools[0]?.key : undefined
  const [open, setOpen] = useState<string | null>(() => (Object.keys(picksOf(pools, search)).length > 0 ? null : (search.get('kind') ?? only ?? null)))
  const [to, setTo] = useState<string | null>(() => search.get('to'))
  const [toolSetId, setToolSetId] = useState<string | null>(null)
  const [waterGoesAlong, setWater] = useState(false)
  const [refused, setRefused] = useState<unknown>(null)
  const [isBusy, setBusy] = useState(false)
  const navigate = useNavigate()
  const writes = useMoveWrites()
  const tools = useToolSets()

  const fish = Object.values(picks)
  const said = fish.length === 0 && to === null ? '' : new URLSearchParams({ ...(fish.length > 0 ? { fish: JSON.stringify(fish) } : {}), ...(to === null ? {} : { to }) }).toString()
  // What was said survives a reload, and a look at something else.
  useEffect(() => {
    if (said !== '') setSearch(said, { replace: true })
  }, [said, setSearch])
  const from = standWord({ kind: 'tank', id: tank.id })
  const check = useMoveCheck({ from, to, fish, toolSetId, waterGoesAlong })
  const choices = useMoveChoices(from, fish)
  const isChosen = fish.some(({ chosen = [] }) => chosen.length > 0)
  const cards = useCatch(tank.id, fish, isChosen)
  const target = choices?.find((each) => standWord(each) === to)
  const change = <T,>(set: (value: T) => void) => (value: T): void => (setRefused(null), set(value))
  const pick = (key: string, one: MovedFish | null): void => setPicks(({ [key]: _, ...others }) => (one && one.quantity > 0 ? { ...others, [key]: one } : others))
  const words = fish.map((one) => `${one.quantity} ${nameOf(pools, one)}`).join(', ')

  const send = (against: AgainstRule | null): void => {
    const place = readStand(to)
    if (!place) return
    setBusy(true)
    void writes
      .move({ from: { kind: 'tank', id: tank.id }, to: place, fish, toolSetId, waterGoesAlong, note: null, ...(against ?? {}) })
      .then(({ movementIds }) => navigate(`/room/${tank.code}`, { state: { done: { words: `${words} to ${target?.code ?? ''}`, movementId: movementIds[0] ?? '', isWhole: true } } }))
      .catch(setRefused)
      .finally(() => setBusy(false))
  }
  const byField = errorsByField(refused) ?? {}
  const problems = Object.fromEntries(Object.keys(picks).flatMap((key, index) => (byField[`fish[${index}].quantity`] ? [[key, byField[`fish[${index}].quantity`] ?? '']] : [])))
  const isElsewhere = refused !== null && (Object.keys(problems).length === 0 || ruleRefusalOf(refused) !== null)
  return (
    <HandScreen className="move" title={`Move from ${tank.code}`} back={{ to: `/room/${tank.code}`, label: `back to ${tank.code}` }}>
      <div className="move-parts">
        <div>
          <FishPicker pools={pools} picks={picks} open={open} onOpen={setOpen} onPick={(key, one) => change<[string, MovedFish | null]>(([k, f]) => pick(k, f))([key, one])} problems={problems} />
          {fish.length > 0 && <PlacePicker choices={choices} chosen={to} onChoose={change(setTo)} rackTo={`/room?from=${tank.code}&fish=${encodeURIComponent(JSON.stringify(fish))}`} />}
        </div>
        {fish.length > 0 && to !== null && (
          <div>
            {check && <MoveCheckLines check={check} />}
            {check?.needsIntroduction && (
              <Link className="btn btn-plain" to={`/bench/introductions/new?from=${tank.code}&to=${target?.code ?? ''}&fish=${encodeURIComponent(JSON.stringify(fish))}`}>
                make an introduction plan
              </Link>
            )}
            <NetPicker tools={tools} chosen={toolSetId} onChoose={change(setToolSetId)} waterGoesAlong={waterGoesAlong} onWater={change(setWater)} />
            <CatchCards cards={cards} onLift={() => void writes.lift(tank.id)} onUndo={(id) => void writes.undoLift(id)} />
          </div>
        )}
      </div>
      {isElsewhere && <Refused problem={refused} mayRescue onAgain={send} />}
      <div className="thumb-bar">
        <Button look="act" size="hand" disabled={isBusy || fish.length === 0 || to === null || check?.verdict === 'impossible'} onClick={() => send(null)}>
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
