import { test as base, type Browser, type BrowserContextOptions } from '@playwright/test'
import { Driver } from './driver'
import { Rooms, type OpenRoom } from './rooms'

/** Twelve lines, forty bags, each line in a tank of its own: species, bags, fish per bag, tank. */
export const delivery: [string, number, number, string][] = [
  ['Harlequin rasbora', 6, 12, 'R1-01'],
  ['Cherry barb', 5, 8, 'R1-02'],
  ['Honey gourami', 4, 6, 'R1-03'],
  ['Kuhli loach', 4, 5, 'R1-04'],
  ['Dwarf rainbowfish', 3, 8, 'R1-05'],
  ['Sparkling gourami', 2, 10, 'R1-06'],
  ['Blue-green chromis', 4, 1, 'M1-01'],
  ['Pajama cardinalfish', 4, 1, 'M1-02'],
  ['Banggai cardinalfish', 3, 2, 'M1-03'],
  ['Scooter dragonet', 2, 1, 'M1-04'],
  ['Trochus snail', 2, 6, 'M1-05'],
  ['Cleaner shrimp', 1, 3, 'M1-06'],
]
export const deliveryCsv = ['species,count,bags,per bag,tank', ...delivery.map(([species, bags, perBag, tank]) => `${species},${bags * perBag},${bags},${perBag},${tank}`)].join('\n')

interface Fixtures {
  server: OpenRoom
  driver: Driver
  /** Opens one more device for the lead, with a session of its own; closed with the test. */
  anotherDevice: (options?: BrowserContextOptions) => Promise<Driver>
}

const signedIn = (url: string, cookie: string): BrowserContextOptions['storageState'] => {
  const [name = '', value = ''] = cookie.split('=')
  return { cookies: cookie ? [{ name, value, domain: new URL(url).hostname, path: '/', expires: -1, httpOnly: true, secure: false, sameSite: 'Strict' }] : [], origins: [] }
}

export const test = base.extend<Fixtures, { rooms: Rooms }>({
  /** The server of this worker, from which every test gets a room. */
  rooms: [
    async ({}, use) => {
      const rooms = Rooms.start()
      await use(rooms)
      await rooms.end()
    },
    { scope: 'worker' },
  ],
  /** The furnished room, for this test alone. */
  server: async ({ rooms }, use) => {
    const server = await rooms.copy()
    await use(server)
    await server.end()
  },
  /** A device of it on which the lead is recording. */
  storageState: ({ server }, use) => use(signedIn(server.url, server.device)),
  driver: ({ page, server }, use) => use(new Driver(page, server.url)),
  anotherDevice: async ({ browser, server }, use) => {
    const devices: Awaited<ReturnType<Browser['newContext']>>[] = []
    await use(async (options = {}) => {
      const { cookie } = await server.openDevice()
      const context = await browser.newContext({ ...options, storageState: signedIn(server.url, cookie) })
      devices.push(context)
      return new Driver(await context.newPage(), server.url)
    })
    for (const device of devices) await device.close()
  },
})
export { expect } from '@playwright/test'
export { openedLine, openedLines } from './openedLines'
