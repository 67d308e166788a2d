import { object } from 'yup'
import { answers, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { MoveCheckView } from './moveView'

/** Moving fish without doing harm. */
export const movesApi = named({
  /** `?to=` tank, `&fish=` JSON list of *speciesId*, *strain*, *lotIds*, *quantity*; `&tools=` tool set, `&water=1` where water goes along. Nothing is written */
  readMoveCheck: read({ path: '/api/tanks/:tankId/move-check', access: 'device', query: object({ to: word(64), fish: word(8000), tools: word(64), water: word(1) }), about: () => ['tank', 'look', 'contact', 'run', 'crate', 'bag', 'register', 'limit'], staysMs: 60_000, answer: answers<MoveCheckView>() }),
})
