import { createContext, useContext } from 'react'
import type { StaffView } from '../../core/staff/staff.schema'

export interface Session {
  roomName: string
  timeZone: string
  staff: StaffView[]
  /** Who is recording on this device. */
  recorder: StaffView
  /** Asks for another person's PIN. */
  changeRecorder(): void
  signOut(): Promise<void>
}

const SessionContext = createContext<Session | null>(null)
export const SessionProvider = SessionContext.Provider

/** The open session; only inside the frame. */
export function useSession(): Session {
  const session = useContext(SessionContext)
  if (!session) throw new Error('useSession needs a SessionProvider: it is only there once somebody is recording')
  return session
}

