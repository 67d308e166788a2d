import { createContext, useContext } from 'react'
import type { SessionView, StaffView } from '../../core/staff/staff.schema'
import type { DisplayUnits } from '../../core/units/units'

export interface Session {
  roomName: string
  timeZone: string
  /** How figures are shown. */
  units: DisplayUnits | null
  /** What salinity and pH are read with where nobody says. */
  instruments: SessionView['instruments']
  /** Version of the room's settings, for whoever changes them. */
  roomVersion: number
  /** Whether what is typed travels encrypted. */
  isSecure: boolean
  staff: StaffView[]
  /** What went wrong with the room's own keeping. */
  notices: SessionView['notices']
  /** Who is recording on this device. */
  recorder: StaffView
  /** Asks for another person's PIN. */
  changeRecorder(): void
  /** Gives the PIN of whoever is recording once more. */
  confirmPin(pin: string): Promise<void>
  signOut(): Promise<void>
}

const SessionContext = createContext<Session | null>(null)
export const SessionProvider = SessionContext.Provider

/** The open session; null before somebody is recording. */
export const useOptionalSession = (): Session | null => useContext(SessionContext)

/** The open session; only inside the frame. */
export function useSession(): Session {
  const session = useContext(SessionContext)
  if (!session) throw new Error('useSession needs a SessionProvider: it is only there once somebody is recording')
  return session
}
