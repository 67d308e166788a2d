import type { BookSpecies } from '../../core/setup/setup.api'
import { useState } from 'react'
import { waters, type Water } from '../../core/room/room.schema'
import { sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useBack } from '../ui/useBack'
import { useGoOn } from '../ui/useGoOn'
import { useAdoptSpecies, useBook } from './useSetup'
import './setup.css'

/** The shipped species book: tick those that are kept here. */
export function BookPage() {
  const { data, problem: unread } = useBook()
  const { room } = useRoomView()
  const adopt = useAdoptSpecies()
  const goOn = useGoOn()
  const back = useBack('/setup/species')
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState<string[]>([])
  const [problem, setProblem] = useState<string | null>(null)
  if (!data) return unread ? <Trouble problem={unread} /> : <Waiting what="the species book" />
  const has = new Set(room?.systems.map((system) => system.water))
  // Waters the room has come first; they are what is looked for.
  const ordered = [...waters].sort((a, b) => Number(has.has(b)) - Number(has.has(a)))
  const matching = data.species.filter((entry) => `${entry.name} ${entry.scientificName}`.toLowerCase().includes(words.trim().toLowerCase()))
  const toggle = (names: string[], isOn: boolean): void => setChosen(isOn ? [...new Set([...chosen, ...names])] : chosen.filter((name) => !names.includes(name)))
  const takeIn = (): void => void adopt(chosen).then(() => goOn(back), (refusal: unknown) => setProblem(sentenceOf(refusal)))
  return (
    <>
      <Lead title="Species from the book" aside={`${data.species.length} in the book, ${data.species.filter(({ isHere }) => isHere).length} of them here`}>
        Usual ranges of the trade, in our words, as a beginning. Others come by themselves with a packing list; all can be changed.
      </Lead>
      <div className="list-tools">
        <TextField label="search the book" isLabelHidden type="search" placeholder="search" value={words} onChange={setWords} />
      </div>
      {ordered.map((water) => (
        <Shelf key={water} water={water} entries={matching.filter((entry) => entry.water === water)} chosen={chosen} onToggle={toggle} />
      ))}
      <Problem>{problem}</Problem>
      <div className="thumb-bar page-action">
        <Button look="act" disabled={chosen.length === 0} onClick={takeIn}>
          {chosen.length === 0 ? 'Tick what is kept here' : `Take in ${plural(chosen.length, 'species', 'species')}`}
        </Button>
      </div>
    </>
  )
}

interface ShelfProps {
  water: Water
  entries: BookSpecies[]
  chosen: readonly string[]
  onToggle: (names: string[], isOn: boolean) => void
}

function Shelf({ water, entries, chosen, onToggle }: ShelfProps) {
  const open = entries.filter(({ isHere }) => !isHere)
  if (entries.length === 0) return null
  return (
    <section className="book-shelf">
      <h2>
        {water} water{' '}
        {open.length > 0 && (
          <Button look="quiet" onClick={() => onToggle(open.map(({ name }) => name), true)}>
            all {open.length}
          </Button>
        )}
      </h2>
      <ul>
        {entries.map((entry) => {
          return (
            <li key={entry.name}>
              <Button look="bare" className="book-entry" disabled={entry.isHere} aria-pressed={entry.isHere || chosen.includes(entry.name)} onClick={() => onToggle([entry.name], !chosen.includes(entry.name))}>
                <strong>{entry.name}</strong>
                <small>{entry.isHere ? 'here already' : entry.scientificName}</small>
              </Button>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
