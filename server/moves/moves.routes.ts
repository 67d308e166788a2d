import { validated } from '../../core/fields/validated'
import { movesApi } from '../../core/moves/moves.api'
import { moveCheckSchema, standKinds, type MovedFish } from '../../core/moves/moves.schema'
import { serve, type Endpoint } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import type { VesselsService } from '../vessels/vessels.service'
import type { CatchingService } from './catching.service'
import type { MoveRulesService } from './moveRules.service'
import type { Stand } from './asking'
import type { MovesService } from './moves.service'

interface Services {
  moves: MovesService
  ledger: LedgerService
  vessels: VesselsService
  catching: CatchingService
  rules: MoveRulesService
}

/** Answers for moves, catching and vessels. */
export const movesEndpoints = ({ moves, ledger: { moveTogether, loseInVessel }, vessels, catching, rules }: Services): Endpoint[] =>
  serve(movesApi, {
    readMoveCheck: ({ query: { from, to, fish, tools, water, plan }, nowMs }) => moves.check({ from: readStand('from', from), to: to === 'outside' ? to : readStand('to', to), fish: readFish(fish), toolSetId: tools, waterGoesAlong: water === '1', planId: plan }, nowMs),
    readMoveChoices: ({ query: { from, fish, plan }, nowMs }) => moves.choices({ from: readStand('from', from), fish: readFish(fish), planId: plan }, nowMs),
    readCatch: ({ params, query: { fish, chosen }, nowMs }) => catching.cards(params.tankId, readFish(fish), chosen === '1', nowMs),
    readVessels: ({ nowMs }) => vessels.view(nowMs),
    ...{ moveTogether, loseInVessel },
    ...{ recordLift: catching.recordLift, undoLift: catching.undoLift, recordFight: catching.recordFight, undoFight: catching.undoFight },
    readMoveRules: () => rules.view(),
    changeMoveRules: (context, input) => rules.change(context, input),
  })

/** Reads a list of fish out of the words of an address. */
export function readFish(fish: string | null): MovedFish[] {
  let read: unknown
  try {
    read = JSON.parse(fish ?? '[]')
  } catch {
    throw fieldProblem('fish', 'The fish must be a list in JSON')
  }
  return validated(moveCheckSchema, { fish: read }).fish
}

/** Reads a place such as `tank:ID` out of the words of an address. */
function readStand(path: string, said: string | null): Stand {
  const [kind = '', id = ''] = (said ?? '').split(':')
  const known = standKinds.find((each) => each === kind)
  if (!known || id === '') throw fieldProblem(path, 'Say where: tank:…, or vessel:…')
  return { kind: known, id }
}
