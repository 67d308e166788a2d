import { delivery, deliveryCsv, expect, test } from './fixtures'

test('the whole thread: list, 40 bags with trouble, placing, a move, a loss, a reversal, a round', async ({ driver, server, page }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', deliveryCsv)
  await driver.openUnpack()

  // Bag 1: two dead, water cloudy. Bag 7: one dead, thin, readings. Bag 12: one short. Bag 16: one extra. The rest are plain.
  const trouble: Record<number, () => Promise<void>> = {
    1: async () => {
      await driver.oneDead()
      await driver.oneDead()
      await driver.toggleLook('Water')
      await driver.type('note', 'cloudy')
    },
    7: async () => {
      await driver.oneDead()
      await driver.chooseBody('thin')
      await driver.type(/^skin/, '23,5')
      await driver.type(/^water/, '21.5')
      await driver.type(/^salinity/, '0.4')
    },
    12: () => driver.lessAlive(),
    16: () => driver.moreAlive(),
  }
  for (let bag = 1; bag <= 40; bag += 1) {
    await driver.bagInHand(bag)
    await trouble[bag]?.()
    await driver.recordBag()
  }
  expect(await driver.totals()).toContain('(1 short, 1 extra)')
  expect(await driver.totals()).toContain('3 dead')
  await driver.placeTank('R1-01')
  await driver.placeAll()
  await driver.allPlaced()
  await driver.undo()
  await driver.placeAll()
  await driver.allPlaced()
  await driver.allSent()

  const tally: Record<string, Record<string, number>> = Object.fromEntries(delivery.map(([species, bags, perBag, tank]) => [tank, { [species]: bags * perBag }]))
  tally['R1-01']!['Harlequin rasbora']! -= 2
  tally['R1-02']!['Cherry barb']! -= 1
  tally['R1-03']!['Honey gourami']! -= 1
  tally['R1-04']!['Kuhli loach']! += 1
  expect(await server.stock()).toEqual(tally)

  // Six rasboras move and stay; four loaches move and come back; one gourami is lost.
  await driver.goto('/room/R1-01')
  await driver.moveFish('Harlequin rasbora', 6, 'R1-07')
  await driver.goto('/room/R1-04')
  await driver.moveFish('Kuhli loach', 4, 'R1-08')
  await driver.openEntry('Kuhli loach to R1-08')
  await driver.takeBack()
  await driver.goto('/room/R1-03')
  await driver.loseFish('Honey gourami', 1, 'jumped')
  tally['R1-01']!['Harlequin rasbora']! -= 6
  tally['R1-07'] = { 'Harlequin rasbora': 6 }
  tally['R1-03']!['Honey gourami']! -= 1
  expect(await server.stock()).toEqual(tally)

  // A full round: one tank with a sign and half its food left, the others well.
  await driver.openRound()
  for (let stop = 1; stop <= 13; stop += 1) {
    const code = await driver.cardCode()
    if (code === 'R1-02') {
      await driver.answer('some ate')
      await driver.sign('clamped fins')
    }
    await driver.check()
    if (stop < 13) await expect(page.locator('.check-card h2')).not.toHaveText(code)
  }
  await driver.roundDone()
  await driver.allSent()
  const room = await server.get<{ tanks: { code: string; fish: number; isCheckedToday: boolean; flag: { word: string } | null }[] }>('/api/room')
  expect(room.tanks.filter((tank) => tank.fish > 0).every((tank) => tank.isCheckedToday)).toBe(true)
  expect(room.tanks.filter((tank) => tank.flag).map(({ code, flag }) => [code, flag?.word])).toEqual([['R1-03', '1 lost']])
  expect(await server.stock()).toEqual(tally)

  // The crate's own page agrees, and what stands in the timeline opens the crate.
  await driver.goto(crate)
  expect(await driver.totals()).toMatch(/40 of 40 bags · 228 alive · 3 dead · list so far ±0/)
})

test('touches: 40 plain bags and placing them; a quiet round over 16 tanks', async ({ driver, server }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', deliveryCsv)
  driver.touches = 0
  await driver.openUnpack()
  for (let bag = 1; bag <= 40; bag += 1) {
    await driver.bagInHand(bag)
    await driver.recordBag()
  }
  await driver.placeAll()
  await driver.allPlaced()
  await driver.allSent()
  console.log(`touches for 40 plain bags: ${driver.touches}`)
  expect(driver.touches).toBeLessThanOrEqual(44)
  const { bags } = await server.get<{ bags: { inBag: number }[] }>(`/api${crate}`)
  expect(bags.every((bag) => bag.inBag === 0)).toBe(true)

  const { tanks } = await server.get<{ tanks: { id: string; fish: number }[] }>('/api/room')
  for (const tank of tanks.filter((each) => each.fish === 0)) {
    await server.post(`/api/tanks/${tank.id}/additions`, { species: 'Cherry barb', quantity: 5, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  }
  await driver.goto('/room')
  driver.touches = 0
  await driver.walkQuietRound(16)
  console.log(`touches for a quiet round over 16 tanks: ${driver.touches}`)
  expect(driver.touches).toBeLessThanOrEqual(17)
})

test('five the same are two touches; undo gives them back with what was entered', async ({ driver, server }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,7,8,R1-01\nKuhli loach,2,5,R1-02')
  await driver.openUnpack()
  await driver.bagInHand(1)
  await driver.lessAlive()
  driver.touches = 0
  await driver.theSame(5)
  expect(driver.touches).toBe(2)
  await driver.bagInHand(6)
  expect(await driver.totals()).toContain('5 of 9 bags · 35 alive')
  await driver.undo()
  await driver.bagInHand(1)
  expect(await driver.totals()).toContain('0 of 9 bags')
  await driver.recordBag()
  await driver.otherFish('Kuhli loach')
  await driver.bagInHand(8)
  await driver.recordBag()
  await driver.bagInHand(9)
  await driver.allSent()
  const view = await server.get<{ bags: { record: { alive: number } | null }[] }>(`/api${crate}`)
  expect(view.bags.map((bag) => bag.record?.alive ?? null)).toEqual([7, null, null, null, null, null, null, 5, null])
})

test('two devices unpack one crate: they see each other, and the second record of a bag is told, not lost in silence', async ({ driver, anotherDevice }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,3,8,R1-01')
  const other = await anotherDevice()
  await other.goto(`${crate}/unpack`)
  await driver.openUnpack()
  await driver.bagInHand(1)
  await other.bagInHand(1)
  await other.page.context().setOffline(true)
  await other.lessAlive()
  await other.recordBag()
  await driver.recordBag()
  await driver.allSent()
  await other.page.context().setOffline(false)
  await expect(other.page.getByRole('alert')).toContainText('Bag 1 was recorded already (8 alive, 0 dead, by Imre)')
  await expect.poll(() => other.totals()).toContain('8 alive')
})
