import { object } from 'yup'
import { answers, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { FindAnswer } from './find'

/** Finding anything. */
export const findApi = named({
  /** tanks, lots, crates, species by a few letters */
  find: read({ path: '/api/find', access: 'device', query: object({ q: word(80) }), about: () => ['register', 'tank', 'crate', 'bag', 'run'], staysMs: Infinity, answer: answers<FindAnswer>() }),
})
