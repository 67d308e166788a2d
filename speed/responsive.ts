import { launchBrowser, openRoom, signIn, taskWords, watchTasks } from './browserRoom'

/** Longest task that a hand does not notice, ms. */
const aimMs = 50
/** How long the page itself is busy while two thousand bags are drawn beside it, in a real browser. */
export async function benchResponsive(): Promise<void> {
  const room = await openRoom()
  const browser = await launchBrowser()
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await signIn(page, room.url)
  await page.goto(`${room.url}/bench/compare?line=${room.lineId}`)
  await page.getByRole('status').filter({ hasText: 'plausible bags' }).waitFor()
  const passed = await watchTasks(page)
  await page.getByText('A first answer').waitFor({ timeout: 60_000 })
  const first = await passed()
  await page.getByText('Worth reading before you cut?').waitFor({ timeout: 180_000 })
  const all = await passed()
  await page.getByRole('region', { name: /^Curves of/ }).waitFor()
  await page.waitForTimeout(500)
  const drawn = await passed()
  await browser.close()
  room.close()
  const longest = Math.max(first.longestMs, all.longestMs)
  console.log(`\nBench page while every school is tried on 2,000 bags beside it, in Chromium: first answer after ${(first.sinceMs / 1000).toFixed(1)} s, all after ${(all.sinceMs / 1000).toFixed(1)} s`)
  console.log(`  longest task of the page meanwhile: ${taskWords(longest)}   aim: under ${aimMs} ms, ${longest < aimMs ? 'met' : 'NOT met'}; drawing the curves afterwards: ${taskWords(drawn.longestMs)}`)
}
