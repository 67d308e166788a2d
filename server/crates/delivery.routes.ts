import type { Response } from 'express'
import { chooseTankSchema } from '../../core/crates/crates.schema'
import { chooseTanksSchema, prepareStepSchema } from '../../core/crates/delivery.schema'
import type { ChoiceProgress } from '../../core/tankChoice/tankChoice'
import { command, plain, read, type Endpoint } from '../http/endpoint'
import { Problem } from '../http/problem'
import { startProgram } from '../program'
import type { DeliveryService } from './delivery.service'

const searchSeconds = 8
/** Each search takes a processor; the bench of a fishroom has few of them. */
const mostSearches = 2

/** Addresses of a crate's preparation and of choosing its tanks. */
export function deliveryEndpoints(delivery: DeliveryService, now: () => number): Endpoint[] {
  let running = 0
  return [
    read({ path: '/api/crates/:crateId/preparation', access: 'device', read: ({ params, nowMs }) => delivery.preparation(params.crateId ?? '', nowMs) }),
    command({ method: 'put', path: '/api/crates/:crateId/preparation', access: 'keeper', name: 'prepareStep', schema: prepareStepSchema, run: delivery.prepareStep }),
    read({ path: '/api/crates/:crateId/tank-choice', access: 'device', read: ({ params, nowMs }) => delivery.choice(params.crateId ?? '', nowMs) }),
    command({ method: 'put', path: '/api/crates/:crateId/tank-choice', access: 'keeper', name: 'chooseTanks', schema: chooseTanksSchema, run: delivery.chooseTanks }),
    command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId/tank', access: 'keeper', name: 'chooseTank', schema: chooseTankSchema, run: delivery.chooseTank }),
    plain({
      method: 'get',
      path: '/api/crates/:crateId/tank-search',
      access: 'device',
      async handle(request, response) {
        const { input } = delivery.choice(String(request.params.crateId), now())
        if (running >= mostSearches) throw new Problem('conflict', 'Two searches are running already; wait a few seconds')
        running += 1
        await search(input, response).finally(() => (running -= 1))
      },
    }),
  ]
}

/** Streams answers of a search as lines of JSON, the best so far each time. Closing the connection ends the search. */
function search(input: object, response: Response): Promise<void> {
  const child = startProgram('crates/solveMain')
  response.set({ 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
  child.on('message', (progress: ChoiceProgress) => void response.write(`${JSON.stringify(progress)}\n`))
  response.once('close', () => child.kill())
  child.send({ input, seconds: searchSeconds })
  return new Promise((resolve) => {
    child.once('error', () => resolve())
    child.once('exit', () => {
      response.end()
      resolve()
    })
  })
}
