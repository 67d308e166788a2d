import { expect, test as base } from '@playwright/test'
import { Driver } from './driver'
import { lead, TestServer } from './server'

const test = base.extend<{ bare: TestServer }>({
  bare: async ({}, use) => {
    const server = await TestServer.start()
    await use(server)
    await server.kill()
  },
})

test('from nothing to the first unpacked crate: lead, rack, keeper, list, bags, tank', async ({ page, bare }) => {
  const driver = new Driver(page, bare.url)
  await driver.goto('/')
  await page.getByLabel('Name of the room').fill('Lantern Quay')
  await page.getByLabel('Your name').fill(lead.name)
  await page.getByLabel('Passphrase').fill('short')
  await page.getByLabel('PIN').fill(lead.pin)
  await page.getByRole('button', { name: 'Make the room' }).click()
  await expect(page.getByText('Passphrase needs at least 10 characters')).toBeVisible()
  await expect(page.getByLabel('Name of the room')).toHaveValue('Lantern Quay')
  await page.getByLabel('Passphrase').fill(lead.passphrase)
  await page.getByRole('button', { name: 'Make the room' }).click()
  await expect(page.getByText('Crates stand here from their packing list on.')).toBeVisible()

  await driver.goto('/room')
  await page.getByRole('link', { name: 'Add the first rack' }).click()
  await driver.type('New system', 'Fresh sale rack')
  await driver.type(/^Tanks/, '4')
  await page.getByRole('button', { name: 'Add system and tanks' }).click()
  await expect(page.getByText('4 tanks: R1-01 to R1-04')).toBeVisible()
  await driver.type('New system', 'Fresh sale rack')
  await driver.type(/^Rack/, 'R2')
  await page.getByRole('button', { name: 'Add system and tanks' }).click()
  await expect(page.getByText('There is a system called Fresh sale rack already')).toBeVisible()

  await driver.type('New person', 'Oona')
  await driver.type('PIN', '2222')
  await page.getByRole('button', { name: 'Add person' }).click()
  await expect(page.getByText('Oona keeper')).toBeVisible()
  expect(await page.evaluate(() => JSON.stringify(localStorage))).not.toContain('2222')
  await driver.changeRecorder({ name: 'Oona', pin: '2222' })
  await expect(page.getByRole('link', { name: 'Setup' })).toBeHidden()

  await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,2,8,\nKuhli loach,1,5,R1-02')
  await page.getByLabel('tank for Cherry barb').selectOption({ label: 'R1-01 (empty)' })
  await driver.openUnpack()
  for (const bag of [1, 2, 3]) {
    await driver.bagInHand(bag)
    await driver.recordBag()
  }
  await driver.placeAll()
  await driver.allPlaced()
  await driver.allSent()
  await driver.goto('/room/R1-01')
  await expect(page.getByText('16 fish of 1 lot.')).toBeVisible()
  await driver.openEntry('Cherry barb from 2 bags of crate 1')
  await driver.openEntry('Cherry barb from bag 1 of crate 1')
  await expect(page.getByText(/by Oona$/)).toBeVisible()
  await page.getByRole('link', { name: 'Crate 1, where this lot came from' }).click()
  await expect(page.getByText('Every fish of this crate is out of its bag.')).toBeVisible()
})
