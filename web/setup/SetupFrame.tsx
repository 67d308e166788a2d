import { Outlet } from 'react-router'
import { useSession } from '../api/session'
import { SideFrame } from '../ui/SideFrame'
import { setupGroups } from './setupScreens'

/** Setup: a lead's pages. A keeper who was led here by the find box sees the one page, without the rest. */
export function SetupFrame() {
  const { recorder } = useSession()
  return recorder.role === 'lead' ? <SideFrame name="Setup" groups={setupGroups} /> : <Outlet />
}
