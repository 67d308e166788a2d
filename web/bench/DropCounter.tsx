import { useState } from 'react'
import { dropRate } from '../../core/bench/dropRate'
import type { AirlineView } from '../../core/bench/benchView'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { useBenchWrites } from './useBench'

interface Props {
  dropsPerMl: number
  airlines: readonly AirlineView[]
  onFlow: (mlPerMin: number) => void
}

/** One tap a drop tells the flow within ten taps. Drops in a millilitre are kept for each airline. */
export function DropCounter({ dropsPerMl, airlines, onFlow }: Props) {
  const [taps, setTaps] = useState<number[]>([])
  const [airlineId, setAirline] = useState('')
  const perMl = airlines.find(({ id }) => id === airlineId)?.dropsPerMl ?? dropsPerMl
  const rate = dropRate(taps, perMl)
  return (
    <section className="drop-counter" aria-label="Drop counter">
      {/* The moment the finger went down: not when it lifted, nor when a busy device came to hear of it. */}
      <Button look="bare" className="tap-pad" onPointerDown={({ timeStamp }) => setTaps((before) => [...before, timeStamp])} onKeyDown={({ key, repeat, timeStamp }) => key === ' ' && !repeat && setTaps((before) => [...before, timeStamp])}>
        {rate ? (
          <>
            <strong>{rate.mlPerMin.toFixed(1)} mL/min</strong>
            <small>
              {Math.round(rate.dropsPerMin)} drops a minute, {rate.isSettled ? `${rate.taps} taps` : `${10 - rate.taps} more to settle`}
            </small>
          </>
        ) : (
          <>
            <strong>tap a drop</strong>
            <small>once for every drop that falls</small>
          </>
        )}
      </Button>
      <div className="drop-side">
        <ChoiceField label="airline" unit={`${perMl} drops in a mL`} size="hand" value={airlineId} onChange={setAirline}>
          <option value="">as planned, {dropsPerMl}</option>
          {airlines.map((airline) => (
            <option key={airline.id} value={airline.id}>
              {airline.name}, {airline.dropsPerMl}
            </option>
          ))}
        </ChoiceField>
        <Button size="hand" disabled={!rate} onClick={() => rate && (onFlow(rate.mlPerMin), setTaps([]))}>
          Take this flow
        </Button>
        <Button look="quiet" disabled={taps.length === 0} onClick={() => setTaps([])}>
          begin anew
        </Button>
      </div>
      <Calibrate />
    </section>
  )
}

/** Counting the drops of five millilitres once, for an airline of the house. */
function Calibrate() {
  const { keepAirline } = useBenchWrites()
  const [isOpen, setOpen] = useState(false)
  const [name, setName] = useState('')
  const [drops, setDrops] = useState('')
  const perMl = Number(drops.replace(',', '.')) / 5
  const isGood = name.trim() !== '' && perMl >= 5 && perMl <= 60
  if (!isOpen)
    return (
      <Button look="quiet" onClick={() => setOpen(true)}>
        calibrate an airline
      </Button>
    )
  return (
    <div className="calibrate">
      <TextField label="airline" size="hand" maxLength={80} placeholder="blue line" value={name} onChange={setName} />
      <TextField label="drops in 5 mL" size="hand" problem={drops !== '' && !(perMl >= 5 && perMl <= 60) ? '25 to 300 drops' : null} inputMode="numeric" value={drops} onChange={setDrops} />
      <Button
        size="hand"
        disabled={!isGood}
        onClick={() => {
          keepAirline({ name: name.trim(), dropsPerMl: Math.round(perMl * 10) / 10 })
          setOpen(false)
        }}
      >
        Keep {isGood ? `${perMl.toFixed(1)} in a mL` : ''}
      </Button>
    </div>
  )
}
