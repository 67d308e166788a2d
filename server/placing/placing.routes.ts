import { strictObject } from '../../core/fields/fields.schema'
import { command, type Endpoint } from '../http/endpoint'
import type { PlacingService } from './placing.service'

/** The address at which a lead says that a rescue was looked at. */
export const placingEndpoints = (placing: PlacingService): Endpoint[] => [command({ method: 'post', path: '/api/rescues/:key/seen', access: 'lead', name: 'seeRescue', schema: strictObject({}), run: placing.seeRescue })]
