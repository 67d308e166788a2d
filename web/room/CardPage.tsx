import { useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import type { CardFacts, CardKind } from '../../core/crates/cardFacts'
import { takeAlongCard, type CardWater, type TakeAlongCard } from '../../core/crates/takeAlongCard'
import { kindKey, kindName } from '../../core/pools/poolsOf'
import type { Quantity } from '../../core/units/units'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { save } from '../api/download'
import { Button, ButtonLink } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { QrCode } from '../ui/QrCode'
import { Stepper } from '../ui/Stepper'
import { useKept } from '../ui/useKept'
import { useUnits } from '../ui/useUnits'
import { useCard } from './useRoom'
import './card.css'

/** What goes along with fish that leave this tank: what we know of them and of our water, for whoever takes them in next. */
export function CardPage() {
  const { code = '' } = useParams()
  const { card, problem } = useCard(code)
  if (!card) return problem ? <Trouble problem={problem} back={{ to: `/room/${code}`, label: 'The tank' }} /> : <Waiting what="the tank" />
  return <Card key={card.tankCode} card={card} />
}

const figures: readonly { name: keyof CardWater; label: string; quantity: Quantity | null }[] = [
  { name: 'tempC', label: 'Temperature', quantity: 'temperature' },
  { name: 'salinityPpt', label: 'Salinity', quantity: 'salinity' },
  { name: 'ph', label: 'pH', quantity: null },
]

function Card({ card: { room, tankCode, kinds, measured, keptAt } }: { card: CardFacts }) {
  const { timeZone } = useSession()
  const units = useUnits()
  const [search] = useSearchParams()
  const [packedAtMs] = useState(() => Math.floor(nowMs() / 60_000) * 60_000)
  const [counts, setCounts] = useState<Record<string, number>>({ [search.get('kind') ?? (kinds.length === 1 && kinds[0] ? kindKey(kinds[0]) : '')]: Number(search.get('fish') ?? 1) || 1 })
  const [bags, setBags] = useState<Record<string, number>>({})
  const [typed, setTyped] = useState<Partial<Record<keyof CardWater, string>>>({})
  const [method, keepMethod] = useKept<string>('crate.card.method')
  const [note, setNote] = useState('')
  const countOf = (kind: CardKind): number => counts[kindKey(kind)] ?? 0
  const readFigure = ({ name, quantity }: (typeof figures)[number]): number | null => {
    const words = typed[name]
    if (words === undefined) return measured[name] ?? null
    const value = quantity === null ? Number(words.replace(',', '.')) : units.read(quantity, words)
    return words.trim() === '' || Number.isNaN(value) ? null : value
  }
  const water = Object.fromEntries(figures.map((figure) => [figure.name, readFigure(figure)]))
  const going = kinds.filter((kind) => countOf(kind) > 0)
  const card = takeAlongCard({
    ...{ room, packedAt: new Date(packedAtMs).toISOString().replace('.000Z', 'Z'), packedLocal: localMoment(packedAtMs, timeZone), water, method: method?.trim() || null, note: note.trim() || null },
    lines: going.map((kind) => ({ ...kind, count: countOf(kind), bags: bags[kindKey(kind)] ?? 1 })),
  })
  return (
    <div className="card-page">
      <Lead title={`Take along, from ${tankCode}`} aside={<ButtonLink to={`/room/${tankCode}`} look="quiet">to the tank</ButtonLink>}>
        What we would like to be told ourselves. It names no customer, nobody who works here, and no price.
      </Lead>
      <div className="card-layout">
        <section className="card-form" aria-label="What goes along">
          {kinds.length === 0 && <Nothing>No fish stand in this tank.</Nothing>}
          {kinds.map((kind) => (
            <div key={kindKey(kind)} className="card-kind">
              <strong>{kindName(kind)}</strong>
              <span>
                fish <Stepper label={`${kindName(kind)} that go`} value={countOf(kind)} max={20_000} onChange={(count) => setCounts({ ...counts, [kindKey(kind)]: count })} />
              </span>
              {countOf(kind) > 0 && (
                <span>
                  bags <Stepper label={`bags of ${kindName(kind)}`} value={bags[kindKey(kind)] ?? 1} max={200} onChange={(count) => setBags({ ...bags, [kindKey(kind)]: Math.max(1, count) })} />
                </span>
              )}
            </div>
          ))}
          <div className="field-row">
            {figures.map(({ name, label, quantity }) => (
              <TextField
                key={name}
                label={label}
                unit={quantity === null ? '' : units.label(quantity)}
                inputMode="decimal"
                hint={keptHint(measured[name] ?? null, keptAt[name] ?? null, quantity, units)}
                value={typed[name] ?? written(measured[name] ?? null, quantity, units)}
                onChange={(value) => setTyped({ ...typed, [name]: value })}
              />
            ))}
          </div>
          <TextField label="How we would take them in" maxLength={120} placeholder="float 15 min, net over" value={method ?? ''} onChange={keepMethod} />
          <TextField label="Note" maxLength={300} value={note} onChange={setNote} />
        </section>
        {going.length > 0 && <Sheet card={card} fileName={`card-${tankCode}.json`} />}
      </div>
    </div>
  )
}

type Units = ReturnType<typeof useUnits>
const written = (value: number | null, quantity: Quantity | null, units: Units): string => (value === null ? '' : quantity === null ? String(Number(value.toFixed(2))) : units.figure(quantity, value).replace('−', '-'))
/** A figure the water is kept at is no reading: it stands beside the field, and not in it. */
const keptHint = (read: number | null, kept: number | null, quantity: Quantity | null, units: Units): string => (read !== null ? 'as it was read' : kept === null ? '' : `kept at ${quantity === null ? kept : units.show(quantity, kept)}: read it`)

function localMoment(atMs: number, timeZone: string): string {
  const parts = new Intl.DateTimeFormat('en-GB', { timeZone, day: 'numeric', month: 'long', year: 'numeric', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).formatToParts(atMs)
  const part = (type: string): string => parts.find((each) => each.type === type)?.value ?? ''
  return `${part('day')} ${part('month')} ${part('year')} ${part('hour')}:${part('minute')}`
}

/** The card as it is printed: in words for people, as codes for the next room. */
function Sheet({ card: { json, text, codes }, fileName }: { card: TakeAlongCard; fileName: string }) {
  const [title = '', ...lines] = text
  return (
    <section className="take-along" aria-label="The card">
      <h2>{title}</h2>
      <ul>
        {lines.map((line, index) => (
          <li key={index}>{line}</li>
        ))}
      </ul>
      <div className="card-codes">
        {codes.map(({ text: code, species, fits, dropped }, index) => (
          <figure key={index}>
            {fits ? <QrCode text={code} label={`Packing list of ${species.join(', ')} as a code`} /> : <p className="aside-word">Too much for one code; the next room reads it from the file.</p>}
            <figcaption>
              {codes.length > 1 ? `${index + 1} of ${codes.length}: ${species.join(', ')}` : 'the same as a packing list'}
              {dropped.length > 0 && <small>{plural(dropped.length, 'detail')} left out to fit</small>}
            </figcaption>
          </figure>
        ))}
      </div>
      <div className="entry-buttons">
        <Button look="act" onClick={() => window.print()}>
          Print it
        </Button>
        <Button onClick={() => save(new Blob([JSON.stringify(json, null, 2)], { type: 'application/json' }), fileName)}>As a packing list (JSON)</Button>
      </div>
    </section>
  )
}
