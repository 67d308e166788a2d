import { read, type Endpoint } from '../http/endpoint'
import type { TodayService } from './today.service'

/** The address of what the room needs now. */
export const todayEndpoints = (today: TodayService): Endpoint[] => [read({ path: '/api/today', access: 'device', read: ({ nowMs }) => today.view(nowMs) })]
