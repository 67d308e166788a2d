/** Screens of the rail, in the order of the work. */
export const screens = [
  { to: '/crates', label: 'Crates', isForLeads: false },
  { to: '/room', label: 'Room', isForLeads: false },
  { to: '/rounds', label: 'Rounds', isForLeads: false },
  { to: '/setup', label: 'Setup', isForLeads: true },
] as const
