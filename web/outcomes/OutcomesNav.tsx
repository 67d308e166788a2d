import { Tabs } from '../ui/Tabs'

/** Pages of what was learned from losses. */
export const OutcomesNav = () => <Tabs label="Outcomes" pages={[{ to: '/outcomes', label: 'Survival' }]} />
