import { Tabs } from '../ui/Tabs'

const pages = [
  ['', 'Crate'],
  ['/preparation', 'Prepare'],
  ['/tanks', 'Tanks'],
  ['/unpack', 'Unpack'],
  ['/claim', 'Claim'],
] as const

/** The pages of one crate, in the order of the work. */
export const CrateTabs = ({ crateId }: { crateId: string }) => <Tabs label="Pages of this crate" pages={pages.map(([path, label]) => ({ to: `/crates/${crateId}${path}`, label }))} />
