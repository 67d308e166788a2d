import { afterAll, afterEach, beforeAll, beforeEach } from '@jest/globals'
import { cleanup, configure, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { Rooms, type OpenRoom } from '../../e2e/rooms'
import { racks } from '../../e2e/room'
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
    rooms = Rooms.start({ hasPages: false })
  })
  beforeEach(async () => {
    localStorage.clear()
    room = await rooms.copy(racks)
    connectTo(room.url, room.device)
  })
  afterEach(async () => {
    cleanup()
    await room.end()
  })
  afterAll(() => rooms.end())
  return {
    room: () => room,
    /** Opens a screen, or loads it anew: nothing stays but what this device keeps. */
    async open(path: string): Promise<void> {
      cleanup()
      await router.navigate(path)
      render(<App />)
      await screen.findByRole('main')
    },
  }
}

/** Types into a field, as a person would: over what stood there. */
export const type = async (label: string | RegExp, text: string): Promise<void> => void fireEvent.change(await screen.findByLabelText(label), { target: { value: text } })
export const press = async (name: string | RegExp): Promise<void> => void fireEvent.click(await screen.findByRole('button', { name }))
export const fieldValue = async (label: string | RegExp): Promise<string> => ((await screen.findByLabelText(label)) as HTMLInputElement).value

/** Waits until the server has answered for everything this device recorded. */
export const allSent = (): Promise<void> =>
  waitFor(() => {
    if (Object.keys(localStorage).some((slot) => slot.startsWith('crate.outbox.'))) throw new Error('entries wait')
  })
