import { calculations } from '../../core/desk/calculations'
import { SideFrame, type PageGroup } from '../ui/SideFrame'

const page = (key: string) => ({ to: `/desk/${key}`, label: calculations.find((each) => each.key === key)?.title ?? key })

const groups: readonly PageGroup[] = [
  { title: 'Measuring', pages: ['gravity', 'hydrometer', 'conductivity', 'ammonia'].map(page) },
  { title: 'Changing water', pages: ['salt', 'change', 'drip'].map(page) },
  { title: 'Tank and dose', pages: ['volume', 'dose'].map(page) },
  { title: 'Acclimating', pages: [{ to: '/desk/bag', label: 'A bag into a tank' }] },
]

/** The Water desk: figures with their formula, source, range, and what they do not say. */
export const DeskFrame = () => <SideFrame name="Water desk" groups={groups} />
