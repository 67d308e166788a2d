import type { Request, Response } from 'express'
import { aliveEveryMs, type Alive, type Hello, type Told } from '../../core/commands/stream'
import { eventsApi } from '../../core/commands/events.api'
import { serve, type Endpoint } from '../http/endpoint'
import { Problem } from '../http/problem'
import type { Changes } from './changes'

/** A browser has one stream for all its pages; more of one device are left over from a network that broke. */
const mostOfDevice = 6
/** More devices than any room has. */
const mostOfAll = 500

interface Device {
  /** Which session the request belongs to; empty once it is closed. */
  sessionOf(request: Request): string
}

/** The stream of changes (server-sent events) by which devices see each other's touches at once. */
export function eventsEndpoints(changes: Changes, { sessionOf }: Device, books: () => string): Endpoint[] {
  const open: { session: string; response: Response }[] = []
  function take(session: string, response: Response): void {
    if (open.length >= mostOfAll) throw new Problem('too-many-tries', 'More devices listen here than a room has; this one asks by itself')
    const own = open.filter((each) => each.session === session)
    if (own.length >= mostOfDevice) own[0]?.response.end()
    open.push({ session, response })
    response.once('close', () => open.splice(open.findIndex((each) => each.response === response), 1))
  }
  return serve(eventsApi, {
    listen(request, response) {
      take(sessionOf(request), response)
      response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
      response.flushHeaders()
      response.once('close', streamChanges(changes, response, () => sessionOf(request) !== '', books))
    },
  })
}

function streamChanges(changes: Changes, response: Response, isOpen: () => boolean, books: () => string): () => void {
  const say = (text: string): void => {
    // A device that was closed meanwhile hears nothing more.
    if (isOpen()) response.write(text)
    else response.end()
  }
  const stopListening = changes.listenForDevice(({ touched, written }) => say(`data: ${JSON.stringify({ touched, by: written?.key ?? null, devices: changes.devices() } satisfies Told)}\n\n`))
  const alive = setInterval(() => say(`data: ${JSON.stringify({ devices: changes.devices() } satisfies Alive)}\n\n`), aliveEveryMs)
  alive.unref()
  say(`retry: 2000\ndata: ${JSON.stringify({ books: books(), devices: changes.devices() } satisfies Hello)}\n\n`)
  return () => {
    clearInterval(alive)
    stopListening()
  }
}
