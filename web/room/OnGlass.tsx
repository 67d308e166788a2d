import { useState } from 'react'
import { Link } from 'react-router'
import { addressOf } from '../../core/commands/declare'
import { glassApi } from '../../core/room/glass.api'
import type { TankView } from '../../core/room/roomView'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useGlassWrites, type GlassWrites } from '../api/glassWrites'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { PhotoButton } from '../ui/PhotoButton'
import { Problem } from '../ui/Notice'
import { ReadingForm } from '../ui/ReadingForm'
import { Sheet } from '../ui/Sheet'
import { useFormat } from '../ui/useFormat'

/** Notes that hang on the glass, until somebody takes them off. */
export function Pins({ tank }: { tank: TankView }) {
  const writes = useGlassWrites(tank.id)
  const format = useFormat()
  const [problem, setProblem] = useState<string | null>(null)
  if (tank.pins.length === 0) return null
  return (
    <ul className="pins" aria-label="Notes on the glass">
      {tank.pins.map(({ id, words, by, atMs }) => (
        <li key={id}>
          <span>
            {words} <small>{by}, {format.moment(atMs)}</small>
          </span>
          <Button look="quiet" onClick={() => void writes.unpin(id).catch((error: unknown) => setProblem(sentenceOf(error)))}>
            take it off
          </Button>
        </li>
      ))}
      <Problem>{problem}</Problem>
    </ul>
  )
}

/** What may be put on a tank: a note, a picture, a reading; and what is there of it. */
export function OnGlass({ tank }: { tank: TankView }) {
  const writes = useGlassWrites(tank.id)
  const [telling, setTelling] = useState<'note' | 'reading' | null>(null)
  const [kept, setKept] = useState<{ words: string; seq: number } | null>(null)
  const close = (): void => setTelling(null)
  return (
    <section className="on-glass" aria-label="On the glass">
      <div className="entry-buttons">
        <Button size="hand" onClick={() => setTelling('reading')}>a reading</Button>
        <Button size="hand" onClick={() => setTelling('note')}>a note on the glass</Button>
        <PhotoButton label={`photo of ${tank.code}`} onPicture={(image) => void writes.addPhoto(image, `picture of ${tank.code}`)} />
      </div>
      {kept && (
        <p className="just-done" role="status">
          <span>{kept.words}. Recorded.</span>
          <Button onClick={() => void writes.undoRead(kept.seq).then(() => setKept(null))}>take it back</Button>
        </p>
      )}
      <Photos tank={tank} writes={writes} />
      <OfWater tank={tank} />
      <Sheet title={`A note on ${tank.code}`} isOpen={telling === 'note'} onClose={close}>
        <NoteForm onKeep={(words) => writes.pin(words).then(close)} />
      </Sheet>
      <Sheet title={`A reading of ${tank.code}`} isOpen={telling === 'reading'} onClose={close}>
        <ReadingForm onKeep={(what, value, words, instrument) => writes.read(what, value, instrument).then(({ seq }) => (setKept({ words, seq }), close()))} />
      </Sheet>
    </section>
  )
}

function NoteForm({ onKeep }: { onKeep: (words: string) => Promise<unknown> }) {
  const [words, setWords] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const keep = (): void => void onKeep(words).catch((error: unknown) => setProblem(errorsByField(error)?.words ?? sentenceOf(error)))
  return (
    <>
      <TextField label="Whoever comes by reads" size="hand" maxLength={200} value={words} problem={problem} onChange={setWords} />
      <Button look="act" size="hand" disabled={words.trim() === ''} onClick={keep}>
        hang it up
      </Button>
    </>
  )
}

function Photos({ tank, writes }: { tank: TankView; writes: GlassWrites }) {
  const [openId, setOpen] = useState<string | null>(null)
  const format = useFormat()
  const open = tank.photos.find(({ id }) => id === openId)
  const address = (photoId: string): string => addressOf(glassApi.readTankPhoto, { photoId })
  if (tank.photos.length === 0) return null
  return (
    <>
      <ul className="tank-photos" aria-label="Pictures">
        {tank.photos.slice(0, 6).map(({ id, atMs }) => (
          <li key={id}>
            <Button look="bare" onClick={() => setOpen(id)} aria-label={`Picture of ${format.moment(atMs)}`}>
              <img src={address(id)} alt="" />
            </Button>
          </li>
        ))}
      </ul>
      <Sheet title={open ? `${tank.code}, ${format.moment(open.atMs)}` : 'Picture'} isOpen={open !== undefined} onClose={() => setOpen(null)}>
        {open && (
          <div className="tank-photo">
            <img src={address(open.id)} alt={`${tank.code}, taken by ${open.by}`} />
            <Button onClick={() => void writes.removePhoto(open.id).then(() => setOpen(null))}>take it off</Button>
          </div>
        )}
      </Sheet>
    </>
  )
}

/** Whose water and whose tools: what happens there is soon here. */
function OfWater({ tank: { neighbours, toolSets, agents } }: { tank: TankView }) {
  return (
    <>
      {agents.length > 0 && (
        <p className="of-water">
          In the water: <Link to="/regimens">{agents.join(', ')}</Link>
        </p>
      )}
      {neighbours.length > 0 && (
        <p className="of-water">
          On the same water:{' '}
          {neighbours.map(({ code, flag }) => (
            <span key={code}>
              <Link to={`/room/${code}`}>{code}</Link>
              {flag ? ` ${flag.word}` : ''}{' '}
            </span>
          ))}
        </p>
      )}
      {toolSets.length > 0 && (
        <p className="of-water">
          Tools: <Link to="/contacts/tools">{toolSets.join(', ')}</Link>
        </p>
      )}
    </>
  )
}
