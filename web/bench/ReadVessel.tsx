import { useState } from 'react'
import type { RunView } from '../../core/bench/benchView'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import { ReadingField } from '../ui/ReadingField'
import { readMeter, useRunWrites } from './useBench'

interface Draft {
  tempC: number | null
  salinityPpt: number | null
  ph: number | null
  tanMgL: number | null
}
const empty: Draft = { tempC: null, salinityPpt: null, ph: null, tanMgL: null }
const steps = { tempC: 0.1, salinityPpt: 0.5 } as const

/** What is read from the vessel: typed, stepped by touch from the last reading, or taken from the bench meter. */
export function ReadVessel({ run }: { run: RunView }) {
  const { recordReading } = useRunWrites(run.id)
  const [draft, setDraft] = useState<Draft>(empty)
  const [round, setRound] = useState(0)
  const [isSimulated, setSimulated] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const lastOf = (key: keyof typeof steps): number | null => run.events.findLast((event) => event.kind === 'reading' && event[key] !== null)?.[key] ?? null
  const set = (values: Partial<Draft>): void => {
    setSimulated(false)
    setDraft({ ...draft, ...values })
  }
  const stepBy = (key: keyof typeof steps, direction: 1 | -1): void => {
    const start = draft[key] ?? lastOf(key) ?? (key === 'tempC' ? run.plan.question.tank.tempC : run.plan.question.tank.salinityPpt)
    set({ [key]: Math.round((start + direction * steps[key]) * 10) / 10 })
    setRound(round + 1)
  }
  const fromMeter = async (): Promise<void> => {
    try {
      const { isSimulated: simulated, ...reading } = await readMeter(run.id)
      setDraft(reading)
      setSimulated(simulated)
      setRound(round + 1)
      setProblem(null)
    } catch (error) {
      setProblem(sentenceOf(error))
    }
  }
  const record = (): void => {
    recordReading({ ...draft, isSimulated })
    setDraft(empty)
    setSimulated(false)
    setRound(round + 1)
  }
  return (
    <section className="read-vessel" aria-label="Read the vessel">
      <div className="readings" key={round}>
        <ReadingField label="temperature" quantity="temperature" value={draft.tempC} min={0} max={45} onChange={(tempC) => set({ tempC })} />
        <ReadingField label="salinity" quantity="salinity" value={draft.salinityPpt} min={0} max={45} onChange={(salinityPpt) => set({ salinityPpt })} />
        <ReadingField label="pH" value={draft.ph} min={4} max={10.5} onChange={(ph) => set({ ph })} />
        <ReadingField label="ammonia" unit="mg/L as N" value={draft.tanMgL} min={0} max={100} onChange={(tanMgL) => set({ tanMgL })} />
      </div>
      <div className="read-buttons">
        {(['tempC', 'salinityPpt'] as const).map((key) => (
          <span key={key} className="step-pair" role="group" aria-label={key === 'tempC' ? 'step the temperature' : 'step the salinity'}>
            <Button size="hand" aria-label={key === 'tempC' ? 'cooler' : 'fresher'} onClick={() => stepBy(key, -1)}>
              −
            </Button>
            <span>{key === 'tempC' ? 'temp.' : 'sal.'}</span>
            <Button size="hand" aria-label={key === 'tempC' ? 'warmer' : 'saltier'} onClick={() => stepBy(key, 1)}>
              +
            </Button>
          </span>
        ))}
        <Button size="hand" onClick={() => void fromMeter()}>
          meter <small>simulated</small>
        </Button>
        <Button size="hand" disabled={Object.values(draft).every((value) => value === null)} onClick={record}>
          Record reading
        </Button>
      </div>
      {isSimulated && <p className="aside-word">From the simulated bench meter; it is marked so in the books.</p>}
      <Problem>{problem}</Problem>
    </section>
  )
}
