import { afterAll, afterEach, beforeAll, beforeEach } from '@jest/globals'
import { cleanup, configure, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { mutate } from 'swr'
import { Rooms, type OpenRoom } from '../../e2e/rooms'
import { App } from '../App'
import { router } from '../routes'

// Patience only, as for the browser; and the page is not printed when something is missing on it.
configure({ asyncUtilTimeout: 45_000, getElementError: (message) => new Error(message ?? 'not there') })

declare const connectTo: (url: string, cookie: string) => void

/**
 * The whole interface on a real room, without a browser: for what forms say and keep, which needs no layout. Each test
 * has a room of its own, with the lead recording.
 */
export function appInRoom() {
  let rooms: Rooms
  let room: OpenRoom
  beforeAll(() => {
    // The room moves by itself, as a real one does; React need not be told of each time.
    Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: false })
    rooms = Rooms.start({ hasPages: false })
  })
  beforeEach(async () => {
    localStorage.clear()
    room = await rooms.copy()
    connectTo(room.url, room.device)
  })
  afterEach(async () => {
    cleanup()
    await room.end()
  })
  afterAll(() => rooms.end())
  return {
    room: () => room,
    /** As on a device that was never opened. */
    signOut: (): void => connectTo(room.url, ''),
    /** As on the first day: a room that nobody has made yet. */
    async startAnew(): Promise<void> {
      await room.end()
      room = await rooms.empty()
      connectTo(room.url, '')
    },
    /** Opens a screen, or loads it anew: nothing stays but what this device keeps. */
    async open(path: string): Promise<void> {
      cleanup()
      // Forgets what was read, and what is being read.
      await mutate(() => true, undefined)
      await router.navigate(path)
      render(<App />)
      await screen.findByRole('main')
    },
  }
}

/** Holds back what is asked of the server, as a slow network does; the answer lets it through. */
export function holdBack(isHeld: (path: string, method: string) => boolean): () => void {
  const real = globalThis.fetch
  let release = (): void => undefined
  const held = new Promise<void>((resolve) => (release = resolve))
  globalThis.fetch = async (...asked) => {
    const [target, init] = asked
    if (isHeld(new URL(String(target instanceof Request ? target.url : target), 'http://room').pathname, init?.method ?? 'GET')) await held
    return real(...asked)
  }
  return () => ((globalThis.fetch = real), release())
}

/** Types into a field, as a person would: over what stood there. */
export const type = async (label: string | RegExp, text: string): Promise<void> => void fireEvent.change(await screen.findByLabelText(label), { target: { value: text } })
export const press = (name: string | RegExp): Promise<void> =>
  waitFor(() => {
    const button = screen.getByRole('button', { name }) as HTMLButtonElement
    // Nobody presses what cannot be pressed yet.
    if (button.disabled) throw new Error(`${String(name)} cannot be pressed`)
    fireEvent.click(button)
  })
/** Chooses what a list offers, once it does: what is offered may be read from the server first. */
export async function choose(label: string | RegExp, option: string): Promise<void> {
  const list = (await screen.findByLabelText(label)) as HTMLSelectElement
  await waitFor(() => {
    if (![...list.options].some(({ value }) => value === option)) throw new Error(`${String(label)} does not offer ${option}`)
  })
  fireEvent.change(list, { target: { value: option } })
}
export const fieldValue = async (label: string | RegExp): Promise<string> => ((await screen.findByLabelText(label)) as HTMLInputElement).value
/** What is said beside a field, once something is: by what ties the two together for a screen reader too. */
export const problemBeside = (label: string | RegExp): Promise<string> =>
  waitFor(() => {
    const said = document.getElementById(screen.getByLabelText(label).getAttribute('aria-describedby') ?? '')?.textContent
    if (!said) throw new Error(`nothing is said beside ${label}`)
    return said
  })

/** Waits until the server has answered for everything this device recorded. */
export const allSent = (): Promise<void> =>
  waitFor(() => {
    if (Object.keys(localStorage).some((slot) => slot.startsWith('crate.outbox.'))) throw new Error('entries wait')
  })
