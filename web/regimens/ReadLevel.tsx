import { useState } from 'react'
import { copperKits } from '../../core/dosing/agents'
import type { LadderView } from '../../core/regimens/regimenView'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { readNumber } from '../ui/useUnits'
import type { RegimenWrites } from './useRegimens'

/** A reading with the kit that was used; nothing where no kit reads it. */
export function ReadLevel({ ladder: { offer: { tankId, product } }, writes, onRead }: { ladder: LadderView; writes: RegimenWrites; onRead: () => void }) {
  const [kit, setKit] = useState<string>(product.kit ?? '')
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  if (product.kit === null || !(copperKits as readonly string[]).includes(product.kit)) return null
  const save = (): void => {
    const value = readNumber(typed)
    if (!Number.isFinite(value)) return setProblem('Say what was read, in mg/L')
    void writes.read(tankId, 'copperMgL', value, kit).then(() => (setTyped(''), setProblem(null), onRead()), (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <section className="read-level" aria-label="Read the level">
      <h2>Read the level</h2>
      <div className="entry-buttons" role="group" aria-label="Read with">
        {copperKits.map((each) => (
          <Button key={each} size="hand" aria-pressed={kit === each} onClick={() => setKit(each)}>
            {each}
          </Button>
        ))}
      </div>
      <div className="field-row">
        <TextField label="copper" unit="mg/L" size="hand" inputMode="decimal" hint="0 where the kit shows none" value={typed} onChange={setTyped} />
        <Button size="hand" onClick={save}>
          read
        </Button>
      </div>
      <Problem>{problem}</Problem>
    </section>
  )
}
