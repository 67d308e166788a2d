/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { allSent, appInRoom, holdBack, press } from '../testing/appInRoom'

const app = appInRoom()

/** Three tanks with fish, the first of which somebody checked in this round and then left it. */
async function leftRound(): Promise<string> {
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  for (const { id } of tanks.slice(0, 3)) await app.room().post(`/api/tanks/${id}/additions`, { species: 'Cherry barb', quantity: 4, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  const { id, stops } = await app.room().get<{ id: string; stops: { tankId: string }[] }>('/api/rounds/today')
  await app.room().post('/api/checks', { tankId: stops[0]?.tankId, roundId: id, roundNumber: 1, ate: 'all', signs: [], seen: null, note: null, replacesId: null, happenedAtMs: Date.now() })
  await app.room().post(`/api/rounds/${id}/leaving`, { happenedAtMs: Date.now() })
  return id
}

test('a round that was left says so and goes on; closed with tanks left out it says which, and is opened again', async () => {
  const id = await leftRound()
  await app.open('/rounds')
  expect(await screen.findByText(/^Left by Imre .*; it goes on with the next check\.$/)).toBeTruthy()
  await press('close')
  expect(await screen.findByText('Closed by Imre: 2 tanks not checked.')).toBeTruthy()
  await press('go on with this round')
  await press(/^All well, all ate/)
  expect(await screen.findByText('2 of 3 checked')).toBeTruthy()
  await press(/^All well, all ate/)
  expect(await screen.findByText('Every stocked tank is checked.')).toBeTruthy()
  expect(await app.room().get(`/api/rounds/today?round=${id}`)).toMatchObject({ id, closed: null, left: null })
})

test('a look that is corrected before the server answered for it is corrected, not looked at twice', async () => {
  await leftRound()
  await app.open('/rounds')
  await screen.findByText('1 of 3 checked')
  const code = screen.getByRole('heading', { level: 2 }).textContent ?? ''
  const letThrough = holdBack((_path, method) => method === 'POST')
  await press('none ate')
  await press(/^Record and go on/)
  await press('back')
  await waitFor(() => expect(screen.getByRole('heading', { level: 2 }).textContent).toBe(code))
  await press('some ate')
  await press(/^Record and go on/)
  letThrough()
  await allSent()
  const { timeline } = await app.room().get<{ timeline: { type: string; ate?: string; replacedById?: string | null }[] }>(`/api/tanks/${code}`)
  const looks = timeline.filter(({ type }) => type === 'check')
  expect(looks.map(({ ate, replacedById }) => [ate, replacedById === null])).toEqual(expect.arrayContaining([['none', false], ['some', true]]))
  expect(looks).toHaveLength(2)
})

test('what was half entered in another round stays there', async () => {
  const id = await leftRound()
  const { stops } = await app.room().get<{ stops: { tankId: string }[] }>('/api/rounds/today')
  // As it was left yesterday, and by a version that knew no rounds.
  for (const slot of [`crate.look.${stops[1]?.tankId}.2020-01-01-1`, `crate.check.${stops[1]?.tankId}.${id}`]) localStorage.setItem(slot, JSON.stringify({ ate: 'none', signs: ['gasping'], marks: [{ sign: 'gasping', severity: 1, lotId: null }], answers: [], counts: [], seen: null, note: 'yesterday' }))
  await app.open('/rounds')
  await screen.findByText('1 of 3 checked')
  expect(screen.queryByText(/gasping/)).toBeNull()
  await press('none ate')
  await app.open('/rounds')
  expect((await screen.findByRole('button', { name: 'none ate' })).getAttribute('aria-pressed')).toBe('true')
  expect(localStorage.getItem(`crate.look.${stops[1]?.tankId}.${id}`)).toContain('none')
})

test('a stroke to the left records, one to the right goes back; a scroll, two fingers and a stroke in a field do neither', async () => {
  await leftRound()
  await app.open('/rounds')
  await screen.findByText('1 of 3 checked')
  const stroke = (on: Element, [x, y]: [number, number], fingers = 1): void => {
    const begun = { identifier: 1, target: on, clientX: 200, clientY: 300 }
    fireEvent.touchStart(on, { touches: Array(fingers).fill(begun) })
    fireEvent.touchEnd(on, { changedTouches: [{ ...begun, clientX: 200 + x, clientY: 300 + y }] })
  }
  const code = (): Element => screen.getByRole('heading', { level: 2 })
  const second = code().textContent
  stroke(code(), [-120, 80])
  stroke(code(), [-120, 0], 2)
  stroke(code(), [-40, 0])
  stroke(screen.getByRole('textbox', { name: 'note' }), [-150, 0])
  expect([code().textContent, screen.queryByText('1 of 3 checked') !== null]).toEqual([second, true])
  stroke(code(), [-150, 10])
  expect(await screen.findByText('2 of 3 checked')).toBeTruthy()
  stroke(code(), [150, 0])
  await waitFor(() => expect(code().textContent).toBe(second))
})

test('what is said is written into the note, where the browser does so on the device itself; elsewhere nobody is offered it', async () => {
  await leftRound()
  await app.open('/rounds')
  await screen.findByText('1 of 3 checked')
  expect(screen.queryByRole('button', { name: 'say it' })).toBeNull()
  const begun: { onresult?: (event: object) => void; onend?: () => void }[] = []
  class Listens {
    static available = () => Promise.resolve('available')
    onresult?: (event: object) => void
    onend?: () => void
    start(): void {
      begun.push(this)
    }
    stop(): void {
      this.onend?.()
    }
  }
  Object.assign(window, { SpeechRecognition: Listens })
  await app.open('/rounds')
  await press('say it')
  act(() => begun[0]?.onresult?.({ results: [[{ transcript: ' one hides ' }], [{ transcript: 'behind the pump' }]] }))
  expect((await screen.findByRole<HTMLInputElement>('textbox', { name: 'note' })).value).toBe('one hides behind the pump')
  await press('say it')
  expect(screen.getByRole('button', { name: 'say it' }).getAttribute('aria-pressed')).toBe('false')
  Reflect.deleteProperty(window, 'SpeechRecognition')
})
