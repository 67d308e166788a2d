import type { TankFacts } from '../facts/facts'
import { groupBy } from '../collections/groupBy'
import { kindKey } from '../pools/poolsOf'
import { isIllSign } from './actProposals'
import type { LevelReason } from './levelReason'
import type { RoundRules } from './roundRules'

/** Who would go to hospital, and where. */
export interface ToHospital {
  tankId: string
  code: string
  fish: { speciesId: string; strain: string | null; lotIds: string[]; quantity: number }[]
}

/**
 * An empty hospital tank of the same water that nobody counts on, the one that bears the most first, and the fish that show
 * a sign: the lots it was seen on, else all of the tank. Null where there is none.
 */
export function toHospital({ tankId, lots, water }: TankFacts, reasons: readonly LevelReason[], tanks: readonly TankFacts[], booked: Pick<ReadonlySet<string>, 'has'>, rules: RoundRules): ToHospital | null {
  const ill = reasons.filter((reason) => isIllSign(reason, rules))
  const going = ill.some(({ lot }) => lot === null) ? lots : lots.filter(({ lotId }) => ill.some(({ lot }) => lot === lotId))
  const free = tanks.filter((tank) => tank.purpose === 'hospital' && tank.tankId !== tankId && tank.lots.length === 0 && tank.water.kind === water.kind && !booked.has(tank.tankId) && (tank.state ?? 'ready') === 'ready')
  const [best] = free.sort((a, b) => (b.netVolumeL ?? 0) - (a.netVolumeL ?? 0) || (a.code < b.code ? -1 : 1))
  if (!best || going.length === 0) return null
  const kinds = [...groupBy(going, ({ speciesId, noted }) => kindKey({ speciesId, strain: noted.strain })).values()]
  return {
    ...{ tankId: best.tankId, code: best.code },
    fish: kinds.flatMap((of) => (of[0] ? [{ speciesId: of[0].speciesId, strain: of[0].noted.strain, lotIds: of.map(({ lotId }) => lotId), quantity: of.reduce((sum, { quantity }) => sum + quantity, 0) }] : [])),
  }
}
