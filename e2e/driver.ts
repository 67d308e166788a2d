import { expect, type Locator, type Page } from '@playwright/test'

/** Everything the tests know about how the screens look. Touches are counted as a finger would make them. */
export class Driver {
  touches = 0

  constructor(
    readonly page: Page,
    readonly url: string,
  ) {}

  async touch(target: Locator): Promise<void> {
    this.touches += 1
    await target.click()
  }

  private button = (name: string | RegExp): Locator => this.page.getByRole('button', { name })
  act = (): Locator => this.page.locator('.thumb-bar .btn-act')

  goto = (path: string) => this.page.goto(`${this.url}${path}`)
  press = (name: string | RegExp) => this.touch(typeof name === 'string' ? this.page.getByRole('button', { name, exact: true }) : this.button(name))
  follow = (name: string) => this.touch(this.page.getByRole('link', { name, exact: true }))
  /** A field counts as one touch, however much is typed. */
  async fill(label: string | RegExp, text: string, exact = false): Promise<void> {
    this.touches += 1
    await this.page.getByLabel(label, { exact }).fill(text)
  }
  async choose(label: string, option: string, exact = false): Promise<void> {
    this.touches += 1
    await this.page.getByLabel(label, { exact }).selectOption({ label: option })
  }
  openScreen = (name: string) => this.touch(this.page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name }))

  /** Opens the device and says who is recording. */
  async signIn(person: { name: string; passphrase: string; pin: string }): Promise<void> {
    await this.goto('/')
    await this.page.getByLabel('Name', { exact: true }).fill(person.name)
    await this.page.getByLabel('Passphrase').fill(person.passphrase)
    await this.button('Open this device').click()
    await this.identify(person)
  }

  /** Picks a name and types the PIN on the pad. */
  async identify({ name, pin }: { name: string; pin: string }): Promise<void> {
    const heading = this.page.getByRole('heading', { name: 'Who is recording?' })
    await expect(heading.or(this.page.getByRole('group', { name: 'PIN' }))).toBeVisible()
    if (await heading.isVisible()) await this.button(new RegExp(`^${name} `)).click()
    await this.typePin(pin)
    await expect(this.page.getByRole('navigation', { name: 'Screens' })).toBeAttached()
  }

  /** Touches a PIN into the pad. */
  async typePin(pin: string): Promise<void> {
    const pad = this.page.getByRole('group', { name: 'PIN' })
    for (const digit of pin) await pad.getByRole('button', { name: digit, exact: true }).click()
    await pad.getByRole('button', { name: 'record', exact: true }).click()
  }

  /** Hands the device to somebody else. */
  async changeRecorder(person: { name: string; pin: string }): Promise<void> {
    await this.button(/^recording/).click()
    await this.identify(person)
    await expect(this.button(/^recording/)).toContainText(person.name)
  }

  /** Takes a packing list in and returns the address of its crate. */
  async takeInCrate(supplier: string, csv: string): Promise<string> {
    await this.goto('/crates/new')
    await this.page.getByLabel('Supplier', { exact: true }).fill(supplier)
    await this.readList(csv)
    await this.button(/^Take in \d+ lines?, \d+ bags?$/).click()
    await expect(this.page.getByRole('heading', { name: /^Crate \d+$/ })).toBeVisible()
    return new URL(this.page.url()).pathname
  }

  /** Pastes a packing list and has it read. */
  async readList(csv: string): Promise<void> {
    await this.page.getByLabel(/^or pasted/).fill(csv)
    await this.button('Read the list').click()
  }

  /** The crate the Crates page says is next. */
  async openCrateId(): Promise<string> {
    await this.goto('/crates')
    const address = await this.page.getByRole('link', { name: /^unpack crate/ }).getAttribute('href')
    return address?.split('/')[2] ?? ''
  }

  /** The crate that is still on its way. */
  async dueCrateId(): Promise<string> {
    await this.goto('/crates')
    const address = await this.page.locator('.record.stage-due a').first().getAttribute('href')
    return address?.split('/')[2] ?? ''
  }

  // Crates and unpacking
  openUnpack = () => this.touch(this.page.getByRole('link', { name: /^Unpack / }))
  bagInHand = (number: number) => expect(this.page.locator('.bag-name p')).toContainText(`bag ${number} ·`)
  recordBag = () => this.touch(this.act())
  moreAlive = () => this.touch(this.button('one more alive'))
  lessAlive = () => this.touch(this.button('one less alive'))
  oneDead = () => this.touch(this.button(/^dead: \d+, one more$/))
  toggleLook = (name: 'Clock' | 'Bag' | 'Water' | 'Fish') => this.touch(this.page.getByRole('group', { name: 'Four looks' }).getByRole('button', { name: new RegExp(`^${name}`) }))
  chooseBody = (body: string) => this.touch(this.page.getByRole('group', { name: 'Body' }).getByRole('button', { name: body }))
  type = (label: string | RegExp, value: string) => this.page.getByLabel(label).fill(value)
  undo = () => this.touch(this.page.locator('.thumb-bar .undo'))
  async theSame(count: number): Promise<void> {
    await this.touch(this.button('×n the same'))
    await this.touch(this.page.getByRole('dialog').getByRole('button', { name: String(count), exact: true }))
    await expect(this.page.getByRole('dialog')).toBeHidden()
  }
  async otherFish(species: string): Promise<void> {
    await this.touch(this.button('other fish'))
    await this.touch(this.page.getByRole('dialog').getByRole('button', { name: species }))
    await expect(this.page.getByRole('dialog')).toBeHidden()
  }
  /** A picture of the bag in hand: a touch on "photo", and one on the camera's shutter. */
  async photo(jpeg: Buffer): Promise<void> {
    this.touches += 2
    await this.page.getByLabel(/^photo of bag/).setInputFiles({ name: 'bag.jpg', mimeType: 'image/jpeg', buffer: jpeg })
  }
  /** Records every bag that is still shut as plain, the rest of a line with one more touch. */
  async recordRest(): Promise<void> {
    const same = this.button('×n the same')
    const [next, done] = [this.button(/next bag/), this.page.getByText('All bags are open. Place the fish.')]
    for (;;) {
      await expect(next.or(done)).toBeVisible()
      if (await done.isVisible()) return
      const before = await this.page.locator('.totals').innerText()
      if (await same.isEnabled()) {
        await this.touch(same)
        await this.touch(this.page.getByRole('dialog').locator('.number-choice button').last())
        await expect(this.page.getByRole('dialog')).toBeHidden()
      } else await this.recordBag()
      await expect(this.page.locator('.totals')).not.toHaveText(before)
    }
  }
  openPage = (name: 'Crate' | 'Prepare' | 'Tanks' | 'Unpack' | 'Claim') => this.touch(this.page.getByRole('navigation', { name: 'Pages of this crate' }).getByRole('link', { name, exact: true }))
  placeTank = (code: string) => this.touch(this.page.locator('.share-list li').filter({ hasText: code }).getByRole('button', { name: 'place' }))
  placeAll = () => this.touch(this.page.getByRole('button', { name: /^Place all/ }))
  allPlaced = () => expect(this.page.getByText('Every fish is out of its bag.')).toBeVisible()
  totals = () => this.page.locator('.totals').innerText()

  /** Waits until the server has answered for everything this device recorded. */
  async allSent(): Promise<void> {
    await expect.poll(() => this.page.evaluate(() => Object.keys(localStorage).filter((slot) => slot.startsWith('crate.outbox.')).length), { timeout: 30_000 }).toBe(0)
  }
  waitingEntries = () => this.page.evaluate(() => Object.keys(localStorage).filter((slot) => slot.startsWith('crate.outbox.')).length)

  // Tank
  private lot = (species: string): Locator => this.page.locator('.stock').filter({ hasText: species }).first()
  async openAction(species: string, action: 'lost' | 'count' | 'another kind'): Promise<void> {
    await this.touch(this.lot(species).getByRole('button', { name: 'count …' }))
    await this.touch(this.lot(species).getByRole('button', { name: action, exact: true }))
  }
  /** Two touches for up to nine, three for any number. */
  async sell(species: string, ...numbers: string[]): Promise<void> {
    await this.touch(this.lot(species).getByRole('button', { name: 'sold', exact: true }))
    for (const number of numbers) await this.touch(this.page.getByRole('dialog').getByRole('button', { name: number, exact: true }))
    await expect(this.page.getByRole('dialog')).toBeHidden()
  }
  died = (species: string) => this.touch(this.lot(species).getByRole('button', { name: '1 died', exact: true }))
  /** Says on the screen of a move how many go where; what it is pressed for stands in the thumb's reach then. */
  async sayMove(species: string, quantity: number, toCode: string): Promise<void> {
    await this.touch(this.lot(species).getByRole('link', { name: 'move', exact: true }))
    await this.chooseNumber(quantity)
    await this.chooseTank(toCode)
  }
  async chooseNumber(quantity: number): Promise<void> {
    const pad = this.page.locator('.open-kind')
    const tens = Math.floor(quantity / 10) * 10
    if (tens > 0) await this.touch(pad.getByRole('button', { name: `${tens} and more`, exact: true }))
    await this.touch(pad.getByRole('button', { name: String(quantity), exact: true }))
  }
  /** One of the best places with one touch, any other with two. */
  async chooseTank(code: string): Promise<void> {
    const places = this.page.getByRole('group', { name: 'Best places' })
    await expect(places.getByRole('button').first()).toBeVisible()
    const best = places.getByRole('button', { name: new RegExp(`^${code}\\b`) })
    if (await best.isVisible()) return this.touch(best)
    await this.touch(this.button('another place …'))
    await this.touch(this.page.getByRole('dialog').getByRole('button', { name: new RegExp(`^${code}, `) }))
    await expect(this.page.getByRole('dialog')).toBeHidden()
  }
  moveThem = () => this.touch(this.page.locator('.thumb-bar .btn-act'))
  async moveFish(species: string, quantity: number, toCode: string): Promise<void> {
    await this.sayMove(species, quantity, toCode)
    await this.moveThem()
    await expect(this.page.getByRole('status').filter({ hasText: `${quantity} ${species} to ${toCode}` })).toBeVisible()
  }
  async loseFish(species: string, quantity: number, cause: string): Promise<void> {
    await this.openAction(species, 'lost')
    await this.type('How many', String(quantity))
    await this.page.getByLabel('Cause').selectOption(cause)
    await this.touch(this.button('Record the loss'))
    await expect(this.button('Record the loss')).toBeHidden()
  }
  openEntry = (words: string | RegExp) => this.touch(this.page.locator('.entry:not(.is-void) > .entry-line').filter({ hasText: words }).first())
  async takeBack(): Promise<void> {
    await this.touch(this.button('Take this back'))
    await expect(this.page.getByText('Taken back already.')).toBeVisible()
  }

  /** What is needed while the server is away has come, once the first screen stood. */
  fetchedAhead = () => this.page.locator('[data-fetched-ahead]').waitFor({ state: 'attached' })

  // Round
  openRound = () => this.touch(this.page.getByRole('link', { name: 'Rounds' }))
  check = () => this.touch(this.act())
  /** All well, all ate, from the first tank to the last. */
  async walkQuietRound(tanks: number): Promise<void> {
    await this.openRound()
    for (let stop = 1; stop <= tanks; stop += 1) {
      const code = await this.cardCode()
      await this.check()
      if (stop < tanks) await expect.poll(() => this.cardCode()).not.toBe(code)
    }
    await this.roundDone()
    await this.allSent()
  }
  cardFor = (code: string) => expect(this.page.locator('.check-card h2')).toHaveText(code)
  cardCode = () => this.page.locator('.check-card h2').innerText()
  roundDone = () => expect(this.page.getByText('Every stocked tank is checked.')).toBeVisible()
  answer = (name: string) => this.touch(this.page.locator('.exceptions').getByRole('button', { name, exact: true }))
  async sign(name: string): Promise<void> {
    await this.answer('a sign')
    await this.touch(this.page.getByRole('dialog').getByRole('button', { name, exact: true }))
    await this.touch(this.page.getByRole('dialog').getByRole('button', { name: /^Back to/ }))
    await expect(this.page.getByRole('dialog')).toBeHidden()
  }

  // Bench
  /** Line that waits for the bench first, and the runs on it. */
  async bench(): Promise<{ waiting: string; runs: string[] }> {
    const { waiting, runs } = await this.page.evaluate(() => fetch('/api/bench').then((answer) => answer.json() as Promise<{ waiting: { lineId: string }[]; runs: { id: string }[] }>))
    return { waiting: waiting[0]?.lineId ?? '', runs: runs.map(({ id }) => id) }
  }
  openIntroductionId = async (): Promise<string> => (await this.page.evaluate(() => fetch('/api/introductions').then((answer) => answer.json() as Promise<{ introductions: { id: string }[] }>))).introductions[0]?.id ?? ''
  stepIs = (title: string | RegExp) => expect(this.page.getByRole('region', { name: 'Step in hand' }).getByRole('heading')).toHaveText(title)
  doneStep = () => this.touch(this.act())
  school = (name: string) => this.page.getByRole('radio', { name: new RegExp(`^${name}`) })
  chooseSchool = (name: string) => this.touch(this.school(name))
  recommendation = (): Locator => this.page.getByRole('region', { name: 'Recommendation' })
  /** Waits until all plausible bags were drawn. */
  judged = () => expect(this.page.getByText('Worth reading before you cut?')).toBeVisible({ timeout: 120_000 })
  async startRun(): Promise<void> {
    await this.touch(this.button(/^Start: /))
    await this.page.waitForURL(/\/bench\/runs\//)
  }
  /** From the bench: the fish that wait, a school, the run. */
  async beginRun(fish: RegExp, school: string): Promise<void> {
    await this.goto('/bench')
    await this.touch(this.page.getByRole('link', { name: fish }))
    await expect(this.recommendation()).toBeVisible({ timeout: 60_000 })
    await this.chooseSchool(school)
    await this.startRun()
  }
  async readVessel(readings: Partial<Record<'temperature' | 'salinity' | 'pH' | 'ammonia', string>>): Promise<void> {
    const form = this.page.getByRole('region', { name: 'Read the vessel' })
    for (const [label, value] of Object.entries(readings)) await form.getByLabel(new RegExp(`^${label}`)).fill(value)
    await this.touch(form.getByRole('button', { name: 'Record reading' }))
  }
  countOut = () => this.touch(this.page.getByRole('region', { name: 'Count out' }).locator('.thumb-bar .btn-act'))

  // Frame
  /** On a phone the switch stands under "more". */
  async lightsOff(): Promise<void> {
    const more = this.page.getByRole('button', { name: 'more', exact: true })
    if (await more.isVisible()) await more.click()
    await this.page.locator('button:visible', { hasText: 'lights off' }).click()
  }
}
