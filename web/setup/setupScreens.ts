import type { PageGroup } from '../ui/SideFrame'

/** Pages of Setup, in the order in which a room is made. */
export const setupGroups: readonly PageGroup[] = [
  { title: 'Room', pages: [{ to: '/setup/room', label: 'Name and units' }, { to: '/setup/systems', label: 'Systems' }, { to: '/setup/tanks', label: 'Tanks' }, { to: '/setup/zones', label: 'Zones' }, { to: '/setup/toolSets', label: 'Tool sets' }, { to: '/setup/vessels', label: 'Buckets and boxes' }, { to: '/probes', label: 'Probes' }] },
  { title: 'Fish', pages: [{ to: '/setup/species', label: 'Species' }, { to: '/setup/suppliers', label: 'Suppliers' }, { to: '/setup/sources', label: 'Sources' }, { to: '/setup/foods', label: 'Foods' }, { to: '/setup/feeds', label: 'Feeds of the day' }, { to: '/setup/agents', label: 'Agents' }] },
  { title: 'Judgement', pages: [{ to: '/setup/limits', label: 'House limits' }, { to: '/setup/moves', label: 'Rules of moves' }, { to: '/setup/rounds', label: 'Lists of the round' }, { to: '/setup/schools', label: 'Schools' }, { to: '/setup/holds', label: 'Holds' }] },
  { title: 'People', pages: [{ to: '/setup/people', label: 'Staff' }, { to: '/setup/devices', label: 'Devices' }, { to: '/setup/audit', label: 'Audit' }] },
  { title: 'Keeping', pages: [{ to: '/setup/keeping', label: 'Backup and export' }] },
]
