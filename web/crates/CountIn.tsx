import { useId, useRef, useState } from 'react'
import { unidentified } from '../../core/crates/crates.schema'
import type { BagView, CrateView } from '../../core/crates/crateView'
import { releaseStep } from '../../core/crates/triage'
import { sentenceOf } from '../api/ApiProblem'
import { newKey } from '../api/newKey'
import { useSession } from '../api/session'
import { useNames } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { plural } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { useGoOn } from '../ui/useGoOn'
import { useKept } from '../ui/useKept'
import type { Undoing } from './BagInHand'
import { draftOfRecord, lastRecorded, plainDraft, toRecord, type BagDraft } from './bagDraft'
import { BagFields } from './BagFields'
import { HeldPictures } from './HeldPictures'
import { FirstStep, useTriage } from './TriageLine'
import { useCrateWrites } from './useCrates'

/** A bag in hand that no list speaks of, until it is recorded. */
interface Unlisted {
  draft: BagDraft
  species: string
  /** Pictures that go with it, shrunk, as they will be sent. */
  pictures: string[]
}
const freshBag = (): Unlisted => ({ draft: plainDraft({ id: newKey(), listed: 1 } as BagView), species: '', pictures: [] })
const mostAlike = 12

interface Props {
  crate: CrateView
  undoing: Undoing
  /** Bags of a crate without a list come one after another; an extra bag of a listed crate comes alone. */
  isExtra?: boolean
  onDone: () => void
}

/** Bags that no list speaks of: all that is asked of a listed bag, and a name if anybody knows one. */
export function CountIn({ crate, undoing, isExtra = false, onDone }: Props) {
  const [kept, keep] = useKept<Unlisted>(`crate.unlisted.${crate.id}`)
  // Kept from the first stroke on; until then the same bag is in hand on every draw.
  const first = useRef<Unlisted | null>(null)
  const bag = kept ?? (first.current ??= freshBag())
  const page = useRef<HTMLDivElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [isSheetOpen, setSheetOpen] = useState(false)
  const goOn = useGoOn()
  const { addBag, addPhoto } = useCrateWrites(crate.id)
  const { draft, species, pictures } = bag
  const { recorder } = useSession()
  // What is taken back comes into the hand again; under a new number, because the old one stays in the books.
  const undo = (): void => {
    const back = lastRecorded(crate, recorder.id)[0]
    const line = crate.lines.find(({ id }) => id === back?.lineId)
    undoing.undo()
    if (back && line?.count === 0) keep({ draft: { ...draftOfRecord(back), bagId: newKey() }, species: line.species === unidentified ? '' : line.species, pictures: [] })
  }
  const triage = useTriage(crate, undefined, draft)
  const isRelease = triage?.step === releaseStep
  const last = crate.bags.findLast(({ record, lineId }) => record !== null && (crate.lines.find(({ id }) => id === lineId)?.count ?? 1) === 0) ?? null
  const lastLine = crate.lines.find(({ id }) => id === last?.lineId)
  const inside = crate.bags.reduce((sum, { inBag }) => sum + inBag, 0)
  const number = Math.max(0, ...crate.bags.map((each) => each.number)) + 1

  const send = (body: Parameters<typeof addBag>[0], label: string) => {
    const sent = addBag(body, label)
    sent.catch((error: unknown) => setProblem(sentenceOf(error)))
    return sent
  }
  const record = (): ReturnType<typeof addBag> | null => {
    const wrong = page.current?.querySelector<HTMLInputElement>('[aria-invalid="true"]')
    if (wrong) return wrong.focus(), null
    if (draft.alive + draft.dead === 0) return setProblem('A bag holds at least one animal'), null
    setProblem(null)
    const { bagIds, ...found } = toRecord(draft, [draft.bagId])
    const sent = send({ ...found, bagIds, species: species.trim() || null }, species.trim() || `bag ${number}, no name yet`)
    for (const picture of pictures) addPhoto(draft.bagId, picture, `picture of bag ${number}`)
    first.current = null
    keep(null)
    if (isExtra) onDone()
    return sent
  }
  const releaseNow = (): void => {
    const { bagId } = draft
    void record()?.then(({ lineId }) => goOn(`/bench/compare?line=${lineId}&bag=${bagId}`), () => undefined)
  }
  const repeat = (times: number): void => {
    if (!last || !lastLine) return
    setSheetOpen(false)
    const { bagIds, ...found } = toRecord({ ...draftOfRecord(last), note: null }, Array.from({ length: times }, newKey))
    // A line that waits to be sent itself has no name yet that the server knows.
    const known = lastLine.id.startsWith('pending-') ? {} : { lineId: lastLine.id }
    void send({ ...found, ...known, bagIds, species: lastLine.species === unidentified ? null : lastLine.species }, `${plural(times, 'bag')} like bag ${last.number}`)
  }

  return (
    <div className="bag-in-hand count-in" ref={page}>
      <div className="bag-name">
        <h2>{isExtra ? 'A bag that is not on the list' : crate.bags.length === 0 ? 'Count the first bag' : `Count bag ${number}`}</h2>
        <SpeciesField value={species} onChange={(next) => keep({ ...bag, species: next })} />
      </div>
      <BagFields draft={draft} onChange={(next) => keep({ ...bag, draft: next })} photos={<HeldPictures pictures={pictures} onChange={(next) => keep({ ...bag, pictures: next })} />} />
      <Problem>{problem}</Problem>
      <div className="thumb-bar">
        <FirstStep triage={triage} onRelease={releaseNow} />
        <Button size="hand" className="undo" disabled={!undoing.label} onClick={undo}>
          undo <small>{undoing.label}</small>
        </Button>
        <Button look={isRelease ? 'plain' : 'act'} size="hand" onClick={() => void record()}>
          <strong>{draft.alive} alive, {isExtra ? 'back to the list' : 'next bag'}</strong>
          <small>{[draft.dead > 0 ? `${draft.dead} dead` : '', species.trim() || 'not named yet'].filter(Boolean).join(' · ')}</small>
        </Button>
        {last && !isExtra ? (
          <Button size="hand" className="same" onClick={() => setSheetOpen(true)}>
            ×n like bag {last.number}
          </Button>
        ) : (
          <Button size="hand" className="same" disabled={!isExtra} onClick={onDone}>
            {isExtra ? 'leave it' : '×n like the last'}
          </Button>
        )}
        {!isExtra && crate.bags.length > 0 && (
          <Button size="hand" className="all-in" onClick={onDone}>
            all {plural(crate.bags.length, 'bag')} in, {inside} fish
          </Button>
        )}
      </div>
      <Sheet title={`How many more like bag ${last?.number ?? ''}? ${last?.record?.alive ?? 0} ${lastLine?.species ?? ''}${last?.record?.dead ? `, ${last.record.dead} dead` : ''} each`} isOpen={isSheetOpen} onClose={() => setSheetOpen(false)}>
        <div className="number-choice">
          {Array.from({ length: mostAlike }, (_, index) => (
            <Button key={index} size="hand" onClick={() => repeat(index + 1)}>
              {index + 1}
            </Button>
          ))}
        </div>
      </Sheet>
    </div>
  )
}

function SpeciesField({ value, onChange }: { value: string; onChange: (species: string) => void }) {
  const names = useNames('species')
  const listId = useId()
  return (
    <>
      <datalist id={listId}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <TextField label="what is it" size="hand" className="species-line" list={listId} maxLength={80} placeholder="later, if nobody knows" value={value} onChange={onChange} />
    </>
  )
}
