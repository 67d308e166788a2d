import { answers, command, named } from '../commands/declare'
import { askChoreSchema, endChoreSchema } from './chores.schema'

/** Work at tanks. */
export const choresApi = named({
  /** asked for once; where the same is open already, that one is answered */
  askChore: command({ method: 'post', path: '/api/asked-chores', access: 'keeper', schema: askChoreSchema, touches: (_, { tankId }) => ['chore', `tank:${tankId}`, 'round'], answer: answers<{ id: string }>() }),
  endChore: command({ method: 'post', path: '/api/asked-chores/:choreId/end', access: 'keeper', schema: endChoreSchema, touches: () => ['chore', 'tank', 'round'] }),
})
