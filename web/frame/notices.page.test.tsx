/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { appInRoom } from '../testing/appInRoom'

const app = appInRoom()

test('what went wrong with the room’s keeping stands on every screen with what to do, until a lead has put it away', async () => {
  await app.room().tell({ kind: 'entries-missing', entries: 24, movements: 30, fromMs: Date.UTC(2031, 4, 4, 9, 2), untilMs: Date.UTC(2031, 4, 4, 9, 9) })
  await app.room().tell({ kind: 'copies-failing', why: 'no space left on device', lastMs: null })
  for (const path of ['/today', '/room']) {
    await app.open(path)
    const [missing, copies] = (await screen.findAllByRole('alert')).map(({ textContent }) => textContent)
    expect(missing).toMatch(/^24 entries that were answered for are not in the books, recorded between .* and .*: the disk lost the end of the journal\. Count the tanks/)
    expect(copies).toMatch(/^No copy of this room was made yet: no space left on device\. Make room on that disk, or name another folder/)
  }
  fireEvent.click((await screen.findAllByRole('button', { name: 'put away' }))[0] as HTMLElement)
  await waitFor(() => expect(screen.queryAllByRole('alert')).toHaveLength(1))
  await app.open('/today')
  expect((await screen.findAllByRole('alert')).map(({ textContent }) => textContent?.slice(0, 7))).toEqual(['No copy'])
})
