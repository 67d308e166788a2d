import useSWR from 'swr'
import type { Identify, FirstLead, SessionView, SignIn, StaffView } from '../../core/staff/staff.schema'
import { doorApi } from '../../core/staff/door.api'
import { setServerClock } from '../api/clock'
import { fetchJson } from '../api/fetchJson'
import { know } from '../api/reads'

const sessionKey = ['session'] as const

/** What the server tells this device about the room and itself. Secrets go straight to the server, never into the outbox. */
export function useSessionView() {
  know(sessionKey, { about: () => ['house', 'staff', 'notice', 'device'], isDraft: false })
  const { data, error, mutate } = useSWR<SessionView, unknown>(sessionKey, readSession, { refreshInterval: 300_000 })
  const andRefresh = async <T>(answer: Promise<T>): Promise<T> => {
    const value = await answer
    await mutate()
    return value
  }
  return {
    session: data,
    problem: error,
    createFirstLead: (body: FirstLead) => andRefresh(fetchJson(doorApi.firstLead.path, { method: 'POST', body })),
    signIn: (body: SignIn) => andRefresh(fetchJson(doorApi.signIn.path, { method: 'POST', body })),
    identify: (body: Identify) => andRefresh(fetchJson<StaffView>(doorApi.identify.path, { method: 'POST', body })),
    signOut: () => andRefresh(fetchJson(doorApi.signOut.path, { method: 'DELETE' })),
  }
}
export type SessionActions = ReturnType<typeof useSessionView>

async function readSession(): Promise<SessionView> {
  const view = await fetchJson<SessionView>(doorApi.session.path)
  setServerClock(view.nowMs, view.isFrozenClock)
  return view
}
