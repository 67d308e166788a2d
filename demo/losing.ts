import type { CrateView } from '../core/crates/crateView'
import type { StaffView } from '../core/staff/staff.schema'
import type { Commander } from './commander'
import type { Chance } from './chance'

const dayMs = 86_400_000

/** Fish that came with a crate, and how easily they die. */
interface Newcomer {
  lotId: string
  tankId: string
  tankCode: string
  cameMs: number
  /** Fish that came, less those it lost; some are sold meanwhile, which is looked up when one dies. */
  fish: number
  /** How many times as easily as most: by kind, by how its crate travelled, by the school it began in. */
  times: number
}

/** Chance in ten thousand to die on a day, by days since they came: most in the first week. */
const perDay = (day: number): number => (day <= 1 ? 35 : day <= 3 ? 25 : day <= 7 ? 16 : day <= 14 ? 8 : 0)
/** Kinds that die easily whoever sends them, and kinds that hardly die: Brackwater sends the delicate ones and looks bad for it. */
const delicate = ['Otocinclus', 'Sparkling gourami', 'Sailfin molly', 'Knight goby', 'Bumblebee goby', 'Silver mono']
const hardy = ['Zebra danio', 'Platy', 'Guppy', 'Rosy barb', 'Bronze corydoras']
/** What is true of this made room, and what Outcomes is to find out: the drip costs more fish than the net-over. */
const timesOfSchool: Record<string, number> = { drip: 2.2, netOver: 0.6, siphon: 1 }
/** Fish of one crate travelled together, and die alike. */
const timesOfCrate = [0.3, 0.7, 1, 1, 1.4, 2]

/** Newcomers of every crate and their losses over the first two weeks, by a chance of their own. */
export function createLosses(chance: Chance) {
  let newcomers: Newcomer[] = []
  return {
    /** Remembers what came with a crate. */
    came(crate: CrateView, schoolKey: string, atMs: number): void {
      const ofCrate = chance.from(timesOfCrate)
      for (const { lotId, species, tank, count } of crate.lines) {
        const ofKind = delicate.includes(species) ? 3.2 : hardy.includes(species) ? 0.5 : 1
        if (tank) newcomers.push({ lotId, tankId: tank.id, tankCode: tank.code, cameMs: atMs, fish: count, times: ofKind * ofCrate * (timesOfSchool[schoolKey] ?? 1) })
      }
    },
    /** The dead of a day, found on the evening walk. The last two weeks were quiet: the demo opens on a good morning. */
    async lose({ commander, people }: { commander: Commander; people: { keepers: readonly StaffView[]; lead: StaffView } }, daysAgo: number, atMs: number): Promise<void> {
      if (daysAgo <= 14) return
      newcomers = newcomers.filter(({ cameMs }) => atMs - cameMs < 15 * dayMs)
      for (const [index, newcomer] of newcomers.entries()) {
        const { lotId, tankId, tankCode, cameMs, times } = newcomer
        const tenThousandths = Math.round(perDay(Math.floor((atMs - cameMs) / dayMs)) * times)
        let dead = 0
        for (let each = 0; each < newcomer.fish; each += 1) if (chance.within(1, 10_000) <= tenThousandths) dead += 1
        if (dead === 0) continue
        const quantity = Math.min(dead, (commander.tank(tankCode, atMs).stock.find((row) => row.lotId === lotId)?.quantity ?? 0) - 2)
        newcomer.fish -= Math.max(0, quantity)
        if (quantity > 0) await commander.run('recordLoss', { tankId }, { lotId, quantity, cause: chance.from(['found dead', 'found dead', 'found dead', 'not found', 'jumped'] as const), note: null, happenedAtMs: atMs + index * 60_000 }, chance.from([people.lead, ...people.keepers]), atMs + index * 60_000)
      }
    },
  }
}
export type Losses = ReturnType<typeof createLosses>
