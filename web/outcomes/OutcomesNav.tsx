import { useSession } from '../api/session'
import { Tabs } from '../ui/Tabs'

const pages = [
  { to: '/outcomes', label: 'Survival' },
  { to: '/outcomes/alarms', label: 'Alarms' },
  { to: '/outcomes/trials', label: 'Trials' },
]
const forLeads = [
  { to: '/outcomes/review', label: 'Review' },
  { to: '/outcomes/money', label: 'Money' },
]

/** Pages of what was learned from losses. */
export function OutcomesNav() {
  const { recorder } = useSession()
  return <Tabs label="Outcomes" pages={recorder.role === 'lead' ? [...pages, ...forLeads] : pages} />
}
