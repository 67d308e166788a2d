import { lazy, Suspense, useEffect, useState } from 'react'
import { RouterProvider } from 'react-router'
import { SWRConfig } from 'swr'
import type { StaffView } from '../core/staff/staff.schema'
import { readOptions } from './api/reads'
import { SessionProvider } from './api/session'
import { outbox, useOutboxSnapshot } from './api/useOutbox'
import { router } from './routes'
import { useSessionView } from './staff/useSessionView'
import { lazyAhead } from './ui/ahead'
import { Trouble, Waiting } from './ui/PageState'
import './ui/useTheme'

// What stands before the room, and not on the way to Today.
const FirstStartPage = lazy(() => import('./staff/FirstStartPage'))
const SignInPage = lazy(() => import('./staff/SignInPage'))
const WhoPage = lazyAhead(() => import('./staff/WhoPage'))

const recorderSlot = 'crate.recorder'

export const App = () => (
  <SWRConfig value={readOptions}>
    <Suspense fallback={<Waiting what="the room" />}>
      <Device />
    </Suspense>
  </SWRConfig>
)

/** Decides what this device may show: the first start, the door, who is recording, or the room. */
function Device() {
  const { session, problem, ...actions } = useSessionView()
  const { waiting } = useOutboxSnapshot()
  const [recorderId, setRecorderId] = useState(() => localStorage.getItem(recorderSlot))
  const [isChanging, setIsChanging] = useState(false)
  const isIdentified = session?.identifiedIds.includes(recorderId ?? '') ?? false
  const isOpen = session?.state === 'signed-in'
  useEffect(() => {
    if (isOpen) outbox.resume()
  }, [isOpen])

  const record = (person: StaffView): void => {
    localStorage.setItem(recorderSlot, person.id)
    setRecorderId(person.id)
    setIsChanging(false)
    outbox.resume()
  }
  if (!session) return problem ? <Trouble problem={problem} /> : <Waiting what="the room" />
  if (session.state === 'first-start') return <FirstStartPage {...actions} />
  if (session.state === 'signed-out') return <SignInPage {...actions} roomName={session.roomName ?? ''} waiting={waiting} />

  // Where one person alone gave a PIN since the device was opened, it is that person.
  const whoId = isIdentified ? recorderId : session.identifiedIds.length === 1 ? session.identifiedIds[0] : null
  const who = session.staff.find((person) => person.id === whoId)
  if (!who || isChanging) return <WhoPage staff={session.staff} identify={actions.identify} onRecording={record} current={who ?? null} onStay={() => setIsChanging(false)} />
  return (
    <SessionProvider
      value={{
        ...{ roomName: session.roomName ?? '', timeZone: session.timeZone ?? 'UTC', units: session.units, instruments: session.instruments, roomVersion: session.roomVersion, isSecure: session.isSecure },
        ...{ staff: session.staff, notices: session.notices, recorder: who, changeRecorder: () => setIsChanging(true), confirmPin: async (pin) => record(await actions.identify({ staffId: who.id, pin })), signOut: async () => void (await actions.signOut()) },
      }}
    >
      <RouterProvider router={router} />
    </SessionProvider>
  )
}
