import { eachApart } from '../../core/collections/eachApart'
import { groupBy } from '../../core/collections/groupBy'
import type { TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import { gramsOf, mostDelicate } from '../../core/moves/handled'
import type { MoveRules } from '../../core/moves/moveRules'
import type { InVessel, VesselView } from '../../core/moves/moveView'
import { vesselLimit } from '../../core/moves/vesselLimit'
import { kindKey } from '../../core/pools/poolsOf'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import type { PlacingStore } from '../placing/placing.store'
import type { LotInVessel, VesselsStore } from './vessels.store'

const minuteMs = 60_000
/** Water of which nobody knows the temperature is taken to be at this. */
const usualTempC = 25

interface Collaborators {
  store: VesselsStore
  facts: Pick<FactsService, 'tank'>
  placing: Pick<PlacingStore, 'lots'>
  limits: () => Limits
  rules: () => MoveRules
}

/** Buckets and boxes: what stands in them, in whose water, and how long they bear it. */
export function createVesselsService({ store, facts, placing, limits, rules }: Collaborators) {
  /** The tank whose water a vessel with fish has. */
  function tankOf(id: string, nowMs: number): TankFacts | null {
    const tankId = store.tankOf(id)
    return tankId === null ? null : facts.tank(tankId, nowMs)
  }

  function limitOf({ kind, litres, air }: NonNullable<ReturnType<VesselsStore['byId']>>, lots: readonly LotInVessel[], sinceMs: number, tank: TankFacts | null, nowMs: number): NonNullable<VesselView['limit']> {
    const known = new Map(placing.lots(lots.map(({ lotId }) => lotId), nowMs, true).map((lot) => [lot.lotId, lot]))
    const fish = lots.flatMap(({ lotId, quantity }) => {
      const animal = known.get(lotId)?.animal
      const grams = animal ? gramsOf(animal, rules()) : null
      return grams === null ? [] : [{ n: quantity, massG: grams }]
    })
    const tolerance = mostDelicate([...known.values()].flatMap(({ tolerance: bears }) => (bears ? [{ tolerance: bears }] : [])))
    const { minutes, binds } = vesselLimit({ kind, litres, tempC: tank?.water.tempC ?? usualTempC, salinityPpt: tank?.water.salinityPpt ?? 0, ph: tank?.water.ph ?? null, air: air === 'yes', fish, tolerance }, limits())
    return { watchAtMs: sinceMs + Math.round((2 / 3) * minutes) * minuteMs, actAtMs: sinceMs + minutes * minuteMs, binds }
  }

  function viewOf(row: NonNullable<ReturnType<VesselsStore['byId']>>, nowMs: number): VesselView {
    const lots = store.lotsIn(row.id)
    const sinceMs = lots.length === 0 ? null : Math.min(...lots.map((lot) => lot.sinceMs))
    const tank = sinceMs === null ? null : tankOf(row.id, nowMs)
    const fish = [...groupBy(lots, kindKey).values()].flatMap(([first, ...rest]): InVessel[] => {
      if (!first) return []
      const { speciesId, species, strain } = first
      const all = [first, ...rest]
      return [{ speciesId, species, strain, lotIds: all.map(({ lotId }) => lotId), quantity: all.reduce((sum, { quantity }) => sum + quantity, 0) }]
    })
    return {
      ...{ id: row.id, name: row.name, kind: row.kind, litres: row.litres, hasAir: row.air === 'yes', fish },
      tank: tank && { id: tank.tankId, code: tank.code },
      sinceMs,
      // One that cannot be reckoned still shows its fish.
      limit: sinceMs === null ? null : (eachApart([row], () => limitOf(row, lots, sinceMs, tank, nowMs), () => null)[0] ?? null),
    }
  }

  return {
    /** A vessel in use; null where there is none. */
    byId: (id: string) => {
      const row = store.byId(id)
      return row?.retiredAtMs === null ? row : null
    },
    lotsIn: store.lotsIn,
    waters: store.waters,
    tankOf,
    lastTankOf: store.lastTankOf,
    view: (nowMs: number): { vessels: VesselView[] } => ({ vessels: store.inUse().map((row) => viewOf(row, nowMs)) }),

    /**
     * Writes down whose water is in a vessel once fish came into it: that of the tank they left where it was empty, nobody's
     * alone where others stood in it that came from another. A box has the water of the tank it hangs in, whoever comes.
     */
    filled({ key }: CommandContext, { vesselId, tankId, wasEmpty, atMs }: { vesselId: string; tankId: string | null; wasEmpty: boolean; atMs: number }): void {
      const isMixed = !wasEmpty && store.tankOf(vesselId) !== tankId && store.byId(vesselId)?.kind !== 'box'
      if (wasEmpty || isMixed) store.insertWater({ vesselId, tankId: isMixed ? null : tankId, atMs, commandKey: key })
    },
  }
}
export type VesselsService = ReturnType<typeof createVesselsService>
