import { useState } from 'react'
import { packings, packStates, unseenBox, type BoxFacts } from '../../core/crates/box.schema'
import type { CrateView } from '../../core/crates/crateView'
import { ApiProblem, currentOf, sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import { StaleChoice } from '../ui/StaleChoice'
import { useCrateEdits } from './useCrates'

type YesNo = 'isSound' | 'isWet' | 'hasCareSheet' | 'hasFoodSample'
const questions: [YesNo, string, string, string][] = [
  ['isSound', 'box', 'sound', 'damaged'],
  ['isWet', 'inside', 'wet', 'dry'],
  ['hasCareSheet', 'care sheet', 'enclosed', 'missing'],
  ['hasFoodSample', 'food sample', 'enclosed', 'missing'],
]

/** What was seen of the box itself: a touch for each fact, kept at once. */
export function BoxForm({ crate }: { crate: CrateView }) {
  const { recordBox } = useCrateEdits(crate.id)
  const [box, setBox] = useState<BoxFacts>(crate.box ?? unseenBox)
  const [problem, setProblem] = useState<string | null>(null)
  const [stale, setStale] = useState<{ box: BoxFacts | null; version: number } | null>(null)
  const isClosed = crate.closedAtMs !== null
  const save = async (next: BoxFacts, version = crate.boxVersion): Promise<void> => {
    setBox(next)
    setProblem(null)
    await recordBox(next, version).catch((error: unknown) => {
      if (error instanceof ApiProblem && error.code === 'stale') setStale(currentOf(error))
      else setProblem(sentenceOf(error))
    })
  }
  const pick = (part: Partial<BoxFacts>): void => void save({ ...box, ...part })
  return (
    <section className="box-facts" aria-label="The box">
      <h2>The box</h2>
      {stale && (
        <StaleChoice one="box" fields={[{ label: 'box', mine: wordsOf(box), theirs: wordsOf(stale.box ?? unseenBox) }]} onMine={() => (setStale(null), void save(box, stale.version))} onTheirs={() => (setStale(null), setBox(stale.box ?? unseenBox))} />
      )}
      <div className="box-questions">
        {questions.map(([field, about, yes, no]) => (
          <div key={field} role="group" aria-label={about}>
            <span>{about}</span>
            <Answer label={yes} isOn={box[field] === true} isDisabled={isClosed} onToggle={() => pick({ [field]: box[field] === true ? null : true })} />
            <Answer label={no} isOn={box[field] === false} isDisabled={isClosed} onToggle={() => pick({ [field]: box[field] === false ? null : false })} />
          </div>
        ))}
        <div role="group" aria-label="heat or cold packs">
          <span>packs</span>
          {packStates.map((each) => (
            <Answer key={each} label={each} isOn={box.packs === each} isDisabled={isClosed} onToggle={() => pick({ packs: box.packs === each ? null : each })} />
          ))}
        </div>
        <div role="group" aria-label="packing">
          <span>packing</span>
          {packings.map((each) => (
            <Answer key={each} label={each} isOn={box.packing === each} isDisabled={isClosed} onToggle={() => pick({ packing: box.packing === each ? null : each })} />
          ))}
        </div>
      </div>
      <Problem>{problem}</Problem>
    </section>
  )
}

const Answer = ({ label, isOn, isDisabled, onToggle }: { label: string; isOn: boolean; isDisabled: boolean; onToggle: () => void }) => (
  <Button size="hand" aria-pressed={isOn} disabled={isDisabled} onClick={onToggle}>
    {label}
  </Button>
)

const wordsOf = (box: BoxFacts): string =>
  [...questions.map(([field, about, yes, no]) => (box[field] === null ? '' : `${about} ${box[field] ? yes : no}`)), box.packs ? `packs ${box.packs}` : '', box.packing ? `packing ${box.packing}` : ''].filter(Boolean).join(', ') || 'not looked at'
