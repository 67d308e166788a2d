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
