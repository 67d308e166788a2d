import { choresApi } from '../../core/chores/chores.api'
import type { ChangeSupplies, SaveChore } from '../../core/chores/chores.schema'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Chores as they stand. */
export function useChores() {
  const { data, problem } = useRead(choresApi.readChores, {}, { everyMs: 30_000 })
  return { chores: data, problem }
}

/** What is written about chores. */
export function useChoreWrites() {
  const write = useWrite()
  const form = { refusals: 'form' } as const
  return {
    done: (choreId: string, placeId: string, label: string) => write(choresApi.doChore, { params: { choreId }, label, body: { placeId, happenedAtMs: nowMs() } }, form),
    undo: (doneId: string) => write(choresApi.undoChore, { params: { doneId }, label: 'taking back', body: {} }, form),
    save: (choreId: string | null, body: SaveChore): Promise<unknown> => (choreId === null ? write(choresApi.addChore, { label: body.name, body }, form) : write(choresApi.editChore, { params: { choreId }, label: body.name, body }, form)),
    retire: (choreId: string, version: number) => write(choresApi.retireChore, { params: { choreId }, label: 'a chore', body: { version } }, form),
    changeSupplies: (body: ChangeSupplies) => write(choresApi.changeSupplies, { label: `${body.item}: ${body.why}`, body }, form),
  }
}
export type ChoreWrites = ReturnType<typeof useChoreWrites>
