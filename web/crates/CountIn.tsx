import { useId, useState } from 'react'
import type { CrateView } from '../../core/crates/crateView'
import { sentenceOf } from '../api/ApiProblem'
import { useNames } from '../api/sharedReads'
import { plural } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { Stepper } from '../ui/Stepper'
import { useCrateWrites } from './useCrates'

/** Counts one bag in that no list speaks of: alive, dead, and a name if anybody knows one. */
function useCountIn(crate: CrateView, onDone: () => void) {
  const { addBag } = useCrateWrites(crate.id)
  const [counts, setCounts] = useState({ alive: 1, dead: 0 })
  const [species, setSpecies] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const count = (): void => {
    if (counts.alive + counts.dead === 0) return setProblem('A bag holds at least one animal')
    setProblem(null)
    void addBag({ species: species.trim() || null, ...counts, note: null }, species.trim() || 'a bag without a name').catch((error: unknown) => setProblem(sentenceOf(error)))
    setCounts({ alive: 1, dead: 0 })
    setSpecies('')
    onDone()
  }
  return { counts, setCounts, species, setSpecies, problem, count }
}

function CountFields({ counts, setCounts, species, setSpecies, problem }: ReturnType<typeof useCountIn>) {
  const names = useNames('species')
  const listId = useId()
  return (
    <>
      <datalist id={listId}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <Counted label="alive" value={counts.alive} max={5000} onChange={(alive) => setCounts({ ...counts, alive })} />
      <Counted label="dead" value={counts.dead} max={5000} onChange={(dead) => setCounts({ ...counts, dead })} />
      <label className="note-line">
        what is it
        <input value={species} list={listId} maxLength={80} placeholder="later, if nobody knows" onChange={(event) => setSpecies(event.currentTarget.value)} />
      </label>
      {problem && (
        <p className="form-problem" role="alert">
          {problem}
        </p>
      )}
    </>
  )
}

const Counted = (props: Parameters<typeof Stepper>[0]) => (
  <div className="counted">
    <span aria-hidden="true">{props.label}</span>
    <Stepper {...props} />
  </div>
)

/** An extra bag of a crate with a list. */
export function ExtraBagSheet({ crate, isOpen, onClose }: { crate: CrateView; isOpen: boolean; onClose: () => void }) {
  const counting = useCountIn(crate, onClose)
  return (
    <Sheet title="A bag that is not on the list" isOpen={isOpen} onClose={onClose}>
      <div className="count-in">
        <CountFields {...counting} />
        <button type="button" className="hand-button act" onClick={counting.count}>
          Count this bag in
        </button>
      </div>
    </Sheet>
  )
}

/** A crate without a list: bag after bag is counted in, and named when somebody knows it. */
export function CountIn({ crate, onAllIn }: { crate: CrateView; onAllIn: () => void }) {
  const counting = useCountIn(crate, () => undefined)
  const inside = crate.bags.reduce((sum, { inBag }) => sum + inBag, 0)
  return (
    <div className="bag-in-hand count-in">
      <h2>{crate.bags.length === 0 ? 'Count the first bag' : `Count bag ${crate.bags.length + 1}`}</h2>
      <p className="aside-word">No list came with this crate. Count now, name later: the crate page has a place for names.</p>
      <CountFields {...counting} />
      <div className="thumb-bar">
        <button type="button" className="hand-button act" onClick={counting.count}>
          <strong>{counting.counts.alive} alive, next bag</strong>
          <small>{counting.species.trim() || 'not named yet'}</small>
        </button>
        <button type="button" className="hand-button same" disabled={crate.bags.length === 0} onClick={onAllIn}>
          all {plural(crate.bags.length, 'bag')} in, {inside} fish
        </button>
      </div>
    </div>
  )
}
