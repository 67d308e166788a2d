import { useState } from 'react'
import { dropRate } from '../../core/bench/dropRate'
import type { AirlineView } from '../../core/bench/benchView'
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
      {/* The moment of the finger going down, not of its lifting. */}
      <button type="button" className="tap-pad" onPointerDown={() => setTaps((before) => [...before, performance.now()])} onKeyDown={(event) => event.key === ' ' && !event.repeat && setTaps((before) => [...before, performance.now()])}>
        {rate ? (
          <>
            <strong>{rate.mlPerMin.toFixed(1)} mL/min</strong>
            <small>
              {Math.round(rate.dropsPerMin)} drops a minute, {rate.isSettled ? `${rate.taps} taps` : `${10 - rate.taps} more taps to settle`}
            </small>
          </>
        ) : (
          <>
            <strong>tap a drop</strong>
            <small>once for every drop that falls</small>
          </>
        )}
      </button>
      <div className="drop-side">
        <label className="reading">
          <span>
            airline <small>{perMl} drops in a mL</small>
          </span>
          <select className="form-select" value={airlineId} onChange={(event) => setAirline(event.currentTarget.value)}>
            <option value="">as planned, {dropsPerMl}</option>
            {airlines.map((airline) => (
              <option key={airline.id} value={airline.id}>
                {airline.name}, {airline.dropsPerMl}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="hand-button" disabled={!rate} onClick={() => rate && (onFlow(rate.mlPerMin), setTaps([]))}>
          Take this flow
        </button>
        <button type="button" className="quiet-button" disabled={taps.length === 0} onClick={() => setTaps([])}>
          begin anew
        </button>
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
      <button type="button" className="quiet-button" onClick={() => setOpen(true)}>
        calibrate an airline
      </button>
    )
  return (
    <div className="calibrate">
      <label className="reading">
        <span>airline</span>
        <input value={name} maxLength={80} placeholder="blue line" onChange={(event) => setName(event.currentTarget.value)} />
      </label>
      <label className={drops !== '' && !(perMl >= 5 && perMl <= 60) ? 'reading is-wrong' : 'reading'}>
        <span>drops in 5 mL</span>
        <input value={drops} inputMode="numeric" onChange={(event) => setDrops(event.currentTarget.value)} />
        {drops !== '' && !(perMl >= 5 && perMl <= 60) && <small role="alert">25 to 300 drops</small>}
      </label>
      <button
        type="button"
        className="hand-button"
        disabled={!isGood}
        onClick={() => {
          keepAirline({ name: name.trim(), dropsPerMl: Math.round(perMl * 10) / 10 })
          setOpen(false)
        }}
      >
        Keep {isGood ? `${perMl.toFixed(1)} in a mL` : ''}
      </button>
    </div>
  )
}
