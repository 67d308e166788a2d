import type { Request, Response } from 'express'
import { plain, type Endpoint } from '../http/endpoint'
import type { Changes } from './changes'

/** Proxies close a connection on which nothing is said for long. */
const keepAliveMs = 25_000

/** The stream of changes (server-sent events) by which devices see each other's touches at once. */
export const eventsEndpoints = (changes: Changes, isOpen: (request: Request) => boolean): Endpoint[] => [
  plain({
    method: 'get',
    path: '/api/events',
    access: 'device',
    handle(request, response) {
      response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
      response.flushHeaders()
      response.once('close', streamChanges(changes, response, () => isOpen(request)))
    },
  }),
]

function streamChanges(changes: Changes, response: Response, isOpen: () => boolean): () => void {
  const say = (text: string): void => {
    // A device that was closed meanwhile hears nothing more.
    if (isOpen()) response.write(text)
    else response.end()
  }
  const stopListening = changes.listen((change) => say(`data: ${JSON.stringify(change)}\n\n`))
  const alive = setInterval(() => say(': here\n\n'), keepAliveMs)
  alive.unref()
  say('retry: 2000\n\n')
  return () => {
    clearInterval(alive)
    stopListening()
  }
}
