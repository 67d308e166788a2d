import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import { createServices } from '../services'
import { createTestRoom, newKey, testNowMs, type TestRoom } from '../testing/testRoom'

type Caller = 'nobody' | 'device' | 'keeper' | 'lead'
const callers = ['nobody', 'device', 'keeper', 'lead'] as const
type Answers = Record<Caller, string>

// What each kind of route answers to nobody, an open device without a PIN, a keeper and a lead. "in" is anything that
// is not a refusal of who asks.
const anybody: Answers = { nobody: 'in', device: 'in', keeper: 'in', lead: 'in' }
const device: Answers = { nobody: 'signed-out', device: 'in', keeper: 'in', lead: 'in' }
const keeper: Answers = { nobody: 'signed-out', device: 'unidentified', keeper: 'in', lead: 'in' }
const lead: Answers = { nobody: 'signed-out', device: 'unidentified', keeper: 'not-allowed', lead: 'in' }

const registerRoutes = (register: string): Record<string, Answers> => ({
  [`get /api/setup/${register}`]: device,
  [`get /api/setup/${register}/csv`]: device,
  [`post /api/setup/${register}/csv/preview`]: lead,
  [`post /api/setup/${register}`]: lead,
  [`post /api/setup/${register}/import`]: lead,
  [`put /api/setup/${register}/:id`]: lead,
  [`post /api/setup/${register}/:id/retirement`]: lead,
})

const matrix: Record<string, Answers> = {
  'get /api/session': anybody,
  'post /api/session/first-lead': anybody,
  'post /api/session': anybody,
  'delete /api/session': anybody,
  'post /api/session/recording': device,
  'get /api/staff': device,
  'post /api/staff': lead,
  'get /api/people': lead,
  'put /api/staff/:staffId': lead,
  'post /api/staff/:staffId/pin': lead,
  'post /api/staff/:staffId/passphrase': lead,
  'post /api/staff/:staffId/retirement': lead,
  'get /api/devices': lead,
  'post /api/devices/:sessionId/closing': lead,
  'post /api/devices/closing': lead,
  'put /api/room/settings': lead,
  'get /api/room': device,
  'get /api/tanks/:code': device,
  'get /api/tanks/:code/card': device,
  'post /api/systems': lead,
  'post /api/tanks/:tankId/moves': keeper,
  'get /api/move-check': device,
  'get /api/move-choices': device,
  'get /api/tanks/:tankId/catch': device,
  'get /api/vessels': device,
  'post /api/moves': keeper,
  'post /api/vessels/:vesselId/losses': keeper,
  'post /api/tanks/:tankId/lifts': keeper,
  'post /api/lifts/:liftId/undo': keeper,
  'post /api/tanks/:tankId/fights': keeper,
  'post /api/fights/:fightId/undo': keeper,
  'get /api/holds': device,
  'get /api/holds/what-if': device,
  'post /api/holds/sign-decisions': keeper,
  'post /api/contacts/:contactId/decisions': keeper,
  'post /api/holds/ends': keeper,
  'post /api/holds/changes': keeper,
  'post /api/holds/longer': keeper,
  'post /api/holds/bodies': keeper,
  'post /api/holds/cleared': keeper,
  'post /api/holds/entries/:entryId/undo': keeper,
  'post /api/pairings': keeper,
  'post /api/pairings/:pairingId/end': keeper,
  'get /api/outcomes/lots': device,
  'get /api/outcomes/alarms': device,
  'post /api/outcomes/alarm-answers': lead,
  'post /api/outcomes/outbreaks/:outbreakId/undo': lead,
  'get /api/tanks/:code/loss-hints': device,
  'get /api/outcomes/trials': device,
  'get /api/crates/:crateId/trial': device,
  'post /api/outcomes/trials': lead,
  'post /api/outcomes/trials/:trialId/crates': keeper,
  'post /api/outcomes/trials/:trialId/looks': lead,
  'post /api/outcomes/trials/:trialId/pause-answers': lead,
  'post /api/outcomes/trials/:trialId/end': lead,
  'get /api/outcomes/money': lead,
  'get /api/outcomes/review': lead,
  'get /api/outcomes/review/:month/pdf': lead,
  'post /api/outcomes/sheets': lead,
  'get /api/regimens': device,
  'get /api/regimens/:regimenId': device,
  'get /api/tanks/:code/dose-offer': device,
  'put /api/tanks/:tankId/water-contents': keeper,
  'post /api/tanks/:tankId/found-agents': keeper,
  'post /api/tanks/:tankId/doses': keeper,
  'post /api/doses/:doseId/undo': keeper,
  'post /api/tanks/:tankId/water-changes': keeper,
  'post /api/water-changes/:changeId/undo': keeper,
  'post /api/regimens/ladders': keeper,
  'post /api/regimens/doses': keeper,
  'post /api/regimens/medicated-feeds': keeper,
  'post /api/regimens/transfers': keeper,
  'post /api/regimens/low-salinities': keeper,
  'post /api/regimens/:regimenId/steps': keeper,
  'post /api/regimens/:regimenId/end': keeper,
  'get /api/hold-policies': device,
  'put /api/hold-policies/:policyId': lead,
  'post /api/hold-policies/:policyId/retirement': lead,
  'put /api/hold-rules': lead,
  'get /api/move-rules': device,
  'put /api/move-rules': lead,
  'get /api/round-lists': device,
  'put /api/round-lists': lead,
  'get /api/introduction-plan': device,
  'get /api/introductions': device,
  'get /api/introductions/:introductionId': device,
  'get /api/tanks/:code/history': device,
  'post /api/tanks/:tankId/readings': keeper,
  'post /api/readings/:seq/undo': keeper,
  'post /api/tanks/:tankId/pins': keeper,
  'post /api/pins/:pinId/removal': keeper,
  'post /api/tanks/:tankId/photos': keeper,
  'post /api/tank-photos/:photoId/removal': keeper,
  'get /api/tank-photos/:photoId': device,
  'get /api/room/then': device,
  'get /api/labels.pdf': device,
  'get /api/floor': device,
  'put /api/floor/tanks': lead,
  'put /api/floor/racks': lead,
  'put /api/floor/sinks': lead,
  'get /api/plans': device,
  'get /api/plan-choices': device,
  'post /api/plans': keeper,
  'post /api/plans/:planId/end': keeper,
  'post /api/things': keeper,
  'post /api/tanks/:tankId/lengths': keeper,
  'post /api/introductions': keeper,
  'post /api/introductions/:introductionId/events': keeper,
  'post /api/introductions/:introductionId/undo': keeper,
  'post /api/introductions/:introductionId/end': keeper,
  'get /api/contacts/trace': device,
  'get /api/tools': device,
  'post /api/contacts': keeper,
  'put /api/contacts/:contactId/end': keeper,
  'post /api/contacts/:contactId/undo': keeper,
  'post /api/tools/:toolSetId/uses': keeper,
  'post /api/tools/:toolSetId/baths': keeper,
  'put /api/tools/:toolSetId/baths': keeper,
  'post /api/tanks/:tankId/clears': keeper,
  'put /api/lots/water': keeper,
  'put /api/lots/:lotId/name': keeper,
  'post /api/rescues/:key/seen': lead,
  'post /api/tanks/:tankId/losses': keeper,
  'post /api/tanks/:tankId/releases': keeper,
  'post /api/tanks/:tankId/counts': keeper,
  'post /api/tanks/:tankId/found': keeper,
  'post /api/tanks/:tankId/additions': keeper,
  'post /api/movements/:movementId/reversal': keeper,
  'get /api/sales': device,
  'post /api/sales/read': device,
  'post /api/sales': keeper,
  'post /api/sales/:saleId/reversal': keeper,
  'get /api/stocktake': device,
  'get /api/stocktake/kinds': device,
  'post /api/stocktakes': keeper,
  'post /api/stocktakes/:stocktakeId/counts': keeper,
  'post /api/stocktakes/:stocktakeId/list': keeper,
  'post /api/stocktakes/:stocktakeId/booking': keeper,
  'post /api/stocktakes/:stocktakeId/reversal': keeper,
  'post /api/stocktakes/:stocktakeId/end': keeper,
  'get /api/crates': device,
  'get /api/crates/:crateId': device,
  'get /api/crates/:crateId/packing-list': device,
  'post /api/packing-lists/read': device,
  'post /api/crates': keeper,
  'put /api/crates/:crateId': keeper,
  'post /api/crates/:crateId/added-bags': keeper,
  'put /api/crates/:crateId/lines/:lineId/identity': keeper,
  'put /api/crates/:crateId/box': keeper,
  'post /api/crates/:crateId/closing': keeper,
  'post /api/crates/:crateId/reopening': lead,
  'post /api/crates/:crateId/bags/:bagId/photos': keeper,
  'post /api/crates/:crateId/photos/:photoId/removal': keeper,
  'get /api/photos/:photoId': device,
  'get /api/crates/:crateId/claim': device,
  'put /api/crates/:crateId/claim': keeper,
  'get /api/crates/:crateId/claim/csv': device,
  'get /api/crates/:crateId/claim/pdf': device,
  'get /api/crates/:crateId/preparation': device,
  'put /api/crates/:crateId/preparation': keeper,
  'get /api/crates/:crateId/tank-choice': device,
  'put /api/crates/:crateId/tank-choice': keeper,
  'get /api/crates/:crateId/tank-search': device,
  'get /api/events': device,
  'get /api/mailbox': device,
  'get /api/mailbox/:letterId': device,
  'post /api/mailbox/:letterId/filing': keeper,
  'post /api/crates/:crateId/lines': keeper,
  'put /api/crates/:crateId/lines/:lineId': keeper,
  'post /api/crates/:crateId/lines/:lineId/removal': keeper,
  'put /api/crates/:crateId/lines/:lineId/tank': keeper,
  'post /api/crates/:crateId/bags': keeper,
  'post /api/crates/:crateId/undone-bags': keeper,
  'get /api/crates/:crateId/placements': device,
  'post /api/crates/:crateId/placements': keeper,
  'post /api/crates/:crateId/undone-placements': keeper,
  'get /api/rounds/today': device,
  'post /api/rounds/:roundId/split': keeper,
  'post /api/rounds/:roundId/leaving': keeper,
  'post /api/rounds/:roundId/closing': keeper,
  'post /api/checks': keeper,
  'post /api/tanks/:tankId/sign-decisions': keeper,
  'post /api/sign-decisions/:decisionId/undo': keeper,
  'post /api/asked-chores': keeper,
  'post /api/asked-chores/:choreId/end': keeper,
  'get /api/chores': device,
  'post /api/chores': lead,
  'put /api/chores/:choreId': lead,
  'post /api/chores/:choreId/retirement': lead,
  'post /api/chores/:choreId/done': keeper,
  'post /api/chores-done/:doneId/undo': keeper,
  'post /api/supplies': keeper,
  'get /api/kitchen': device,
  'get /api/probes': device,
  'post /api/probes': lead,
  'put /api/probes/:probeId': lead,
  'post /api/probes/:probeId/retirement': lead,
  'post /api/probes/polls': keeper,
  'get /api/handover': keeper,
  'get /api/handover/due': keeper,
  'post /api/handover/read': keeper,
  'post /api/handover/words': keeper,
  'post /api/handover/words/:wordId/removal': keeper,
  'get /api/kitchen/larder': device,
  'post /api/kitchen/ticks': keeper,
  'post /api/kitchen/ticks/:tickId/undo': keeper,
  'post /api/foods/:foodId/stock': keeper,
  'post /api/feeding-orders': keeper,
  'post /api/feeding-orders/:orderId/end': keeper,
  'get /api/species-book': device,
  'get /api/species-book/changes': device,
  'post /api/setup/species/adoptions': lead,
  'get /api/bench': device,
  'get /api/bench/airlines': device,
  'get /api/bench/subject': device,
  'get /api/bench/runs/:runId': device,
  'get /api/bench/runs/:runId/meter': device,
  'post /api/bench/runs': keeper,
  'post /api/bench/runs/:runId/steps': keeper,
  'post /api/bench/runs/:runId/readings': keeper,
  'post /api/bench/runs/:runId/flows': keeper,
  'post /api/bench/runs/:runId/snoozes': keeper,
  'post /api/bench/runs/:runId/switches': keeper,
  'post /api/bench/runs/:runId/notes': keeper,
  'post /api/bench/runs/:runId/undone-entries': keeper,
  'post /api/bench/runs/:runId/count': keeper,
  'post /api/bench/runs/:runId/stop': keeper,
  'post /api/bench/runs/:runId/decision': keeper,
  'post /api/bench/rechecks/:recheckId/answer': keeper,
  'post /api/bench/airlines': keeper,
  'get /api/house-limits': device,
  'put /api/house-limits/:key': lead,
  'get /api/schools': device,
  'post /api/schools': lead,
  'put /api/schools/defaults/:situation': lead,
  'put /api/schools/:schoolId': lead,
  'post /api/schools/:schoolId/retirement': lead,
  'get /api/audit': lead,
  'get /api/today': device,
  'get /api/due': device,
  'get /api/calendar': keeper,
  'post /api/calendar': keeper,
  'post /api/calendar/revocation': keeper,
  'get /api/calendar/:secret.ics': anybody,
  'get /api/find': device,
  'get /api/keeping': lead,
  'get /api/keeping/backup': lead,
  'get /api/keeping/export': lead,
  'post /api/notices/:noticeId/seen': lead,
  ...['zones', 'toolSets', 'systems', 'tanks', 'vessels', 'suppliers', 'sources', 'species', 'foods', 'feeds', 'agents'].map(registerRoutes).reduce((all, routes) => ({ ...all, ...routes }), {}),
}

let room: TestRoom
let oona: string
let declared: string[]

beforeAll(async () => {
  room = await createTestRoom()
  declared = createServices({ db: room.db, now: () => testNowMs }).endpoints.map(({ method, path }) => `${method} ${path}`)
  oona = String((await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).body.id)
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: oona, pin: '2222' })
})
afterAll(() => room.db.close())

const headersOf = (caller: Caller): Record<string, string> => ({
  'Idempotency-Key': newKey(),
  ...(caller === 'nobody' ? {} : { Cookie: room.cookie }),
  ...(caller === 'keeper' ? { 'X-Recording': oona } : caller === 'lead' ? { 'X-Recording': room.leadId } : {}),
})

const startOfStream: Parameters<request.Test['parse']>[0] = (response, done) => {
  response.on('data', (part: Buffer) => {
    const text = part.toString()
    if (text.startsWith('{')) done(null, JSON.parse(text))
    else {
      done(null, {})
      ;(response as unknown as { destroy(): void }).destroy()
    }
  })
}

async function answerTo(caller: Caller, route: string): Promise<string> {
  const [method, path] = route.split(' ') as ['get' | 'post' | 'put' | 'delete', string]
  // Closing a device for real would end the test's own.
  const asked = request(room.app)[method](path.replace(/:\w+/g, 'any')).set(headersOf(caller))
  // A stream of changes has no end; that it began is the answer.
  const { body } = await (route === 'get /api/events' ? asked.buffer(true).parse(startOfStream) : asked.send(route === 'post /api/devices/closing' ? { stray: true } : undefined))
  const code = (body as { code?: string } | null)?.code ?? ''
  return ['signed-out', 'unidentified', 'not-allowed'].includes(code) ? code : 'in'
}

describe('every route and everybody', () => {
  test('the table names every route there is, and none that is not', () => {
    expect(declared.sort()).toEqual(Object.keys(matrix).sort())
  })

  test('an address that is not declared is nobody’s', async () => {
    expect((await request(room.app).get('/api/anything')).body.code).toBe('signed-out')
    expect((await room.get('/api/anything')).body.code).toBe('not-found')
  })

  // Closing the device comes last, because it ends the session that all others use.
  const closing = 'delete /api/session'
  test.each([...Object.keys(matrix).filter((route) => route !== closing), closing])('%s', async (route) => {
    const answers: Partial<Answers> = {}
    for (const caller of callers) answers[caller] = await answerTo(caller, route)
    expect(answers).toEqual(matrix[route])
  })

})
