import type { ChoreKind, ChorePlace } from '../../core/chores/chores.schema'
import { newKey } from '../api/newKey'

/** A place of a chore as it is typed. */
export interface TypedPlace {
  id: string
  /** *tank:ID*, *system:ID* or *words*. */
  at: string
  label: string
  uses: { item: string; count: string }[]
  litres: string
  fromTankId: string
  fish: { fromTankId: string; speciesId: string; quantity: string }[]
}

/** A further place that is like the one before: it uses the same. */
export const emptyPlace = (like?: TypedPlace): TypedPlace => ({ id: newKey(), at: '', label: '', uses: like ? like.uses.map((use) => ({ ...use })) : [], litres: like?.litres ?? '', fromTankId: like?.fromTankId ?? '', fish: [] })

export const typedOf = ({ id, tankId, systemId, label, uses, litres, fromTankId, fish }: ChorePlace): TypedPlace => ({
  ...{ id, at: tankId !== null ? `tank:${tankId}` : systemId !== null ? `system:${systemId}` : 'words', label: label ?? '', litres: litres === null ? '' : String(litres), fromTankId: fromTankId ?? '' },
  uses: uses.map(({ item, count }) => ({ item, count: String(count) })),
  fish: fish.map((each) => ({ ...each, quantity: String(each.quantity) })),
})

const figure = (text: string): number | null => (text.trim() === '' ? null : Number(text.replace(',', '.')))

/** The place as it is sent; what its kind does not ask for is left out. */
export function toPlace({ id, at, label, uses, litres, fromTankId, fish }: TypedPlace, kind: ChoreKind): ChorePlace {
  const [what, where = null] = at.split(':')
  return {
    ...{ id, tankId: what === 'tank' ? where : null, systemId: what === 'system' ? where : null, label: what === 'words' ? label.trim() || null : null },
    uses: uses.filter(({ item, count }) => item.trim() !== '' || count.trim() !== '').map(({ item, count }) => ({ item: item.trim(), count: Number(count) })),
    litres: kind === 'water change' ? figure(litres) : null,
    fromTankId: kind === 'water change' ? fromTankId || null : null,
    fish: kind === 'visit' ? fish.filter(({ speciesId }) => speciesId !== '').map((each) => ({ fromTankId: each.fromTankId, speciesId: each.speciesId, quantity: Number(each.quantity) })) : [],
  }
}
