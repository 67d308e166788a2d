import { choresApi } from '../../core/chores/chores.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { ChoresService } from './chores.service'
import type { RoutineService } from './routine.service'

/** Answers for work at tanks: what was asked for once, and what comes round. */
export const choresEndpoints = ({ askChore, endChore }: ChoresService, { view, addChore, editChore, retireChore, doChore, undoChore, changeSupplies }: RoutineService): Endpoint[] =>
  serve(choresApi, { askChore, endChore, readChores: ({ nowMs }) => view(nowMs), ...{ addChore, editChore, retireChore, doChore, undoChore, changeSupplies } })
