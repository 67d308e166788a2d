import { named, plain } from './declare'

/** The stream of changes. */
export const eventsApi = named({
  /** server-sent events after every write: *touched* (what of the books), *by* (the key of the command), *devices* (how many listen); *devices* alone when nothing happens */
  listen: plain({ method: 'get', path: '/api/events', access: 'device' }),
})
