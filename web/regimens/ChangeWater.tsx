import { useState } from 'react'
import type { LadderView } from '../../core/regimens/regimenView'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { InUnits } from '../ui/InUnits'
import { Problem } from '../ui/Notice'
import { useUnits } from '../ui/useUnits'
import type { RegimenWrites } from './useRegimens'

interface Props {
  tankId: string
  regimenId: string
  /** What the ladder asks for; null while it asks for none. */
  litres: number | null
  redose: LadderView['redose']
  productId: string
  levelMgL: number | null
  writes: RegimenWrites
  onDone: () => void
}

/** A change of water, whatever for: what is in it falls by its share, unless the new water was mixed to it. */
export function ChangeWater({ tankId, regimenId, litres, redose, productId, levelMgL, writes, onDone }: Props) {
  const units = useUnits()
  const asked = litres === null ? '' : units.figure('volume', litres).replace(/\.0$/, '')
  const [typed, setTyped] = useState<string | null>(null)
  const [isMixed, setMixed] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const value = typed ?? asked
  const save = (): void => {
    const read = units.read('volume', value)
    if (!Number.isFinite(read)) return setProblem('Say how much was changed')
    void writes.change(tankId, regimenId, { litres: read, ...(isMixed && levelMgL !== null ? { productId, mixMgL: levelMgL } : {}) }).then(() => (setTyped(null), setProblem(null), onDone()), (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <section className="change-water" aria-label="Change water">
      <h2>Change water</h2>
      <div className="field-row">
        <TextField label="changed" unit={units.label('volume')} size="hand" inputMode="decimal" value={value} onChange={setTyped} />
        <Button size="hand" look={litres === null ? 'plain' : 'act'} onClick={save}>
          changed
        </Button>
      </div>
      {levelMgL !== null && (
        <div className="entry-buttons">
          <Button aria-pressed={isMixed} onClick={() => setMixed(!isMixed)}>
            {isMixed ? '✓ ' : ''}new water mixed to its level
          </Button>
        </div>
      )}
      {redose.length > 0 && litres === null && (
        <details>
          <summary>what a change takes out, by school</summary>
          <ul>
            {redose.map(({ school, words }) => (
              <li key={school}>
                <InUnits>{words}</InUnits>
              </li>
            ))}
          </ul>
        </details>
      )}
      <Problem>{problem}</Problem>
    </section>
  )
}
