import { object } from 'yup'
import { answers, command, named, plain, read } from '../commands/declare'
import { moment, wholeUpTo, word } from '../commands/queryFields'
import { withPendingInRoom, withPendingInTank } from './pendingRoom'
import { addSystemSchema } from './room.schema'
import type { FloorView } from './floor'
import { arrangeRacksSchema, arrangeTanksSchema, placeSinksSchema } from './floor.schema'
import type { RoomThen } from './roomThen'
import type { RoomView, TankView } from './roomView'

/** Entries of a timeline: so many unless more are asked for, and never more than these. */
export const [timelinePage, mostEntries] = [40, 5000]

const standing = ['house', 'register', 'limit', 'crate', 'bag', 'run', 'plan'] as const

/** The room and its tanks. */
export const roomApi = named({
  /** systems, tanks with stock, flag, last check, who counts on them */
  readRoom: read({ path: '/api/room', access: 'device', about: () => [...standing, 'tank', 'look'], staysMs: 60_000, withPending: withPendingInRoom, answer: answers<RoomView>() }),
  /** one tank, its stock by lot and so many of its newest entries, all or `?only=` moves, losses, counts, looks */
  readTank: read({ path: '/api/tanks/:code', access: 'device', query: object({ entries: wholeUpTo(mostEntries, timelinePage), only: word(10) }), about: (_, tank) => [...standing, 'staff', 'recheck', 'chore', 'kitchen', ...(tank ? [tank, ...tank.neighbours].flatMap(({ id }) => [`tank:${id}`, `look:${id}`] as const) : (['tank', 'look'] as const))], staysMs: 60_000, withPending: withPendingInTank, answer: answers<TankView>() }),
  /** the room as of a moment: `?at=` epoch ms (now where left out), `&clock=books` what was known then, `happened` (usual) how it was */
  readRoomThen: read({ path: '/api/room/then', access: 'device', query: object({ at: moment(), clock: word(10) }), about: () => ['house', 'register', 'tank', 'bag', 'vessel', 'run', 'crate'], staysMs: Infinity, answer: answers<RoomThen>() }),
  /** racks with their size and place on the floor, tanks in them, sinks */
  readFloor: read({ path: '/api/floor', access: 'device', about: () => ['register', 'tank'], staysMs: Infinity, answer: answers<FloorView>() }),
  /** places of tanks, all or none, each with its version; a code never changes with its place */
  arrangeTanks: command({ method: 'put', path: '/api/floor/tanks', access: 'lead', schema: arrangeTanksSchema, touches: () => ['register', 'tank'] }),
  arrangeRacks: command({ method: 'put', path: '/api/floor/racks', access: 'lead', schema: arrangeRacksSchema, touches: () => ['register', 'tank'] }),
  /** all sinks, as they are to be */
  placeSinks: command({ method: 'put', path: '/api/floor/sinks', access: 'lead', schema: placeSinksSchema, touches: () => ['register', 'tank'] }),
  /** labels as PDF, of every tank or `?rack=R1&rack=R2` */
  labelsFile: plain({ method: 'get', path: '/api/labels.pdf', access: 'device' }),
  addSystem: command({ method: 'post', path: '/api/systems', access: 'lead', schema: addSystemSchema, touches: () => ['register', 'tank'], answer: answers<{ systemId: string; tanks: { id: string; code: string }[] }>() }),
})
