import type { AddressInfo } from 'node:net'
import { createServer, get, type IncomingMessage } from 'node:http'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createTestRoom, quietCheck, type TestRoom } from '../testing/testRoom'

let room: TestRoom
let url: string
const server = createServer((request, response) => void room.app(request, response))
beforeAll(async () => {
  room = await createTestRoom()
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(async () => {
  server.closeAllConnections()
  await new Promise((done) => server.close(done))
  room.db.close()
})

const listen = (): Promise<IncomingMessage> => new Promise((resolve, reject) => get(`${url}/api/events`, { headers: { Cookie: room.cookie } }, resolve).on('error', reject))
const endOf = (stream: IncomingMessage): Promise<unknown> => new Promise((resolve) => stream.resume().once('end', resolve))
const heard = (stream: IncomingMessage): Promise<string> => new Promise((resolve) => stream.on('data', (part: Buffer) => String(part).includes('touched') && resolve(String(part))))

test('streams that a broken network left open on a device make room for new ones, and the newest hears what is written', async () => {
  const streams: IncomingMessage[] = []
  for (let nth = 0; nth < 7; nth += 1) streams.push(await listen())
  await endOf(streams[0] as IncomingMessage)
  const last = heard(streams[6] as IncomingMessage)
  await room.post('/api/checks', quietCheck(room.tanks[0]?.id ?? ''))
  expect(await last).toContain(`"look:${room.tanks[0]?.id}"`)
})

test('a device hears which books it listens to, what each write touched and by which key; what is due only when it has become another', async () => {
  const stream = await listen()
  let said = ''
  stream.on('data', (part: Buffer) => (said += String(part)))
  const told = (): { touched?: string[]; by?: string | null; books?: string }[] => [...said.matchAll(/data: (.*)\n/g)].map(([, words = '{}']) => JSON.parse(words) as object)
  const heardOf = async (thing: string): Promise<void> => {
    while (!told().some(({ touched }) => touched?.includes(thing))) await new Promise((resolve) => setTimeout(resolve, 20))
  }
  const { headers } = await room.get('/api/room')
  const key = 'a-check-of-this-test'
  await room.post('/api/checks', quietCheck(room.tanks[1]?.id ?? ''), { key })
  await heardOf('round')
  expect(told()[0]).toMatchObject({ books: expect.any(String), devices: expect.any(Number) })
  expect(String(headers.etag)).toContain(told()[0]?.books)
  expect(told()[1]).toMatchObject({ touched: [`look:${room.tanks[1]?.id}`, 'round'], by: key })
  // A crate is work that waits; another look at a tank is not.
  await room.crateOf([['Cherry barb', 6, 1, room.tanks[0] ?? null]])
  await heardOf('due')
  const before = told().filter(({ touched }) => touched?.includes('due')).length
  await room.post('/api/checks', quietCheck(room.tanks[2]?.id ?? ''))
  await heardOf(`look:${room.tanks[2]?.id}`)
  await new Promise((resolve) => setTimeout(resolve, 600))
  expect([before, told().filter(({ touched }) => touched?.includes('due')).length]).toEqual([1, 1])
  stream.destroy()
})
