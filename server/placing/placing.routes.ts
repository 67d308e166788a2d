import { placingApi } from '../../core/placing/placing.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { PlacingService } from './placing.service'

/** Answers where a lead says that a rescue was looked at. */
export const placingEndpoints = (placing: PlacingService): Endpoint[] => serve(placingApi, { seeRescue: placing.seeRescue })
