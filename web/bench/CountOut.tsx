import { useState } from 'react'
import { Link } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { RunView } from '../../core/bench/benchView'
import { differenceCauses, type DifferenceCause } from '../../core/bench/bench.schema'
import { looksAfter, type LookAfter } from '../../core/bench/expectedCourse'
import { lossCauses, type LossCause } from '../../core/ledger/movement'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Notice } from '../ui/Notice'
import { Refused, type AgainstRule } from '../ui/RuleRefusal'
import { Stepper } from '../ui/Stepper'
import { TankOptions } from '../ui/TankOptions'
import { runTo } from './laneWords'
import { useRunWrites } from './useBench'

interface Counted {
  alive: number
  dead: number
  /** Why the count and the books differ; null while the rest simply stays. */
  difference: DifferenceCause | null
}

/**
 * Fish counted out of their vessel into the tank: the count is set to what the books say, so that a right one takes one
 * touch. Whoever is not counted stays; only who says so writes fish off, with a cause.
 */
export function CountOut({ run, stepIndex }: { run: RunView; stepIndex: number }) {
  const { countOut } = useRunWrites(run.id)
  const { room } = useRoomView()
  const [counts, setCounts] = useState(new Map<string, Counted>())
  const [look, setLook] = useState<LookAfter>('as expected')
  const [cause, setCause] = useState<LossCause>('found dead')
  const [tankId, setTankId] = useState('')
  const [problem, setProblem] = useState<unknown>(null)
  const [isSending, setSending] = useState(false)
  // Fish of one kind that stand in one vessel are counted together, whichever lots they are of.
  const kinds = run.inVessel > 0 ? byKind(run.standing) : run.standing.map((lot) => ({ ...lot, isOfKind: false }))
  const at = (lotId: string, quantity: number): Counted => counts.get(lotId) ?? { alive: quantity, dead: 0, difference: null }
  const sum = (of: (lot: Counted, quantity: number) => number): number => kinds.reduce((total, { lotId, quantity }) => total + of(at(lotId, quantity), quantity), 0)
  const [alive, dead] = [sum((lot) => lot.alive), sum((lot) => lot.dead)]
  const stay = sum((lot, quantity) => (lot.difference === null ? Math.max(0, restOf(lot, quantity)) : 0))
  const send = async (against: AgainstRule | null): Promise<void> => {
    setSending(true)
    setProblem(null)
    const counted = kinds.map(({ lotId, quantity, isOfKind }) => {
      const lot = at(lotId, quantity)
      return { lotId, ...(isOfKind ? { isOfKind } : {}), alive: lot.alive, dead: lot.dead, missing: lot.difference === null ? 0 : Math.max(0, restOf(lot, quantity)), difference: lot.difference }
    })
    // Once counted, no second press: the screen begins this anew when it shows what is left.
    await countOut({ stepIndex, counts: counted, tankId: tankId || null, look, cause, note: null, ...(against ?? {}) }).catch((error: unknown) => {
      setProblem(error)
      setSending(false)
    })
  }
  if (run.standing.length === 0)
    return (
      <Notice>
        No fish of this run stand in bags or vessel any more. They may have been placed from <Link to={run.crate ? `/crates/${run.crate.id}/unpack` : '/room'}>Unpack</Link>; end the run below.
      </Notice>
    )
  const to = room?.tanks.find(({ id }) => id === tankId)?.code ?? runTo(run)
  return (
    <section className="count-out" aria-label="Count out">
      {kinds.map((lot) => (
        <CountLot key={lot.lotId} lot={lot} value={at(lot.lotId, lot.quantity)} where={run.inVessel > 0 ? 'in the vessel' : 'in their bags'} onChange={(value) => setCounts(new Map(counts).set(lot.lotId, value))} />
      ))}
      <div className="look-choice" role="group" aria-label="How they look">
        {looksAfter.map((each) => (
          <Button key={each} size="hand" aria-pressed={look === each} onClick={() => setLook(each)}>
            {each}
          </Button>
        ))}
      </div>
      <div className="readings">
        {dead > 0 && (
          <ChoiceField label="cause" size="hand" value={cause} onChange={(each) => setCause(each as LossCause)}>
            {lossCauses.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </ChoiceField>
        )}
        {run.tank && (
          <ChoiceField label="into" size="hand" value={tankId} onChange={setTankId}>
            <option value="">{run.tank.code}, as planned</option>
            <TankOptions tanks={(room?.tanks ?? []).filter(({ id }) => id !== run.tank?.id)} />
          </ChoiceField>
        )}
      </div>
      <Refused problem={problem} mayRescue onAgain={(against) => void send(against)} />
      <div className="thumb-bar">
        <Button look="act" size="hand" disabled={isSending || alive + dead + sum((lot, quantity) => (lot.difference === null ? 0 : Math.abs(restOf(lot, quantity)))) === 0} onClick={() => void send(null)}>
          <strong>
            {alive} into {to}
          </strong>
          <small>{[dead > 0 ? `${dead} dead` : '', stay > 0 ? `${stay} stay ${run.inVessel > 0 ? 'in the vessel' : 'in their bags'}` : '', dead + stay === 0 ? look : ''].filter(Boolean).join(', ')}</small>
        </Button>
      </div>
    </section>
  )
}

/** Fish of the books that were not counted; below zero where more were. */
const restOf = ({ alive, dead }: Counted, quantity: number): number => quantity - alive - dead

type StandingKind = RunView['standing'][number] & { isOfKind: boolean }

/** Lots of one species together, under the name of the first of them. */
const byKind = (standing: RunView['standing']): StandingKind[] =>
  [...groupBy(standing, ({ species }) => species)].flatMap(([, lots]): StandingKind[] => (lots[0] ? [{ ...lots[0], quantity: lots.reduce((sum, { quantity }) => sum + quantity, 0), isOfKind: lots.length > 1 }] : []))

/** The fish of one kind, or of one lot: alive, dead, and what became of a difference. */
function CountLot({ lot: { species, lotCode, quantity, isOfKind }, value, where, onChange }: { lot: StandingKind; value: Counted; where: string; onChange: (value: Counted) => void }) {
  const rest = restOf(value, quantity)
  return (
    <div className="count-lot">
      <p>
        <strong>{species}</strong> <small>{isOfKind ? '' : `lot ${lotCode}, `}{quantity} in the books</small>
      </p>
      <Stepper label={`alive ${species}`} value={value.alive} max={20_000} onChange={(alive) => onChange({ ...value, alive })} />
      <Button size="hand" className={value.dead > 0 ? 'is-dead' : ''} aria-label={`${value.dead} dead ${species}, one more`} onClick={() => onChange({ ...value, alive: Math.max(0, value.alive - 1), dead: value.dead + 1 })}>
        {value.dead} dead
      </Button>
      {value.dead > 0 && (
        <Button look="quiet" onClick={() => onChange({ ...value, alive: value.alive + 1, dead: value.dead - 1 })}>
          one less
        </Button>
      )}
      {rest > 0 && (
        <div className="difference" role="group" aria-label={`The other ${rest} ${species}`}>
          <Button size="hand" aria-pressed={value.difference === null} onClick={() => onChange({ ...value, difference: null })}>
            <strong>{rest} stay</strong>
            <small>{where}</small>
          </Button>
          <ChoiceField label={<>or they are not there<span className="visually-hidden">: what became of the other {rest} {species}</span></>} size="hand" value={value.difference ?? ''} onChange={(difference) => onChange({ ...value, difference: (difference || null) as DifferenceCause | null })}>
            <option value="">say what became of them</option>
            {differenceCauses.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </ChoiceField>
        </div>
      )}
      {rest < 0 && (
        <div className="difference">
          <Button size="hand" aria-pressed={value.difference === 'counted wrong before'} onClick={() => onChange({ ...value, difference: value.difference === null ? 'counted wrong before' : null })}>
            <strong>{-rest} more than the books</strong>
            <small>they were counted wrong before</small>
          </Button>
        </div>
      )}
    </div>
  )
}
