import { answers, command, named, read } from '../commands/declare'
import type { ChoresView } from './choreView'
import { askChoreSchema, changeSuppliesSchema, doChoreSchema, endChoreSchema, retireChoreSchema, saveChoreSchema, undoChoreSchema } from './chores.schema'

/** Work at tanks and elsewhere. */
export const choresApi = named({
  /** asked for once; where the same is open already, that one is answered */
  askChore: command({ method: 'post', path: '/api/asked-chores', access: 'keeper', schema: askChoreSchema, touches: (_, { tankId }) => ['chore', `tank:${tankId}`, 'round'], answer: answers<{ id: string }>() }),
  endChore: command({ method: 'post', path: '/api/asked-chores/:choreId/end', access: 'keeper', schema: endChoreSchema, touches: () => ['chore', 'tank', 'round'] }),
  /** what is due, what to carry, what was done today, what comes next, and how it is set up */
  readChores: read({ path: '/api/chores', access: 'device', about: () => ['chore', 'tank', 'bag', 'crate', 'register', 'house', 'staff'], staysMs: 600_000, answer: answers<ChoresView>() }),
  addChore: command({ method: 'post', path: '/api/chores', access: 'lead', schema: saveChoreSchema, touches: () => ['chore'], answer: answers<{ id: string }>() }),
  editChore: command({ method: 'put', path: '/api/chores/:choreId', access: 'lead', schema: saveChoreSchema, touches: () => ['chore'], answer: answers<{ version: number }>() }),
  retireChore: command({ method: 'post', path: '/api/chores/:choreId/retirement', access: 'lead', schema: retireChoreSchema, touches: () => ['chore'] }),
  /** done at one place today; who comes second is answered with the first. What it uses comes off the store room, water of another tank is a contact */
  doChore: command({ method: 'post', path: '/api/chores/:choreId/done', access: 'keeper', schema: doChoreSchema, touches: () => ['chore', 'contact'], answer: answers<{ id: string }>() }),
  undoChore: command({ method: 'post', path: '/api/chores-done/:doneId/undo', access: 'keeper', schema: undoChoreSchema, touches: () => ['chore', 'contact'] }),
  changeSupplies: command({ method: 'post', path: '/api/supplies', access: 'keeper', schema: changeSuppliesSchema, touches: () => ['chore'], answer: answers<{ pieces: number }>() }),
})
