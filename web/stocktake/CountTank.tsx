import { useState } from 'react'
import { useNavigate } from 'react-router'
import { nameKey } from '../../core/words/nameKey'
import type { StocktakeView, TankToCount } from '../../core/stocktake/stocktakeView'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { HandScreen } from '../ui/HandScreen'
import { NumberChoice } from '../ui/NumberChoice'
import { useKept } from '../ui/useKept'
import { KindPicker } from './KindPicker'
import { useKinds, useStocktakeWrites } from './useStocktake'

interface Counted {
  species: string
  strain: string | null
  counted: number
}
interface Draft {
  kinds: Counted[]
  source: string | null
}

interface Props {
  stocktake: StocktakeView
  tank: TankToCount
  next: TankToCount | null
  before: TankToCount | null
  onGo: (code: string | null) => void
}

const isSame = (a: Pick<Counted, 'species' | 'strain'>, b: Pick<Counted, 'species' | 'strain'>): boolean => nameKey(a.species) === nameKey(b.species) && a.strain === b.strain
/** More of one kind than this is typed into a list, not counted by walking. */
const most = 999

/** One tank: which kinds stand there and how many; a kind of the books that nobody touched stands there as booked. */
export function CountTank({ stocktake, tank, next, before, onGo }: Props) {
  const { kinds: known, sources } = useKinds()
  const { countTank } = useStocktakeWrites(stocktake.id)
  const navigate = useNavigate()
  const [kept, keep] = useKept<Draft>(`crate.count.${stocktake.id}.${tank.tankId}`)
  const [asking, setAsking] = useState<Pick<Counted, 'species' | 'strain'> | null>(null)
  const draft = kept ?? { kinds: tank.countedAtMs === null ? [] : tank.kinds.flatMap(({ species, strain, counted }) => (counted === null ? [] : [{ species, strain, counted }])), source: tank.source }
  const booked = tank.kinds.filter((kind) => kind.booked > 0)
  const asBooked = booked.filter((kind) => !draft.kinds.some((each) => isSame(each, kind)))
  const isTouched = draft.kinds.length > 0
  const set = (one: Counted): void => {
    keep({ ...draft, kinds: [...draft.kinds.filter((each) => !isSame(each, one)), one] })
    setAsking(null)
  }
  const record = (): void => {
    countTank({ tankId: tank.tankId, source: draft.source, kinds: [...draft.kinds, ...asBooked.map(({ species, strain, booked: counted }) => ({ species, strain, counted }))] }, tank.code)
    keep(null)
    if (next) onGo(next.code)
    else void navigate('/stocktake/review')
  }
  const done = stocktake.tanks.filter(({ countedAtMs }) => countedAtMs !== null).length
  const rows = [...draft.kinds.map((each) => ({ ...each, booked: booked.find((kind) => isSame(kind, each))?.booked ?? null })), ...asBooked.map(({ species, strain, booked: of }) => ({ species, strain, counted: null, booked: of }))]
  return (
    <HandScreen className="count-tank" title={stocktake.kind === 'opening' ? 'What swims here' : 'Stocktake'} aside={<ButtonLink to="/stocktake/review" look="quiet">{done} of {stocktake.tanks.length}</ButtonLink>} back={{ to: '/room', label: 'to the room' }}>
      <div className="count-head">
        <h2>{tank.code}</h2>
        <p>
          {tank.systemName}, {tank.water} water{tank.countedAtMs !== null && `, counted${tank.countedBy ? ` by ${tank.countedBy}` : ''}`}
        </p>
      </div>
      {asking ? (
        <section className="count-how-many" aria-label="How many">
          <p>
            <strong>{asking.strain ? `${asking.species} (${asking.strain})` : asking.species}</strong>: how many?
          </p>
          <NumberChoice label={`Number of ${asking.species}`} most={most} direct={20} near={booked.find((kind) => isSame(kind, asking))?.booked ?? null} onChoose={(counted) => set({ ...asking, counted })} />
          <div className="entry-buttons">
            {booked.some((kind) => isSame(kind, asking)) && <Button size="hand" onClick={() => set({ ...asking, counted: 0 })}>none</Button>}
            <Button look="quiet" onClick={() => setAsking(null)}>
              leave it
            </Button>
          </div>
        </section>
      ) : (
        <>
          <ul className="count-kinds">
            {rows.map((row) => (
              <KindRow key={`${row.species} ${row.strain ?? ''}`} {...row} onNumber={() => setAsking({ species: row.species, strain: row.strain })} onDrop={row.booked === null ? () => keep({ ...draft, kinds: draft.kinds.filter((each) => !isSame(each, row)) }) : null} onStrain={(strain) => keep({ ...draft, kinds: draft.kinds.map((each) => (isSame(each, row) ? { ...each, strain } : each)) })} />
            ))}
          </ul>
          <KindPicker known={known} water={tank.water} recent={recentKinds(stocktake, tank)} onChoose={(species) => setAsking({ species, strain: null })} />
          {stocktake.kind === 'opening' && isTouched && (
            <ChoiceField label="Where from" value={draft.source ?? ''} onChange={(source) => keep({ ...draft, source: source || null })}>
              <option value="">nobody knows any more</option>
              {sources.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </ChoiceField>
          )}
        </>
      )}
      <div className="thumb-bar">
        <Button size="hand" className="undo" disabled={!before} onClick={() => before && onGo(before.code)}>
          back
        </Button>
        <Button look="act" size="hand" disabled={asking !== null} onClick={record}>
          <strong>{wordsFor(tank, rows.length, isTouched)}</strong>
          <small>{next ? `next: ${next.code}` : 'then look at it as a whole'}</small>
        </Button>
      </div>
    </HandScreen>
  )
}

const wordsFor = ({ code, kinds }: TankToCount, rows: number, isTouched: boolean): string => (rows === 0 ? `${code} is empty` : isTouched ? `${code}: ${plural(rows, 'kind')}` : `As the books say: ${kinds.reduce((sum, { booked }) => sum + booked, 0)}`)

/** Kinds that were counted in this walk, the ones just counted first, such as are not in this tank yet. */
function recentKinds({ tanks }: StocktakeView, here: TankToCount): string[] {
  const counted = tanks.filter(({ tankId, countedAtMs }) => countedAtMs !== null && tankId !== here.tankId).sort((a, b) => Number(b.water === here.water) - Number(a.water === here.water) || (b.countedAtMs ?? 0) - (a.countedAtMs ?? 0))
  return [...new Set(counted.flatMap(({ kinds }) => kinds.filter((kind) => kind.counted !== 0).map(({ species }) => species)))].slice(0, 9)
}

interface Row {
  species: string
  strain: string | null
  counted: number | null
  /** Fish in the books; null where they know none here. */
  booked: number | null
  onNumber: () => void
  onDrop: (() => void) | null
  onStrain: (strain: string | null) => void
}

function KindRow({ species, strain, counted, booked, onNumber, onDrop, onStrain }: Row) {
  const [isNaming, setNaming] = useState(false)
  return (
    <li>
      <Button size="hand" className={counted === null ? 'is-booked' : undefined} aria-label={`${counted ?? booked ?? 0} ${species}: another number`} onClick={onNumber}>
        {counted ?? booked}
      </Button>
      <span>
        <strong>{species}</strong> {strain && `(${strain})`}
        <small>{counted === null ? 'as the books say' : booked === null ? '' : counted === booked ? 'as the books say' : `the books say ${booked}`}</small>
      </span>
      {counted !== null && booked === null && (isNaming ? <TextField label={`strain of ${species}`} isLabelHidden placeholder="strain" maxLength={80} value={strain ?? ''} onChange={(value) => onStrain(value || null)} /> : <Button look="quiet" onClick={() => setNaming(true)}>strain</Button>)}
      {onDrop && (
        <Button look="quiet" aria-label={`not ${species}`} onClick={onDrop}>
          ×
        </Button>
      )}
    </li>
  )
}
