import type { Role } from '../../core/staff/staff.schema'

/** Screens of the rail, in the order of the work; a phone's bar has room for the first few, the rest stand under "more". */
const screens: readonly { to: string; label: string; isForLeads: boolean; isInMore?: boolean }[] = [
  { to: '/today', label: 'Today', isForLeads: false },
  { to: '/crates', label: 'Crates', isForLeads: false },
  { to: '/bench', label: 'Bench', isForLeads: false },
  { to: '/room', label: 'Room', isForLeads: false },
  { to: '/rounds', label: 'Rounds', isForLeads: false },
  { to: '/holds', label: 'Holds', isForLeads: false, isInMore: true },
  { to: '/regimens', label: 'Regimens', isForLeads: false, isInMore: true },
  { to: '/outcomes', label: 'Outcomes', isForLeads: false, isInMore: true },
  { to: '/kitchen', label: 'Kitchen', isForLeads: false, isInMore: true },
  { to: '/chores', label: 'Chores', isForLeads: false, isInMore: true },
  { to: '/desk', label: 'Water desk', isForLeads: false, isInMore: true },
  { to: '/setup', label: 'Setup', isForLeads: true, isInMore: true },
]

/** Screens that somebody in this role goes to. */
export const screensFor = (role: Role) => screens.filter((screen) => !screen.isForLeads || role === 'lead')
