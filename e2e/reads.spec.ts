import type { Page } from '@playwright/test'
import { expect, openedLine, test } from './fixtures'

/** What a page asks of the server, by address, from now on. */
function readsOf(page: Page): { since(): string[]; settle(): Promise<void> } {
  let asked: string[] = []
  let lastMs = Date.now()
  // A page that does not hear yet reads, as soon as it does, whatever was written before.
  let isListening = false
  page.on('response', (response) => {
    if (new URL(response.url()).pathname !== '/api/events') return
    isListening = true
    lastMs = Date.now()
  })
  page.on('request', (request) => {
    if (request.isNavigationRequest()) isListening = false
    const { pathname, search } = new URL(request.url())
    if (request.method() !== 'GET' || !pathname.startsWith('/api/') || pathname === '/api/events' || pathname.startsWith('/api/photos')) return
    asked.push(pathname + search)
    lastMs = Date.now()
  })
  return {
    since: () => [...new Set(asked)],
    /** Until the page hears of changes and nothing was asked for a while; what was asked before does not count. */
    async settle() {
      await expect.poll(() => isListening && Date.now() - lastMs > 1000, { timeout: 60_000 }).toBe(true)
      asked = []
    },
  }
}

test('a touch on one device makes another read what shows it, at most two addresses; a screen that does not show it reads nothing', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Kuhli loach', count: 12, bags: 2, tank: 'R1-05' })
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const idOf = (code: string): string => tanks.find((tank) => tank.code === code)?.id ?? ''
  const happenedAtMs = (): number => Date.now()
  const { lotId } = await server.post<{ lotId: string }>(`/api/tanks/${idOf('R1-01')}/additions`, { species: 'Cherry barb', quantity: 9, how: 'brought-in', note: null, happenedAtMs: happenedAtMs() })
  const next = await server.post<{ id: string }>('/api/crates', { supplier: 'Pale Harbour', expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Cherry barb', count: 16, bags: 8, perBag: null, tankId: idOf('R1-02') }] })
  const { bags } = await server.get<{ bags: { id: string }[] }>(`/api/crates/${next.id}`)
  let nth = 0
  const touches = {
    check: () => server.post('/api/checks', { tankId: idOf('R1-01'), roundNumber: 1, ate: 'all', signs: [], seen: null, note: null, replacesId: null, happenedAtMs: happenedAtMs() }),
    loss: () => server.post(`/api/tanks/${idOf('R1-01')}/losses`, { lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs: happenedAtMs() }),
    bag: () => server.post(`/api/crates/${next.id}/bags`, { bagIds: [bags[(nth += 1)]?.id], alive: 2, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs: happenedAtMs() }),
  }
  // The first bag makes it a crate on the floor, which the clock strip tells.
  await touches.bag()
  const reads = readsOf(page)
  const cases: [screen: string, touch: keyof typeof touches, reads: (string | RegExp)[]][] = [
    ['/today', 'check', ['/api/today']],
    ['/room', 'check', ['/api/room']],
    ['/rounds', 'check', ['/api/rounds/today']],
    ['/room/R1-01', 'check', ['/api/tanks/R1-01?entries=40']],
    ['/room/R1-03', 'check', []],
    ['/crates', 'check', []],
    ['/bench', 'check', []],
    ['/setup/limits', 'check', []],
    ['/today', 'loss', ['/api/today']],
    ['/rounds', 'loss', ['/api/rounds/today']],
    ['/setup/species', 'loss', []],
    [`/crates/${next.id}/unpack`, 'bag', [`/api/crates/${next.id}`]],
    [`/crates/${crate.id}/unpack`, 'bag', []],
    ['/crates', 'bag', [/^\/api\/crates\?/]],
    ['/today', 'bag', ['/api/today']],
    ['/desk', 'bag', []],
  ]
  for (const [screen, touch, expected] of cases) {
    await driver.goto(screen)
    await expect(page.getByRole('main')).toBeVisible()
    await reads.settle()
    await touches[touch]()
    if (expected.length > 0) await expect.poll(() => reads.since(), { message: `${screen} reads a ${touch} anew` }).toEqual(expect.arrayContaining(expected.map((each) => (typeof each === 'string' ? each : expect.stringMatching(each)) as string)))
    await page.waitForTimeout(1000)
    expect(reads.since().length, `${screen} after a ${touch}: ${reads.since().join(', ')}`).toBeLessThanOrEqual(expected.length === 0 ? 0 : 2)
  }
})

test('whoever goes back to a screen of which nothing was touched is not made to wait for it, and the server is not asked', async ({ driver, server, page }) => {
  const reads = readsOf(page)
  await driver.goto('/today')
  await page.getByRole('link', { name: 'Room', exact: true }).first().click()
  await expect(page).toHaveURL(/\/room$/)
  await reads.settle()
  await page.goBack()
  await page.goForward()
  await expect(page).toHaveURL(/\/room$/)
  await page.waitForTimeout(500)
  expect(reads.since()).toEqual([])
  // What was touched meanwhile is asked for, and shown.
  await page.goBack()
  await reads.settle()
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await server.post(`/api/tanks/${tanks[0]?.id}/additions`, { species: 'Cherry barb', quantity: 9, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await expect.poll(() => reads.since()).toContain('/api/today')
  await page.goForward()
  await expect(page.getByRole('link', { name: new RegExp(`^${tanks[0]?.code}.* 9 fish`) })).toBeVisible()
  expect(reads.since()).toContain('/api/room')
})

test('a network that broke without a word is known by the silence: the stream is opened anew, and what was missed is read', async ({ driver, server, page }) => {
  await page.clock.install()
  const reads = readsOf(page)
  await driver.goto('/room')
  // A first word that came only now would be heard after the silence, which then begins anew.
  await reads.settle()
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const opened = page.waitForRequest('**/api/events')
  // As on a phone that slept: more than a minute goes by, and nothing was heard.
  await page.clock.fastForward(90_000)
  await opened
  await server.post(`/api/tanks/${tanks[0]?.id}/additions`, { species: 'Cherry barb', quantity: 9, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await page.clock.fastForward(5000)
  await expect(page.getByRole('link', { name: new RegExp(`^${tanks[0]?.code}.* 9 fish`) })).toBeVisible()
})
