import { todayApi } from '../../core/today/today.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { TodayService } from './today.service'

/** Answers for what the room needs now. */
export const todayEndpoints = (today: TodayService): Endpoint[] => serve(todayApi, { readToday: ({ nowMs }) => today.view(nowMs) })
