import { networkInterfaces } from 'node:os'
import { expect, test } from '@playwright/test'
import { Driver } from './driver'
import { delivery, deliveryCsv } from './fixtures'
import { lead, racks } from './room'
import { TestServer } from './server'

/** An address of this machine that is not loopback: plain http there is what a phone on the shop's network has. */
function lanAddress(): string {
  const own = Object.values(networkInterfaces()).flat().find((each) => each && each.family === 'IPv4' && !each.internal)?.address
  const address = process.env.CRATE_LAN_ADDRESS ?? own
  if (!address) throw new Error('this machine has no address but loopback; set CRATE_LAN_ADDRESS')
  return address
}

test('plain http over the network, the server killed in the middle, one reload: no touch lost, none doubled', async ({ page }) => {
  const server = await TestServer.start(lanAddress())
  await server.furnish(racks)
  const driver = new Driver(page, server.url)
  await driver.signIn(lead)
  expect(await page.evaluate(() => [window.isSecureContext, typeof crypto.randomUUID])).toEqual([false, 'undefined'])
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', deliveryCsv)
  await driver.openUnpack()

  const unpack = async (from: number, to: number): Promise<void> => {
    for (let bag = from; bag <= to; bag += 1) {
      await driver.bagInHand(bag)
      // Every fifth bag is one short, so that a bag recorded in another's place would show.
      if (bag % 5 === 0 && bag < 20) await driver.lessAlive()
      await driver.recordBag()
    }
  }
  await unpack(1, 14)
  await server.kill()
  await unpack(15, 24)
  await driver.bagInHand(25)
  await driver.toggleLook('Bag')
  await expect(page.getByText(/The server cannot be reached\. \d+ entries kept on this device/)).toBeVisible()
  expect(await driver.waitingEntries()).toBeGreaterThanOrEqual(10)
  await server.up()
  await page.reload()
  await driver.bagInHand(25)
  await expect(page.getByRole('button', { name: /^Bag leaking/ })).toHaveAttribute('aria-pressed', 'true')
  await unpack(25, 40)
  await driver.placeAll()
  await driver.allPlaced()
  await driver.allSent()

  const { bags } = await server.get<{ bags: { number: number; listed: number; inBag: number; record: { alive: number; concerns: string[] } | null }[] }>(`/api${crate}`)
  expect(bags.map(({ record }) => record?.alive)).toEqual(bags.map(({ number, listed }) => (number % 5 === 0 && number < 20 ? listed - 1 : listed)))
  expect(bags.filter(({ record }) => record?.concerns.length).map(({ number }) => number)).toEqual([25])
  const short: Record<string, number> = { 'R1-01': 1, 'R1-02': 1, 'R1-03': 1 }
  expect(await server.stock()).toEqual(Object.fromEntries(delivery.map(([species, count, perBag, tank]) => [tank, { [species]: count * perBag - (short[tank] ?? 0) }])))
  await server.end()
})

test('a round while the server is gone and back: nothing typed is lost, every look once, in order, with the time it was made', async ({ page }) => {
  const server = await TestServer.start(lanAddress())
  await server.furnish(racks)
  const driver = new Driver(page, server.url)
  await driver.signIn(lead)
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const longAgoMs = Date.now() - 30 * 86_400_000
  for (const { id } of tanks.slice(0, 8)) await server.post(`/api/tanks/${id}/additions`, { species: 'Cherry barb', quantity: 6, how: 'brought-in', note: null, happenedAtMs: longAgoMs })
  await driver.goto('/rounds')
  const walked: string[] = []
  const look = async (enter: () => Promise<void> = () => Promise.resolve()): Promise<void> => {
    const code = await driver.cardCode()
    walked.push(code)
    await enter()
    await driver.check()
    await expect.poll(() => driver.cardCode()).not.toBe(code)
  }
  await look()
  await look()
  await driver.fetchedAhead()
  await server.kill()
  await look(() => driver.sign('spots'))
  await look(() => driver.answer('none ate'))
  await look()
  const half = await driver.cardCode()
  await driver.fill('note', 'one hides behind the pump')
  await server.up()
  await page.reload()
  await driver.cardFor(half)
  await expect(page.getByRole('textbox', { name: 'note' })).toHaveValue('one hides behind the pump')
  await look()
  await look()
  walked.push(await driver.cardCode())
  await driver.check()
  await driver.roundDone()
  await driver.allSent()

  const { stops } = await server.get<{ stops: { code: string; check: { signs: string[]; ate: string; note: string | null } }[] }>('/api/rounds/today')
  expect(stops.map(({ code }) => code)).toEqual(walked)
  expect(stops.map(({ check }) => [...check.signs, check.ate, check.note].filter((each) => each !== 'all' && each !== null))).toEqual([[], [], ['spots'], ['none'], [], ['one hides behind the pump'], [], []])
  const made = await Promise.all(walked.map(async (code) => (await server.get<{ timeline: { type: string; happenedAtMs: number; recordedAtMs: number }[] }>(`/api/tanks/${code}`)).timeline.filter(({ type }) => type === 'check')))
  expect(made.map((checks) => checks.length)).toEqual(walked.map(() => 1))
  const times = made.flatMap((checks) => checks.map(({ happenedAtMs }) => happenedAtMs))
  expect(times).toEqual([...times].sort((a, b) => a - b))
  // What was looked at while the server was gone was made before it was recorded.
  expect(made.slice(2, 5).flatMap((checks) => checks.map(({ happenedAtMs, recordedAtMs }) => recordedAtMs - happenedAtMs > 500))).toEqual([true, true, true])
  await server.end()
})
