import type { Response } from 'express'
import { deliveryApi } from '../../core/crates/crates.api'
import type { ChoiceProgress } from '../../core/tankChoice/tankChoice'
import { serve, type Endpoint } from '../http/endpoint'
import { Problem } from '../http/problem'
import { startProgram } from '../program'
import type { DeliveryService } from './delivery.service'

const searchSeconds = 8
/** Each search takes a processor; the bench of a fishroom has few of them. */
const mostSearches = 2

/** Answers for a crate's preparation and for choosing its tanks. */
export function deliveryEndpoints({ preparation, prepareStep, choice, chooseTanks, chooseTank }: DeliveryService, now: () => number): Endpoint[] {
  let running = 0
  return serve(deliveryApi, {
    readPreparation: ({ params, nowMs }) => preparation(params.crateId, nowMs),
    readTankChoice: ({ params, nowMs }) => choice(params.crateId, nowMs),
    ...{ prepareStep, chooseTanks, chooseTank },
    async searchTanks(request, response) {
      const { input } = choice(String(request.params.crateId), now())
      if (running >= mostSearches) throw new Problem('conflict', 'Two searches are running already; wait a few seconds')
      running += 1
      await search(input, response).finally(() => (running -= 1))
    },
  })
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
