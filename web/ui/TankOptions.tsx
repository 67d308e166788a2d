import type { TankSummary } from '../../core/room/roomView'

/** A tank as a choice: its code and who lives there. */
export const tankLabel = ({ code, fish, mainSpecies }: Pick<TankSummary, 'code' | 'fish' | 'mainSpecies'>): string => (fish === 0 ? `${code} (empty)` : `${code} (${fish} ${mainSpecies ?? 'fish'})`)

/** The tanks of the room as options of a select. */
export function TankOptions({ tanks }: { tanks: readonly TankSummary[] }) {
  return tanks.map((tank) => (
    <option key={tank.id} value={tank.id}>
      {tankLabel(tank)}
    </option>
  ))
}
