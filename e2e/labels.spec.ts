import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { create } from 'qrcode'
import { expect, test } from './fixtures'
import type { OpenRoom } from './rooms'

// A label before a camera that shows one picture again and again, and without any camera.

const [width, height] = [640, 480]

/** A film of one picture: a QR code on white, as cameras of a browser without eyes play it. */
function filmOf(text: string): string {
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const [size, scale] = [modules.size, 10]
  const luma = Buffer.alloc(width * height, 235)
  const [left, top] = [Math.floor((width - size * scale) / 2), Math.floor((height - size * scale) / 2)]
  for (let y = 0; y < size * scale; y += 1)
    for (let x = 0; x < size * scale; x += 1) if (modules.data[Math.floor(y / scale) * size + Math.floor(x / scale)]) luma[(top + y) * width + left + x] = 16
  const chroma = Buffer.alloc((width * height) / 2, 128)
  const file = join(mkdtempSync(join(tmpdir(), 'daily-crate-film-')), 'label.y4m')
  writeFileSync(file, Buffer.concat([Buffer.from(`YUV4MPEG2 W${width} H${height} F10:1 Ip A1:1 C420jpeg\n`), ...Array.from({ length: 3 }, () => [Buffer.from('FRAME\n'), luma, chroma]).flat()]))
  return file
}

const bring = async (server: OpenRoom, code: string): Promise<void> => {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await server.post(`/api/tanks/${tanks.find((tank) => tank.code === code)?.id}/additions`, { species: 'Cherry barb', quantity: 3, how: 'brought-in', note: null, happenedAtMs: Date.now() })
}

test.use({ launchOptions: ({ launchOptions }, use) => use({ ...launchOptions, args: [...(launchOptions.args ?? []), '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream', `--use-file-for-fake-video-capture=${filmOf('http://192.168.1.20:4310/t/R1-05')}`] }) })

test('a label before the camera opens its tank, and on a round its card', async ({ driver, server, page }) => {
  for (const code of ['R1-02', 'R1-05']) await bring(server, code)
  await driver.goto('/scan')
  await page.waitForURL(/\/room\/R1-05$/)
  await expect(page.getByRole('heading', { name: 'R1-05' })).toBeVisible()
  await driver.goto('/rounds')
  await expect(page.locator('main')).toContainText('R1-02')
  await driver.follow('scan')
  await page.waitForURL(/\/rounds\?tank=R1-05$/)
  await expect(page.locator('main')).toContainText('R1-05')
})

test('what a label leads to is the tank; what is none is said', async ({ driver, server, page }) => {
  await driver.goto('/t/R1-05')
  await page.waitForURL(/\/room\/R1-05$/)
  const pdf = await page.request.get(`${server.url}/api/labels.pdf?rack=R1`)
  expect([pdf.status(), pdf.headers()['content-type'], (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, 'application/pdf', '%PDF-'])
  expect((await page.request.get(`${server.url}/api/labels.pdf?rack=ZZ`)).status()).toBe(404)
})
