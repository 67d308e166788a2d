import { useId } from 'react'
import type { ChoreKind } from '../../core/chores/chores.schema'
import { useRoomView, useTankOf } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { TankOptions } from '../ui/TankOptions'
import type { TypedPlace } from './typedPlace'

interface Props {
  kind: ChoreKind
  place: TypedPlace
  /** Names of consumables that are known. */
  items: readonly string[]
  errors: Record<string, string>
  /** Where this place stands in what is sent. */
  path: string
  onChange: (place: TypedPlace) => void
  onRemove: (() => void) | null
}

const replaced = <T,>(all: readonly T[], index: number, by: Partial<T>): T[] => all.map((each, at) => (at === index ? { ...each, ...by } : each))

/** One place of a chore: where, what it uses, litres of a water change, fish of a visit. */
export function PlaceFields({ kind, place, items, errors, path, onChange, onRemove }: Props) {
  const { room } = useRoomView()
  const itemsId = useId()
  const whereWrong = errors[`${path}.label`] ?? errors[`${path}.tankId`] ?? errors[`${path}.systemId`]
  const tanks = room?.tanks ?? []
  return (
    <fieldset className="chore-place">
      <div className="field-row">
        <ChoiceField label="Where" value={place.at} onChange={(at) => onChange({ ...place, at })} problem={place.at === 'words' ? null : whereWrong}>
          <option value="">choose</option>
          {kind !== 'visit' && <option value="words">elsewhere, in words</option>}
          {kind !== 'visit' && room?.systems.map(({ id, name }) => (
            <option key={id} value={`system:${id}`}>
              {name}
            </option>
          ))}
          {tanks.map(({ id, code }) => (
            <option key={id} value={`tank:${id}`}>
              {code}
            </option>
          ))}
        </ChoiceField>
        {place.at === 'words' && <TextField label="In words" value={place.label} onChange={(label) => onChange({ ...place, label })} problem={whereWrong} />}
        {kind === 'water change' && (
          <>
            <TextField label="Litres" unit="L" inputMode="decimal" value={place.litres} onChange={(litres) => onChange({ ...place, litres })} problem={errors[`${path}.litres`]} />
            <ChoiceField label="Source" value={place.fromTankId} onChange={(fromTankId) => onChange({ ...place, fromTankId })} problem={errors[`${path}.fromTankId`]} hint="water of a tank is a contact between both">
              <option value="">fresh water</option>
              <TankOptions tanks={tanks} />
            </ChoiceField>
          </>
        )}
        {onRemove && <Button onClick={onRemove}>not here</Button>}
      </div>
      <datalist id={itemsId}>
        {items.map((item) => (
          <option key={item} value={item} />
        ))}
      </datalist>
      {place.uses.map(({ item, count }, index) => (
        <div key={index} className="field-row">
          <TextField label={kind === 'visit' ? 'Part' : 'Uses'} list={itemsId} value={item} onChange={(value) => onChange({ ...place, uses: replaced(place.uses, index, { item: value }) })} problem={errors[`${path}.uses[${index}].item`]} />
          <TextField label="How many" inputMode="numeric" value={count} onChange={(value) => onChange({ ...place, uses: replaced(place.uses, index, { count: value }) })} problem={errors[`${path}.uses[${index}].count`]} />
        </div>
      ))}
      {kind === 'visit' && place.fish.map((fish, index) => (
        <FishFields key={index} fish={fish} problem={errors[`${path}.fish[${index}].quantity`] ?? errors[`${path}.fish`]} onChange={(changed) => onChange({ ...place, fish: replaced(place.fish, index, changed) })} />
      ))}
      <div className="field-row">
        <Button look="quiet" onClick={() => onChange({ ...place, uses: [...place.uses, { item: '', count: '1' }] })}>
          {kind === 'visit' ? 'a part to take along' : 'something it uses'}
        </Button>
        {kind === 'visit' && (
          <Button look="quiet" onClick={() => onChange({ ...place, fish: [...place.fish, { fromTankId: '', speciesId: '', quantity: '1' }] })}>
            fish to take along
          </Button>
        )}
      </div>
    </fieldset>
  )
}

type TypedFish = TypedPlace['fish'][number]

/** Fish of a visit: from which tank, who, how many. */
function FishFields({ fish, problem, onChange }: { fish: TypedFish; problem: string | undefined; onChange: (changed: Partial<TypedFish>) => void }) {
  const { room } = useRoomView()
  const stocked = room?.tanks.filter((tank) => tank.fish > 0) ?? []
  const { tank } = useTankOf(stocked.find(({ id }) => id === fish.fromTankId)?.code ?? null)
  const kinds = [...new Map((tank?.stock ?? []).map(({ speciesId, species }) => [speciesId, species]))]
  return (
    <div className="field-row">
      <ChoiceField label="From" value={fish.fromTankId} onChange={(fromTankId) => onChange({ fromTankId, speciesId: '' })}>
        <option value="">choose a tank</option>
        <TankOptions tanks={stocked} />
      </ChoiceField>
      <ChoiceField label="Fish" value={fish.speciesId} onChange={(speciesId) => onChange({ speciesId })}>
        <option value="">choose</option>
        {kinds.map(([speciesId, species]) => (
          <option key={speciesId} value={speciesId}>
            {species}
          </option>
        ))}
      </ChoiceField>
      <TextField label="How many" inputMode="numeric" value={fish.quantity} onChange={(quantity) => onChange({ quantity })} problem={problem} />
    </div>
  )
}
