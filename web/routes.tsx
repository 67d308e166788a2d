import { createBrowserRouter, Navigate } from 'react-router'
import { CratePage } from './crates/CratePage'
import { CratesPage } from './crates/CratesPage'
import { NewCratePage } from './crates/NewCratePage'
import { UnpackPage } from './crates/UnpackPage'
import { Frame } from './frame/Frame'
import { RoomPage } from './room/RoomPage'
import { TankPage } from './room/TankPage'
import { RoundPage } from './rounds/RoundPage'
import { SetupPage } from './setup/SetupPage'
import { Broken, Nothing } from './ui/PageState'

export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <Navigate to="/crates" replace /> },
      { path: '/crates', element: <CratesPage /> },
      { path: '/crates/new', element: <NewCratePage /> },
      { path: '/crates/:crateId', element: <CratePage /> },
      { path: '/crates/:crateId/unpack', element: <UnpackPage /> },
      { path: '/room', element: <RoomPage /> },
      { path: '/room/:code', element: <TankPage /> },
      { path: '/rounds', element: <RoundPage /> },
      { path: '/setup', element: <SetupPage /> },
      { path: '*', element: <Nothing>There is nothing at this address.</Nothing> },
    ],
  },
])
