import { choresApi } from '../../core/chores/chores.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { ChoresService } from './chores.service'

/** Answers for work at tanks. */
export const choresEndpoints = ({ askChore, endChore }: ChoresService): Endpoint[] => serve(choresApi, { askChore, endChore })
