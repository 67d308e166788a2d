import { useState } from 'react'
import { contentWords, waterContents, type WaterContent } from '../../core/dosing/doseReasons'
import type { OfferView } from '../../core/regimens/regimenView'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import type { RegimenWrites } from './useRegimens'

const hourMs = 3_600_000
/** Hours that labels of binders commonly say. */
const binderHours = [24, 48, 72] as const

/** What stands in a water besides fish: said once, by whoever stands before it; what is not touched is not there. */
export function Contents({ offer: { tankId, waterName, contents, likely }, writes, onSaid }: { offer: OfferView; writes: RegimenWrites; onSaid?: () => void }) {
  const [chosen, setChosen] = useState<readonly WaterContent[]>(contents ?? likely)
  const [hours, setHours] = useState<number>(binderHours[0])
  const [problem, setProblem] = useState<string | null>(null)
  const flip = (each: WaterContent): void => setChosen(chosen.includes(each) ? chosen.filter((other) => other !== each) : [...chosen, each])
  const save = (): void => void writes.contents(tankId, chosen, chosen.includes('binder') ? nowMs() + hours * hourMs : null).then(() => (setProblem(null), onSaid?.()), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <section className="dose-contents" aria-label="What stands in the water">
      <h2>What stands in {waterName}?</h2>
      <p className="aside-word">Touch everything that is there; whatever is not touched is not there. It changes what may go in.</p>
      <div className="entry-buttons" role="group" aria-label="In the water">
        {waterContents.map((each) => (
          <Button key={each} size="hand" aria-pressed={chosen.includes(each)} onClick={() => flip(each)}>
            {contentWords[each]}
          </Button>
        ))}
      </div>
      {chosen.includes('binder') && (
        <div className="entry-buttons" role="group" aria-label="The binder works for">
          {binderHours.map((each) => (
            <Button key={each} size="hand" aria-pressed={hours === each} onClick={() => setHours(each)}>
              for {each} h
            </Button>
          ))}
        </div>
      )}
      <Button size="hand" look="act" onClick={save}>
        <strong>{chosen.length === 0 ? 'none of these' : 'that is all'}</strong>
      </Button>
      <Problem>{problem}</Problem>
    </section>
  )
}
