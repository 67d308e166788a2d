import type { ReactNode } from 'react'
import { behaviours, bodyConditions, looks, type Look } from '../../core/crates/crates.schema'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { ReadingField } from '../ui/ReadingField'
import { Stepper } from '../ui/Stepper'
import type { BagDraft } from './bagDraft'
import { BagMore } from './BagMore'

/** One more dead, or one less: the living are fewer by as many. */
export const withDead = (draft: BagDraft, by: 1 | -1): BagDraft => ({ ...draft, dead: Math.max(0, draft.dead + by), alive: Math.max(0, draft.alive - by) })
/** A look named as a concern, or taken back. */
export const withLook = (draft: BagDraft, concern: Look): BagDraft => ({ ...draft, concerns: draft.concerns.includes(concern) ? draft.concerns.filter((each) => each !== concern) : [...draft.concerns, concern] })

/** Everything that is entered of a bag, whether a list speaks of it or not: count, dead, four looks, readings, body, behaviour, pictures. */
export function BagFields({ draft, onChange, photos }: { draft: BagDraft; onChange: (draft: BagDraft) => void; photos: ReactNode }) {
  const change = (part: Partial<BagDraft>): void => onChange({ ...draft, ...part })
  return (
    <>
      <div className="bag-counts">
        <Stepper label="alive" value={draft.alive} max={5000} onChange={(alive) => change({ alive })} />
        <DeadBox dead={draft.dead} onMore={() => onChange(withDead(draft, 1))} onLess={() => onChange(withDead(draft, -1))} />
      </div>
      <div className="looks" role="group" aria-label="Four looks">
        {looks.map((each) => (
          <LookToggle key={each} look={each} isConcern={draft.concerns.includes(each)} onToggle={() => onChange(withLook(draft, each))} />
        ))}
      </div>
      <div className="readings">
        <ReadingField label="skin" quantity="temperature" min={-5} max={50} value={draft.skinTempC} onChange={(skinTempC) => change({ skinTempC })} />
        <ReadingField label="water" quantity="temperature" min={-5} max={50} value={draft.waterTempC} onChange={(waterTempC) => change({ waterTempC })} />
        <ReadingField label="salinity" quantity="salinity" min={0} max={42} value={draft.salinityPpt} onChange={(salinityPpt) => change({ salinityPpt })} />
      </div>
      <div className="body-choice" role="group" aria-label="Body">
        <span>body</span>
        {bodyConditions.map((each) => (
          <Button key={each} size="hand" aria-pressed={draft.body === each} onClick={() => change({ body: draft.body === each ? null : each })}>
            {each}
          </Button>
        ))}
      </div>
      <div className="body-choice behaviour" role="group" aria-label="Behaviour">
        {behaviours.map((each) => (
          <Button key={each} size="hand" aria-pressed={draft.behaviour === each} onClick={() => change({ behaviour: draft.behaviour === each ? null : each })}>
            {each}
          </Button>
        ))}
      </div>
      <div className="bag-aside">
        {photos}
        <BagMore draft={draft} onChange={change} />
      </div>
      <TextField label="note" size="hand" className="note-line" maxLength={500} value={draft.note ?? ''} onChange={(note) => change({ note: note || null })} />
    </>
  )
}

function DeadBox({ dead, onMore, onLess }: { dead: number; onMore: () => void; onLess: () => void }) {
  return (
    <div className={dead > 0 ? 'dead-box is-harm' : 'dead-box'}>
      <Button look="bare" aria-label={`dead: ${dead}, one more`} onClick={onMore}>
        dead <strong>{dead}</strong>
      </Button>
      {dead > 0 && (
        <Button look="bare" className="less" onClick={onLess}>
          one less
        </Button>
      )}
    </div>
  )
}

const lookWords: Record<Look, { name: string; fine: string; concern: string }> = {
  clock: { name: 'Clock', fine: 'as planned', concern: 'too long under way' },
  bag: { name: 'Bag', fine: 'tight and dry', concern: 'leaking or flat' },
  water: { name: 'Water', fine: 'clear', concern: 'cloudy, foams, smells' },
  fish: { name: 'Fish', fine: 'upright, calm', concern: 'failing' },
}

function LookToggle({ look, isConcern, onToggle }: { look: Look; isConcern: boolean; onToggle: () => void }) {
  const words = lookWords[look]
  return (
    <Button look="bare" className="look" aria-pressed={isConcern} onClick={onToggle}>
      <strong>{words.name}</strong>
      <small>{isConcern ? words.concern : words.fine}</small>
    </Button>
  )
}
