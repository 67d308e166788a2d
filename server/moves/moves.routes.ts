import { validated } from '../../core/fields/validated'
import { movesApi } from '../../core/moves/moves.api'
import { moveCheckSchema } from '../../core/moves/moves.schema'
import { serve, type Endpoint } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import type { MovesService } from './moves.service'

/** Answers of the move check. */
export const movesEndpoints = ({ check }: MovesService): Endpoint[] =>
  serve(movesApi, {
    readMoveCheck: ({ params, query: { to, fish, tools, water }, nowMs }) => {
      const { fish: moved } = validated(moveCheckSchema, { fish: readList(fish) })
      return check({ fromTankId: params.tankId ?? '', toTankId: to ?? '', fish: moved, toolSetId: tools, waterGoesAlong: water === '1' }, nowMs)
    },
  })

function readList(fish: string | null): unknown {
  try {
    return JSON.parse(fish ?? '[]')
  } catch {
    throw fieldProblem('fish', 'The fish must be a list in JSON')
  }
}
