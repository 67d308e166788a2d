import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { wholeUpTo } from '../commands/queryFields'
import { withPendingInRoom, withPendingInTank } from './pendingRoom'
import { addSystemSchema } from './room.schema'
import type { RoomView, TankView } from './roomView'

/** Entries of a timeline: so many unless more are asked for, and never more than these. */
export const [timelinePage, mostEntries] = [40, 5000]

const standing = ['house', 'register', 'limit', 'crate', 'bag', 'run', 'plan'] as const

/** The room and its tanks. */
export const roomApi = named({
  /** systems, tanks with stock, flag, last check, who counts on them */
  readRoom: read({ path: '/api/room', access: 'device', about: () => [...standing, 'tank', 'look'], staysMs: 60_000, withPending: withPendingInRoom, answer: answers<RoomView>() }),
  /** one tank, its stock by lot and so many of its newest entries */
  readTank: read({ path: '/api/tanks/:code', access: 'device', query: object({ entries: wholeUpTo(mostEntries, timelinePage) }), about: (_, tank) => [...standing, 'staff', ...(tank ? ([`tank:${tank.id}`, `look:${tank.id}`] as const) : (['tank', 'look'] as const))], staysMs: 60_000, withPending: withPendingInTank, answer: answers<TankView>() }),
  addSystem: command({ method: 'post', path: '/api/systems', access: 'lead', schema: addSystemSchema, touches: () => ['register', 'tank'], answer: answers<{ systemId: string; tanks: { id: string; code: string }[] }>() }),
})
