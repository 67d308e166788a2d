import { createBrowserRouter, Navigate } from 'react-router'
import { BagToTankPage } from './bench/BagToTankPage'
import { BenchPage } from './bench/BenchPage'
import { ComparePage } from './bench/ComparePage'
import { RunPage } from './bench/RunPage'
import { ClaimPage } from './crates/ClaimPage'
import { CratePage } from './crates/CratePage'
import { CratesPage } from './crates/CratesPage'
import { EditCratePage } from './crates/EditCratePage'
import { NewCratePage } from './crates/NewCratePage'
import { PreparationPage } from './crates/PreparationPage'
import { TankChoicePage } from './crates/TankChoicePage'
import { UnpackPage } from './crates/UnpackPage'
import { CalculatorPage } from './desk/CalculatorPage'
import { DeskFrame } from './desk/DeskFrame'
import { Frame } from './frame/Frame'
import { RoomPage } from './room/RoomPage'
import { TankPage } from './room/TankPage'
import { RoundPage } from './rounds/RoundPage'
import { AuditPage } from './setup/AuditPage'
import { BookChangesPage } from './setup/BookChangesPage'
import { BookPage } from './setup/BookPage'
import { DevicesPage } from './setup/DevicesPage'
import { KeepingPage } from './setup/KeepingPage'
import { LimitsPage } from './setup/LimitsPage'
import { PeoplePage } from './setup/PeoplePage'
import { RackPage } from './setup/RackPage'
import { RegisterImportPage } from './setup/RegisterImportPage'
import { RegisterPage } from './setup/RegisterPage'
import { RegisterRowPage } from './setup/RegisterRowPage'
import { RoomSettingsPage } from './setup/RoomSettingsPage'
import { SchoolsPage } from './setup/SchoolsPage'
import { SetupFrame } from './setup/SetupFrame'
import { SetupHome } from './setup/SetupHome'
import { CalendarPage } from './today/CalendarPage'
import { TodayPage } from './today/TodayPage'
import { Broken, Nothing } from './ui/PageState'

export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Broken />,
    // A screen that breaks leaves the frame around it: the clocks, what waits, and the way to the others.
    children: [
      {
        errorElement: <Broken />,
        children: [
          { path: '/', element: <Navigate to="/today" replace /> },
          { path: '/today', element: <TodayPage /> },
          { path: '/today/calendar', element: <CalendarPage /> },
          { path: '/crates', element: <CratesPage /> },
          { path: '/crates/new', element: <NewCratePage /> },
          { path: '/crates/:crateId', element: <CratePage /> },
          { path: '/crates/:crateId/edit', element: <EditCratePage /> },
          { path: '/crates/:crateId/preparation', element: <PreparationPage /> },
          { path: '/crates/:crateId/tanks', element: <TankChoicePage /> },
          { path: '/crates/:crateId/claim', element: <ClaimPage /> },
          { path: '/crates/:crateId/unpack', element: <UnpackPage /> },
          { path: '/bench', element: <BenchPage /> },
          { path: '/bench/compare', element: <ComparePage /> },
          { path: '/bench/runs/:runId', element: <RunPage /> },
          { path: '/room', element: <RoomPage /> },
          { path: '/room/:code', element: <TankPage /> },
          { path: '/rounds', element: <RoundPage /> },
          {
            path: '/desk',
            element: <DeskFrame />,
            children: [
              { index: true, element: <Navigate to="/desk/gravity" replace /> },
              { path: 'bag', element: <BagToTankPage /> },
              { path: ':key', element: <CalculatorPage /> },
            ],
          },
          {
            path: '/setup',
            element: <SetupFrame />,
            children: [
              { index: true, element: <SetupHome /> },
              { path: 'room', element: <RoomSettingsPage /> },
              { path: 'rack', element: <RackPage /> },
              { path: 'book', element: <BookPage /> },
              { path: 'book/changes', element: <BookChangesPage /> },
              { path: 'limits', element: <LimitsPage /> },
              { path: 'schools', element: <SchoolsPage /> },
              { path: 'people', element: <PeoplePage /> },
              { path: 'devices', element: <DevicesPage /> },
              { path: 'audit', element: <AuditPage /> },
              { path: 'keeping', element: <KeepingPage /> },
              { path: ':register', element: <RegisterPage /> },
              { path: ':register/import', element: <RegisterImportPage /> },
              { path: ':register/:id', element: <RegisterRowPage /> },
            ],
          },
          { path: '*', element: <Nothing>There is nothing at this address.</Nothing> },
        ],
      },
    ],
  },
])
