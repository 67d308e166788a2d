import type { ComponentType } from 'react'
import { createBrowserRouter, Navigate } from 'react-router'
import { Frame } from './frame/Frame'
import { TodayPage } from './today/TodayPage'
import { ahead } from './ui/ahead'
import { Broken, NotFetched, Nothing, Waiting } from './ui/PageState'

/** A screen whose code is fetched when somebody first goes there. */
const screen = <M,>(load: () => Promise<M>, name: keyof M) => ({
  lazy: async () => {
    const screens = await load().catch((cause: unknown): never => {
      throw new NotFetched('A screen could not be fetched', { cause })
    })
    return { Component: screens[name] as ComponentType }
  },
})

/** A screen of the room's work, fetched ahead: it must open while the server is away. */
const workScreen = <M,>(load: () => Promise<M>, name: keyof M) => screen(ahead(load), name)

const setup = () => import('./setup/setupPages')

/** Every address there is, and its screen. */
export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Broken />,
    hydrateFallbackElement: <Waiting what="the screen" />,
    // A screen that breaks leaves the frame around it: the clocks, what waits, and the way to the others.
    children: [
      {
        errorElement: <Broken />,
        children: [
          { path: '/', element: <Navigate to="/today" replace /> },
          { path: '/today', element: <TodayPage /> },
          { path: '/today/calendar', ...screen(() => import('./today/CalendarPage'), 'CalendarPage') },
          { path: '/crates', ...workScreen(() => import('./crates/CratesPage'), 'CratesPage') },
          { path: '/crates/new', ...workScreen(() => import('./crates/NewCratePage'), 'NewCratePage') },
          { path: '/crates/:crateId', ...workScreen(() => import('./crates/CratePage'), 'CratePage') },
          { path: '/crates/:crateId/edit', ...screen(() => import('./crates/EditCratePage'), 'EditCratePage') },
          { path: '/crates/:crateId/preparation', ...workScreen(() => import('./crates/PreparationPage'), 'PreparationPage') },
          { path: '/crates/:crateId/tanks', ...workScreen(() => import('./crates/TankChoicePage'), 'TankChoicePage') },
          { path: '/crates/:crateId/claim', ...screen(() => import('./crates/ClaimPage'), 'ClaimPage') },
          { path: '/crates/:crateId/unpack', ...workScreen(() => import('./crates/UnpackPage'), 'UnpackPage') },
          { path: '/bench', ...workScreen(() => import('./bench/BenchPage'), 'BenchPage') },
          { path: '/bench/compare', ...workScreen(() => import('./bench/ComparePage'), 'ComparePage') },
          { path: '/bench/runs/:runId', ...workScreen(() => import('./bench/RunPage'), 'RunPage') },
          { path: '/room', ...workScreen(() => import('./room/RoomPage'), 'RoomPage') },
          { path: '/room/:code', ...workScreen(() => import('./room/TankPage'), 'TankPage') },
          { path: '/arrange', ...screen(() => import('./room/ArrangePage'), 'ArrangePage') },
          { path: '/labels', ...screen(() => import('./room/LabelsPage'), 'LabelsPage') },
          { path: '/scan', ...workScreen(() => import('./scan/ScanPage'), 'ScanPage') },
          { path: '/t/:code', ...screen(() => import('./scan/ScanPage'), 'LabelPage') },
          { path: '/as-of', ...screen(() => import('./room/AsOfPage'), 'AsOfPage') },
          { path: '/sales', ...screen(() => import('./sales/SalesPage'), 'SalesPage') },
          { path: '/stocktake', ...workScreen(() => import('./stocktake/StocktakePage'), 'StocktakePage') },
          { path: '/stocktake/walk', ...workScreen(() => import('./stocktake/StocktakePage'), 'CountWalkPage') },
          { path: '/stocktake/list', ...screen(() => import('./stocktake/CountListPage'), 'CountListPage') },
          { path: '/stocktake/review', ...screen(() => import('./stocktake/ReviewPage'), 'ReviewPage') },
          { path: '/room/:code/move', ...workScreen(() => import('./moves/MovePage'), 'MovePage') },
          { path: '/plans', ...workScreen(() => import('./plans/PlansPage'), 'PlansPage') },
          { path: '/plans/new', ...screen(() => import('./plans/NewPlanPage'), 'NewPlanPage') },
          { path: '/vessels/:vesselId', ...workScreen(() => import('./moves/VesselPage'), 'VesselPage') },
          { path: '/bench/introductions/new', ...screen(() => import('./moves/NewIntroductionPage'), 'NewIntroductionPage') },
          { path: '/bench/introductions/:introductionId', ...workScreen(() => import('./moves/IntroductionPage'), 'IntroductionPage') },
          { path: '/contacts', ...screen(() => import('./contacts/TracePage'), 'TraceOfPage') },
          { path: '/contacts/tools', ...screen(() => import('./contacts/ToolsPage'), 'ToolsPage') },
          { path: '/room/:code/contacts', ...screen(() => import('./contacts/TracePage'), 'TracePage') },
          { path: '/room/:code/card', ...screen(() => import('./room/CardPage'), 'CardPage') },
          { path: '/rounds', ...workScreen(() => import('./rounds/RoundPage'), 'RoundPage') },
          { path: '/holds', ...workScreen(() => import('./holds/HoldsPage'), 'HoldsPage') },
          { path: '/regimens', ...workScreen(() => import('./regimens/RegimensPage'), 'RegimensPage') },
          { path: '/regimens/new', ...screen(() => import('./regimens/NewRegimenPage'), 'NewRegimenPage') },
          { path: '/regimens/dose', ...workScreen(() => import('./regimens/DosePage'), 'DosePage') },
          { path: '/regimens/:regimenId', ...workScreen(() => import('./regimens/RegimenPage'), 'RegimenPage') },
          { path: '/outcomes', ...screen(() => import('./outcomes/OutcomesPage'), 'OutcomesPage') },
          { path: '/outcomes/alarms', ...screen(() => import('./outcomes/AlarmsPage'), 'AlarmsPage') },
          { path: '/outcomes/trials', ...screen(() => import('./outcomes/TrialsPage'), 'TrialsPage') },
          { path: '/outcomes/review', ...screen(() => import('./outcomes/ReviewPage'), 'ReviewPage') },
          { path: '/outcomes/money', ...screen(() => import('./outcomes/MoneyPage'), 'MoneyPage') },
          { path: '/outcomes/fish', ...screen(() => import('./outcomes/FishPage'), 'FishPage') },
          { path: '/chores', ...workScreen(() => import('./chores/ChoresPage'), 'ChoresPage') },
          { path: '/chores/new', ...screen(() => import('./chores/ChorePage'), 'ChorePage') },
          { path: '/chores/:choreId', ...screen(() => import('./chores/ChorePage'), 'ChorePage') },
          { path: '/probes', ...screen(() => import('./probes/ProbesPage'), 'ProbesPage') },
          { path: '/handover', ...workScreen(() => import('./handover/HandoverPage'), 'HandoverPage') },
          { path: '/kitchen', ...workScreen(() => import('./kitchen/KitchenPage'), 'KitchenPage') },
          { path: '/kitchen/larder', ...workScreen(() => import('./kitchen/LarderPage'), 'LarderPage') },
          { path: '/kitchen/otherwise', ...screen(() => import('./kitchen/OtherwisePage'), 'OtherwisePage') },
          {
            path: '/desk',
            ...screen(() => import('./desk/DeskFrame'), 'DeskFrame'),
            children: [
              { index: true, element: <Navigate to="/desk/gravity" replace /> },
              { path: 'bag', ...screen(() => import('./bench/BagToTankPage'), 'BagToTankPage') },
              { path: ':key', ...screen(() => import('./desk/CalculatorPage'), 'CalculatorPage') },
            ],
          },
          {
            path: '/setup',
            ...screen(setup, 'SetupFrame'),
            children: [
              { index: true, ...screen(setup, 'SetupHome') },
              { path: 'room', ...screen(setup, 'RoomSettingsPage') },
              { path: 'rack', ...screen(setup, 'RackPage') },
              { path: 'book', ...screen(setup, 'BookPage') },
              { path: 'book/changes', ...screen(setup, 'BookChangesPage') },
              { path: 'limits', ...screen(setup, 'LimitsPage') },
              { path: 'moves', ...screen(setup, 'MoveRulesPage') },
              { path: 'rounds', ...screen(setup, 'RoundListsPage') },
              { path: 'schools', ...screen(setup, 'SchoolsPage') },
              { path: 'holds', ...screen(setup, 'HoldPoliciesPage') },
              { path: 'people', ...screen(setup, 'PeoplePage') },
              { path: 'devices', ...screen(setup, 'DevicesPage') },
              { path: 'audit', ...screen(setup, 'AuditPage') },
              { path: 'keeping', ...screen(setup, 'KeepingPage') },
              { path: ':register', ...screen(setup, 'RegisterPage') },
              { path: ':register/import', ...screen(setup, 'RegisterImportPage') },
              { path: ':register/:id', ...screen(setup, 'RegisterRowPage') },
            ],
          },
          { path: '*', element: <Nothing>There is nothing at this address.</Nothing> },
        ],
      },
    ],
  },
])
