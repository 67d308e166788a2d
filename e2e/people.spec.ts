import { expect, test } from './fixtures'
import { lead } from './room'

const oona = { name: 'Oona', pin: '2222' }

test('what one person did offline is sent as theirs, after another took the tablet over', async ({ driver, server, page }) => {
  await server.post('/api/staff', { ...oona, role: 'keeper', passphrase: null })
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,4,8,R1-01')
  await driver.goto('/today')
  await driver.changeRecorder(oona)
  await driver.goto(`${crate}/unpack`)
  await driver.bagInHand(1)
  await page.route('**/bags', (route) => route.abort())
  await driver.recordBag()
  await driver.bagInHand(2)
  await page.goBack()
  await driver.changeRecorder(lead)
  await driver.goto(`${crate}/unpack`)
  await driver.bagInHand(2)
  await driver.recordBag()
  await page.unroute('**/bags')
  await driver.allSent()
  const view = await server.get<{ bags: { record: { staffName: string } | null }[] }>(`/api${crate}`)
  expect(view.bags.map(({ record }) => record?.staffName ?? null)).toEqual(['Oona', 'Imre', null, null])
})

test('a session that ended keeps what was entered; signing in and a PIN send it', async ({ driver, server, page }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,3,8,R1-01')
  await driver.openUnpack()
  await driver.bagInHand(1)
  await page.context().clearCookies()
  await driver.recordBag()
  await driver.bagInHand(2)
  await expect(page.getByText('1 entry kept on this device, wait until this device is signed in.')).toBeVisible()
  await page.reload()
  await expect(page.getByText(/1 entry made on this device is kept/)).toBeVisible()
  await driver.signIn(lead)
  await driver.allSent()
  const view = await server.get<{ bags: { record: { alive: number } | null }[] }>(`/api${crate}`)
  expect(view.bags.map(({ record }) => record?.alive ?? null)).toEqual([8, null, null])
})

test('a wrong PIN is said, and going on as before takes none', async ({ driver, server, page }) => {
  await server.post('/api/staff', { ...oona, role: 'keeper', passphrase: null })
  await driver.goto('/today')
  await page.getByRole('button', { name: /^recording/ }).click()
  await page.getByRole('button', { name: /^Oona / }).click()
  await driver.typePin('9999')
  await expect(page.getByRole('alert')).toHaveText('That is not the PIN')
  await page.getByRole('button', { name: 'somebody else' }).click()
  await page.getByRole('button', { name: 'go on as Imre' }).click()
  await expect(page.getByRole('heading', { name: 'A new room' })).toBeVisible()
})
