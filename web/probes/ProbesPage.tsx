import { useState } from 'react'
import { Link } from 'react-router'
import { measureRules, probeFaults, probeMeasures, type ProbeFault, type ProbeMeasure } from '../../core/probes/probe'
import { isFailed, stateTitles } from '../../core/probes/probeState'
import type { ProbeView } from '../../core/probes/probeView'
import { showReading } from '../../core/room/glass.schema'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { formatSpan, plural } from '../ui/format'
import { InUnits } from '../ui/InUnits'
import { Lead } from '../ui/Lead'
import { Notice, Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { TankOptions } from '../ui/TankOptions'
import { useUnits } from '../ui/useUnits'
import { useProbes, useProbeWrites } from './useProbes'
import './probes.css'

/** Probes in tanks: what each says, and which of them nobody should go by. */
export function ProbesPage() {
  const { probes, problem } = useProbes()
  const { recorder } = useSession()
  const [open, setOpen] = useState<string | null>(null)
  const { poll } = useProbeWrites()
  const [refused, setRefused] = useState<string | null>(null)
  if (!probes) return problem ? <Trouble problem={problem} back={{ to: '/today', label: 'Today' }} /> : <Waiting what="the probes" />
  const failed = probes.filter(({ state }) => isFailed(state))
  const isLead = recorder.role === 'lead'
  return (
    <>
      <Lead title="Probes" aside={probes.length > 0 && <Button onClick={() => void poll().then(() => setRefused(null), (error: unknown) => setRefused(sentenceOf(error)))}>Ask them now</Button>}>
        {probes.length === 0 ? 'No probe hangs in a tank.' : failed.length === 0 ? `All ${plural(probes.length, 'probe')} can be believed.` : `${failed.map(({ name }) => name).join(', ')} failed: read by hand until then.`}
      </Lead>
      <Problem>{refused}</Problem>
      <Notice>These probes are simulated: their figures are made up around what the water is kept at. A real one would answer in their place.</Notice>
      <ul className="record-list">
        {probes.map((probe) => (
          <li key={probe.id} className="record probe-record">
            <ProbeLine probe={probe} />
            {isLead && (
              <Button look="quiet" aria-expanded={open === probe.id} aria-label={`set up ${probe.name}`} onClick={() => setOpen(open === probe.id ? null : probe.id)}>
                set up
              </Button>
            )}
            {open === probe.id && <ProbeForm key={probe.version} probe={probe} onDone={() => setOpen(null)} />}
          </li>
        ))}
      </ul>
      {isLead && (
        <section className="row-section">
          <h2>Another probe</h2>
          <ProbeForm key={probes.length} probe={null} onDone={() => undefined} />
        </section>
      )}
    </>
  )
}

function ProbeLine({ probe: { name, tankCode, measure, state, words, value, samples } }: { probe: ProbeView }) {
  const { display } = useUnits()
  const last = [...samples].reverse().find((sample) => sample.value !== null)
  return (
    <p className={isFailed(state) ? 'probe-line is-failed' : 'probe-line'}>
      <span>
        <strong>{name}</strong> <Link to={`/room/${tankCode}`}>{tankCode}</Link> {measureRules[measure].label}
        {words && (
          <small className="danger-word">
            <InUnits>{words}</InUnits>
          </small>
        )}
      </span>
      <span>
        <strong>{value === null ? stateTitles[state] : showReading(measure, value, display)}</strong>
        <small>{last ? `${formatSpan(nowMs() - last.atMs)} ago` : ''}</small>
      </span>
    </p>
  )
}

const faultWords: Readonly<Record<ProbeFault, string>> = { none: 'nothing', silent: 'does not answer', stuck: 'is stuck', drifts: 'drifts', jumps: 'leaps' }

function ProbeForm({ probe, onDone }: { probe: ProbeView | null; onDone: () => void }) {
  const { save, retire } = useProbeWrites()
  const { room } = useRoomView()
  const [typed, setTyped] = useState({ name: probe?.name ?? '', tankId: probe?.tankId ?? '', measure: probe?.measure ?? ('tempC' as ProbeMeasure), everyMin: String(probe?.everyMin ?? 15), fault: probe?.fault ?? ('none' as ProbeFault) })
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [refused, setRefused] = useState<string | null>(null)
  const fail = (error: unknown): void => {
    const said = errorsByField(error) ?? {}
    setErrors(said)
    setRefused(Object.keys(said).length === 0 ? sentenceOf(error) : null)
  }
  const send = (): void => {
    const everyMin = Number(typed.everyMin)
    if (!Number.isInteger(everyMin)) return setErrors({ everyMin: 'Minutes must be a whole number' })
    setErrors({})
    setRefused(null)
    void save(probe?.id ?? null, { ...typed, everyMin, version: probe?.version ?? 0 }).then(onDone, fail)
  }
  return (
    <form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), send())}>
      <div className="field-row">
        <TextField label="Name" value={typed.name} problem={errors.name} onChange={(name) => setTyped({ ...typed, name })} />
        <ChoiceField label="Tank" value={typed.tankId} problem={errors.tankId} onChange={(tankId) => setTyped({ ...typed, tankId })}>
          <option value="">choose a tank</option>
          <TankOptions tanks={room?.tanks ?? []} />
        </ChoiceField>
        <ChoiceField label="Measures" value={typed.measure} problem={errors.measure} onChange={(measure) => setTyped({ ...typed, measure: measure as ProbeMeasure })}>
          {probeMeasures.map((measure) => (
            <option key={measure} value={measure}>
              {measureRules[measure].label}
            </option>
          ))}
        </ChoiceField>
        <TextField label="Asked every" unit="min" inputMode="numeric" value={typed.everyMin} problem={errors.everyMin} onChange={(everyMin) => setTyped({ ...typed, everyMin })} />
        <ChoiceField label="What is wrong with this stand-in" value={typed.fault} problem={errors.fault} onChange={(fault) => setTyped({ ...typed, fault: fault as ProbeFault })}>
          {probeFaults.map((fault) => (
            <option key={fault} value={fault}>
              {faultWords[fault]}
            </option>
          ))}
        </ChoiceField>
      </div>
      <Problem>{refused}</Problem>
      <div className="field-row">
        <Button type="submit" look="act">
          {probe ? 'Save' : 'Hang it up'}
        </Button>
        {probe && <Button onClick={() => void retire(probe.id, probe.version).then(onDone, fail)}>Take it down</Button>}
      </div>
    </form>
  )
}
