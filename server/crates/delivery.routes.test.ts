import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import type { CrateView } from '../../core/crates/crateView'
import type { StepView } from '../../core/crates/preparation'
import type { ChoiceView } from '../../core/tankChoice/tankChoice'
import { emptyValues } from '../../core/setup/registerCsv'
import { registers, type RegisterName, type RegisterValues } from '../../core/setup/registers'
import { createTestRoom, newKey, plainBag, type TestRoom } from '../testing/testRoom'

let room: TestRoom
let keeperId: string
beforeAll(async () => {
  room = await createTestRoom({ tankCount: 6 })
  await room.post('/api/setup/species/adoptions', { names: ['Cherry barb', 'Kuhli loach', 'Amano shrimp', 'Royal gramma', 'Oscar', 'Siamese fighter'] })
  await edit('systems', 'Fresh sale rack', { tempC: 25, salinityPpt: 0 })
  await add('suppliers', { name: 'Hollow Reed Hatchery', shippingTempC: 23 })
  await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
  const { staff } = (await room.get('/api/session')).body as { staff: { id: string; name: string }[] }
  keeperId = staff.find(({ name }) => name === 'Oona')?.id ?? ''
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: keeperId, pin: '2222' })
})
afterAll(() => room.db.close())

async function edit(register: RegisterName, name: string, change: RegisterValues): Promise<void> {
  const { rows } = (await room.get(`/api/setup/${register}`)).body as { rows: { id: string; version: number; values: RegisterValues }[] }
  const row = rows.find(({ values }) => values[registers[register].key] === name)
  expect((await room.put(`/api/setup/${register}/${row?.id}`, { version: row?.version, values: { ...row?.values, ...change } })).status).toBe(200)
}
const add = async (register: RegisterName, values: RegisterValues) => expect((await room.post(`/api/setup/${register}`, { values: { ...emptyValues(registers[register].fields), ...values } })).status).toBe(201)
const choiceOf = async (crate: CrateView): Promise<ChoiceView> => (await room.get(`/api/crates/${crate.id}/tank-choice`)).body
const stepsOf = async (crate: CrateView): Promise<StepView[]> => (await room.get(`/api/crates/${crate.id}/preparation`)).body.steps

describe('choosing tanks', () => {
  test('the choice is made from the book, the tanks and who stands in them; one write plans all lines or none', async () => {
    await room.addFish(room.tanks[1], 'Oscar', 1)
    const crate: CrateView = await room.crateOf([['Cherry barb', 16, 2, null], ['Kuhli loach', 8, 1, null]])
    const { input, now } = await choiceOf(crate)
    expect([input.lines.map(({ animal, count }) => [animal.species, animal.water, count]), input.tanks.length, input.shipping.tempC]).toEqual([[['Cherry barb', 'fresh', 16], ['Kuhli loach', 'fresh', 8]], 6, 23])
    expect(input.tanks[1]?.occupants).toMatchObject([{ quantity: 1, heldDays: null, animal: { species: 'Oscar' } }])
    const [first, second] = crate.lines
    const choices = [{ lineId: first!.id, tankId: room.tanks[0]!.id, version: now[0]!.version, override: null }]
    const stale = await room.put(`/api/crates/${crate.id}/tank-choice`, { choices: [...choices, { lineId: second!.id, tankId: room.tanks[2]!.id, version: 99, override: null }] })
    expect([stale.status, stale.body.code]).toEqual([409, 'stale'])
    expect((await choiceOf(crate)).now.map(({ tankId }) => tankId)).toEqual([null, null])
    expect((await room.put(`/api/crates/${crate.id}/tank-choice`, { choices: [...choices, { lineId: second!.id, tankId: room.tanks[2]!.id, version: 1, override: null }] })).status).toBe(200)
    expect((await choiceOf(crate)).now.map(({ tankId }) => tankId)).toEqual([room.tanks[0]!.id, room.tanks[2]!.id])
  })

  test('a hard rule holds for a keeper; a lead breaks it with a reason, which is kept', async () => {
    const crate: CrateView = await room.crateOf([['Royal gramma', 1, 1, null]])
    const body = (override: string | null) => ({ choices: [{ lineId: crate.lines[0]!.id, tankId: room.tanks[3]!.id, version: 1, override }] })
    const asKeeper = await request(room.app).put(`/api/crates/${crate.id}/tank-choice`).set('Cookie', room.cookie).set('X-Recording', keeperId).set('Idempotency-Key', newKey()).send(body('it will do'))
    expect([asKeeper.status, asKeeper.body.errors[0].message]).toEqual([422, 'Royal gramma must not go to R1-04: 0 ppt, outside 26 ppt to 36 ppt by 26.0 ppt. A lead may decide it all the same, with a reason.'])
    const silent = await room.put(`/api/crates/${crate.id}/tank-choice`, body(null))
    expect([silent.status, silent.body.errors[0].path]).toEqual([422, 'choices[0].tankId'])
    expect((await room.put(`/api/crates/${crate.id}/tank-choice`, body('the tank is filled with sea water this noon'))).status).toBe(200)
    expect((await choiceOf(crate)).now).toMatchObject([{ tankId: room.tanks[3]!.id, override: 'the tank is filled with sea water this noon' }])
    const audit = (await request(room.app).get('/api/audit').set('Cookie', room.cookie).set('X-Recording', room.leadId)).body as { lines: { action: string; subject: string }[] }
    expect(audit.lines.some(({ action, subject }) => action === 'chooseTanks' && subject === 'Royal gramma to R1-04')).toBe(true)
  })

  test('a search answers line by line, each no dearer than the one before, and ends with the gap it proved', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 12, 2, null], ['Amano shrimp', 10, 1, null], ['Siamese fighter', 1, 1, null]])
    const answer = await request(room.app).get(`/api/crates/${crate.id}/tank-search`).set('Cookie', room.cookie).buffer(true).parse((response, done) => {
      let text = ''
      response.on('data', (chunk: Buffer) => (text += chunk.toString()))
      response.on('end', () => done(null, text))
    })
    const found = String(answer.body).trim().split('\n').map((each) => JSON.parse(each) as { choice: (number | null)[]; total: number; gap: number; isDone: boolean })
    expect(found.length).toBeGreaterThanOrEqual(2)
    expect(found.at(-1)).toMatchObject({ isDone: true, gap: 0 })
    expect(found.at(-1)?.choice.every((tank) => tank !== null && tank !== 1)).toBe(true)
  })
})

describe('the preparation list', () => {
  test('names tanks, water, company, tools, food and what the supplier has not said; done is kept with who and when', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 16, 2, room.tanks[1]!], ['Siamese fighter', 3, 3, room.tanks[4]!], ['Kuhli loach', 6, 1, null]], 'the oscar leaves this morning, dividers are made')
    const steps = await stepsOf(crate)
    const said = steps.map(({ what }) => what)
    expect(said).toEqual(
      expect.arrayContaining([
        'Choose tanks for 1 line',
        'R1-02 ready at 25 °C, clean and covered',
        'Move 1 Oscar out of R1-02',
        'R1-05: 2 dividers or boxes for 3 Siamese fighter',
        'Mark one tool set: nets, buckets, airline, air stone, thermometer',
        'Fresh water for first-response baths: 4 L',
        'Ask Hollow Reed Hatchery: when was it packed?',
        'Ask Hollow Reed Hatchery: what do they eat?',
      ]),
    )
    const { key } = steps.find(({ what }) => what.startsWith('Move 1 Oscar')) as StepView
    expect((await room.put(`/api/crates/${crate.id}/preparation`, { step: key, isDone: true })).status).toBe(200)
    expect((await stepsOf(crate)).find((step) => step.key === key)?.done).toMatchObject({ by: 'Imre' })
    await room.put(`/api/crates/${crate.id}/preparation`, { step: key, isDone: false })
    expect((await stepsOf(crate)).find((step) => step.key === key)?.done).toBeNull()
    expect((await room.put(`/api/crates/${crate.id}/preparation`, { step: 'nothing', isDone: true })).status).toBe(422)
  })

  test('bags that were opened answer to the crate, not to the plan', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    await room.post(`/api/crates/${crate.id}/bags`, plainBag([crate.bags[0]!.id], 8))
    await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.happenedAtMs })
    // What stands in its tank is planned no more; it is company for what still comes.
    const { input } = await choiceOf(crate)
    expect([input.lines, input.tanks[0]?.occupants.filter(({ booked }) => booked === undefined)]).toMatchObject([[], [{ quantity: 8, animal: { species: 'Cherry barb' } }]])
  })
})
