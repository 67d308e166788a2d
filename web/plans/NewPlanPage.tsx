import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { MovedFish } from '../../core/moves/moves.schema'
import { makePlanSchema, type MakePlan } from '../../core/plans/plans.schema'
import { kindName, poolsOf } from '../../core/pools/poolsOf'
import type { TankSummary, TankView } from '../../core/room/roomView'
import { errorsByField } from '../api/ApiProblem'
import { useRoomView, useTankOf } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { HandScreen } from '../ui/HandScreen'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { fishOfAddress } from '../ui/fishOfAddress'
import { Refused, ruleRefusalOf } from '../ui/RuleRefusal'
import { schemaErrors } from '../ui/schemaErrors'
import { TankOptions } from '../ui/TankOptions'
import { useUnits } from '../ui/useUnits'
import { FactPicker } from './FactPicker'
import { toFact, usePlanDraft } from './planDraft'
import { usePlanChoices, usePlans, usePlanWrites } from './usePlans'
import './plans.css'

/** Fish are to go somewhere, but not yet: what it waits for. */
export function NewPlanPage() {
  const draft = usePlanDraft()
  const { room, problem } = useRoomView()
  const { tank, problem: ofTank } = useTankOf(draft.search.get('from'))
  const fish = fishOfAddress(draft.search)
  const to = room?.tanks.find(({ id }) => id === draft.search.get('to'))
  if (draft.search.get('from') === null || fish.length === 0) return <Nothing>Choose the fish and the tank first: on the page of the tank they stand in, under “move”.</Nothing>
  if (!room || !tank) return problem || ofTank ? <Trouble problem={problem ?? ofTank} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tanks" />
  if (!to) return <WhereTo from={tank} tanks={room.tanks} onChoose={draft.goTo} />
  return <NewPlan from={tank} to={to} tanks={room.tanks} fish={fish} draft={draft} />
}

/** A plan goes from tank to tank. */
function WhereTo({ from, tanks, onChoose }: { from: TankView; tanks: readonly TankSummary[]; onChoose: (tankId: string) => void }) {
  return (
    <HandScreen className="plan-form" title={`From ${from.code}, later`} back={{ to: '/plans', label: 'back to the plans' }}>
      <ChoiceField label="Where to" value="" onChange={onChoose}>
        <option value="">which tank</option>
        <TankOptions tanks={tanks.filter(({ id }) => id !== from.id)} />
      </ChoiceField>
    </HandScreen>
  )
}

function NewPlan({ from, to, tanks, fish, draft }: { from: TankView; to: TankSummary; tanks: readonly TankSummary[]; fish: MovedFish[]; draft: ReturnType<typeof usePlanDraft> }) {
  const { facts, setFacts, join, setJoin, takes, setTakes } = draft
  const [untilOn, setUntil] = useState('')
  const [note, setNote] = useState('')
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({})
  const [refused, setRefused] = useState<unknown>(null)
  const [isBusy, setBusy] = useState(false)
  const navigate = useNavigate()
  const choices = usePlanChoices()
  const writes = usePlanWrites()
  const units = useUnits()
  const { plans = [] } = usePlans()
  const names = [...poolsOf(from.stock).map((pool) => ({ ...pool, name: kindName(pool) })), ...plans.flatMap((plan) => plan.fish)]
  const words = fish.map((one) => `${one.quantity} ${names.find((each) => each.speciesId === one.speciesId && each.strain === one.strain)?.name ?? 'fish'}`).join(', ')
  const problems = { ...wrong, ...errorsByField(refused) }
  const isBeside = Object.keys(problems).some((path) => path === 'untilOn' || path.startsWith('facts[')) && ruleRefusalOf(refused) === null
  const save = (override: string | null): void => {
    const plan: MakePlan = { fromTankId: from.id, toTankId: to.id, fish, join, facts: facts.map(toFact(units)), takes, untilOn: untilOn || null, note: note.trim() || null, ...(override === null ? {} : { override }) }
    // What is no number is lost on the way, and would be read as left out.
    const misread = Object.entries(schemaErrors(makePlanSchema, plan)).filter(([path]) => path.startsWith('facts['))
    setWrong(Object.fromEntries(misread))
    if (misread.length > 0) return
    setBusy(true)
    void writes
      .make(plan)
      .then(({ number }) => navigate(`/plans#plan-${number}`, { replace: true }))
      .catch(setRefused)
      .finally(() => setBusy(false))
  }
  return (
    <HandScreen className="plan-form" title={`${from.code} to ${to.code}, later`} back={{ to: `/room/${from.code}/move?fish=${encodeURIComponent(JSON.stringify(fish))}&to=tank:${to.id}`, label: 'back to the move' }}>
      <p className="plan-fish">{words} wait for</p>
      <FactPicker facts={facts} onChange={(next) => (setRefused(null), setWrong({}), setFacts(next))} problems={problems} choices={choices} tanks={tanks} to={to} />
      {facts.length > 1 && (
        <div className="entry-buttons" role="group" aria-label="All or any">
          <Button size="hand" aria-pressed={join === 'all'} onClick={() => setJoin('all')}>
            all of it
          </Button>
          <Button size="hand" aria-pressed={join === 'any'} onClick={() => setJoin('any')}>
            any of it
          </Button>
        </div>
      )}
      <h3>{to.code} until then</h3>
      <div className="entry-buttons" role="group" aria-label="What it reserves">
        <Button size="hand" aria-pressed={takes === 'share'} onClick={() => setTakes('share')}>
          room for them
        </Button>
        <Button size="hand" aria-pressed={takes === 'whole'} onClick={() => setTakes('whole')}>
          the whole tank
        </Button>
      </div>
      <div className="plan-fact">
        <TextField label="Forget it after" type="date" isOptional value={untilOn} problem={problems.untilOn} onChange={setUntil} />
        <TextField label="Note" isOptional maxLength={500} value={note} onChange={setNote} />
      </div>
      {refused !== null && !isBeside && <Refused problem={refused} onAgain={(against) => save(against?.override ?? null)} />}
      <div className="thumb-bar">
        <Button look="act" size="hand" disabled={isBusy || facts.length === 0} onClick={() => save(null)}>
          <strong>{facts.length === 0 ? 'What does it wait for?' : 'Keep the plan'}</strong>
          <small>{facts.length === 0 ? ' ' : `${words} to ${to.code}`}</small>
        </Button>
      </div>
    </HandScreen>
  )
}
