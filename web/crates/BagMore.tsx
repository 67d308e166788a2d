import { useState } from 'react'
import { phInstruments, salinityInstruments } from '../../core/acclimation/instruments'
import { mishaps } from '../../core/crates/crates.schema'
import { Button } from '../ui/Button'
import { ReadingField } from '../ui/ReadingField'
import { useSession } from '../api/session'
import type { BagDraft } from './bagDraft'

const mishapWords = { 'wrong species': 'wrong species', mislabelled: 'label is wrong' } as const

/** What is rarely asked of a bag: pH, ammonia, binder, other fish than the list says. Open by itself when any of it is filled. */
export function BagMore({ draft, onChange }: { draft: BagDraft; onChange: (part: Partial<BagDraft>) => void }) {
  const { instruments } = useSession()
  const isFilled = [draft.ph, draft.ammoniaMgL, draft.hasBinder, draft.mishap].some((each) => each !== null && each !== undefined)
  const [isOpen, setIsOpen] = useState(isFilled)
  return (
    <>
      <Button size="hand" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
        pH, ammonia, wrong fish
      </Button>
      {isOpen && (
        <div className="bag-more">
          <div className="readings">
            <ReadingField label="pH" value={draft.ph ?? null} min={3} max={11} onChange={(ph) => onChange({ ph })} />
            <ReadingField label="ammonia" unit="mg/L N" value={draft.ammoniaMgL ?? null} min={0} max={100} onChange={(ammoniaMgL) => onChange({ ammoniaMgL })} />
            <Button size="hand" aria-pressed={draft.hasBinder === true} onClick={() => onChange({ hasBinder: draft.hasBinder ? null : true })}>
              binder in it
            </Button>
          </div>
          <ReadBy label="salinity by" options={salinityInstruments} value={draft.salinityBy ?? instruments.salinityBy} onChange={(salinityBy) => onChange({ salinityBy })} />
          <ReadBy label="pH by" options={phInstruments} value={draft.phBy ?? instruments.phBy} onChange={(phBy) => onChange({ phBy })} />
          <div className="body-choice mishaps" role="group" aria-label="Not as listed">
            {mishaps.map((each) => (
              <Button key={each} size="hand" aria-pressed={draft.mishap === each} onClick={() => onChange({ mishap: draft.mishap === each ? null : each })}>
                {mishapWords[each]}
              </Button>
            ))}
          </div>
        </div>
      )}
    </>
  )
}

/** What a figure is read with; the house's usual until somebody says otherwise. */
function ReadBy<T extends string>({ label, options, value, onChange }: { label: string; options: readonly T[]; value: T; onChange: (by: T) => void }) {
  return (
    <div className="body-choice read-by" role="group" aria-label={label}>
      <span>{label}</span>
      {options.map((each) => (
        <Button key={each} size="hand" aria-pressed={value === each} onClick={() => onChange(each)}>
          {each}
        </Button>
      ))}
    </div>
  )
}
