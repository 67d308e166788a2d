import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { drawEnsemble, judge } from '../../core/acclimation/judge'
import type { AcclimationQuestion } from '../../core/acclimation/question'
import { schools } from '../../core/acclimation/schools'
import { verdictWords } from '../../core/acclimation/sentences'
import { sceneOf } from '../../core/acclimation/tryMethod'
import { toSchool, type HouseSchool, type KeptStep } from '../../core/acclimation/schools.schema'
import { standardLimits } from '../../core/limits/houseLimits'
import { createTestRoom, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const overnight: AcclimationQuestion = {
  ...{ waterClass: 'marine', told: {}, measured: {}, guessedC: 23, bags: 1, isFed: false, hasSpareTank: false, prepared: null, tolerance: 'normal', roomC: 22, roomPco2Uatm: 600 },
  bag: { fish: 1, massG: 20, waterL: 1.5, gasL: 3, hours: 24, packedC: 25, transitC: 24 },
  tank: { tempC: 25.5, salinityPpt: 34, alkalinityMeqL: 2.7, ph: 8.2 },
}
const none = { minutes: null, times: null, share: null, handling: 'none' as const }
const steps: KeptStep[] = [{ ...none, step: 'float' }, { ...none, step: 'pour' }, { ...none, step: 'dump', share: 0.5 }, { ...none, step: 'fill', times: 3, minutes: 30, handling: 'bucket' }, { ...none, step: 'transfer' }]
const own = { name: 'Half away, then drip', handsPerBagMin: 6, handsPerLotMin: 2, steps }
const list = async (): Promise<HouseSchool[]> => (await room.get('/api/schools')).body.schools

test('a school of the house’s own is kept, changed, retired and brought back; a stale save is refused with what stands there', async () => {
  const { id } = (await room.post('/api/schools', own)).body
  expect(await list()).toEqual([{ id, ...own, version: 1, retiredAtMs: null }])
  expect((await room.put(`/api/schools/${id}`, { ...own, handsPerBagMin: 9, version: 1 })).body).toEqual({ version: 2 })
  const stale = await room.put(`/api/schools/${id}`, { ...own, version: 1 })
  expect([stale.status, stale.body.current.handsPerBagMin]).toEqual([409, 9])
  await room.post(`/api/schools/${id}/retirement`, { isRetired: true, version: 2 })
  expect((await list())[0]).toMatchObject({ version: 3, retiredAtMs: room.clock.nowMs })
  expect((await room.post('/api/schools', { ...own, name: 'HALF away, then drip' })).body.errors[0].path).toBe('name')
})

test('it is compared like those of the trade, without a line of code', async () => {
  await room.post('/api/schools', own)
  const [kept] = await list()
  const verdict = judge(
    drawEnsemble(
      {
        ...overnight,
        measured: { salinityPpt: 33, tempC: 25 },
      },
      standardLimits,
      { draws: 50, schools: [...schools, toSchool(kept!)] },
    ),
  )
  const ours = verdict.schools.find(({ name }) => name.startsWith(own.name))!
  const drip = verdict.schools.find(({ key }) => key === 'drip')!
  expect(ours).toMatchObject({ workMinutes: 8, litres: 4.5, likely: { minutes: 45 } })
  // Half the bag water away and half the time: less ammonia than the plain drip.
  expect(ours.figures.doseAboveFloor).toBeLessThan(drip.figures.doseAboveFloor)
})

test.each<[string, object, string]>([
  ['a name of the trade’s', { name: 'net-over' }, 'name'],
  ['no steps', { steps: [] }, 'steps'],
  ['fish that never reach the tank', { steps: steps.slice(0, -1) }, 'steps'],
  ['fish that reach it twice', { steps: [...steps, steps.at(-1)] }, 'steps'],
  ['a step nobody knows', { steps: [{ ...none, step: 'sing' }, steps.at(-1)] }, 'steps[0].step'],
  ['a fill without its minutes', { steps: [{ ...none, step: 'fill', times: 2, handling: 'bucket' }, steps.at(-1)] }, 'steps[0].minutes'],
  ['a wait of no known handling', { steps: [{ ...none, step: 'wait', minutes: 5 }, steps.at(-1)] }, 'steps[0].handling'],
  ['more poured away than there is', { steps: [{ ...none, step: 'dump', share: 1.5 }, steps.at(-1)] }, 'steps[0].share'],
  ['endless work', { handsPerBagMin: 1e9 }, 'handsPerBagMin'],
])('%s is told by field', async (_what, change, path) => {
  const answer = await room.post('/api/schools', { ...own, ...change })
  expect([answer.status, answer.body.errors.map((each: { path: string }) => each.path)]).toEqual([422, expect.arrayContaining([path])])
  expect(await list()).toEqual([])
})

test('the house chooses which school comes first in a situation; the sentence says so, and the usual one comes back', async () => {
  const choose = (situation: string, schoolKey: string | null, version: number) => room.put(`/api/schools/defaults/${situation}`, { schoolKey, version })
  expect((await choose('long', 'rapid', 0)).body).toEqual({ version: 1 })
  expect((await choose('long', 'drip', 0)).body).toMatchObject({ code: 'stale', current: { schoolKey: 'rapid', version: 1 } })
  expect((await choose('long', 'magic', 1)).body.errors[0]).toEqual({ path: 'schoolKey', message: 'There is no such school' })
  expect((await choose('sunday', 'drip', 0)).status).toBe(404)
  const { defaults } = (await room.get('/api/schools')).body as { defaults: { situation: string; schoolKey: string | null }[] }
  const chosen = Object.fromEntries(defaults.flatMap(({ situation, schoolKey }) => (schoolKey === null ? [] : [[situation, schoolKey]])))
  const question = { ...overnight, measured: { salinityPpt: 33, tempC: 23, ph: 6.9, tanMgL: 3.6 } }
  const ensemble = drawEnsemble(question, standardLimits, { draws: 60 })
  const verdict = judge(ensemble, chosen)
  expect([judge(ensemble).recommended, verdict.recommended]).toEqual(['netOver', 'rapid'])
  expect(verdictWords(verdict, question, sceneOf(question, standardLimits).limits, null).why).toContain('Rapid fill is first in the house’s order for long trips because the house chose it so.')
  expect((await choose('long', null, 1)).body).toEqual({ version: 2 })
})
