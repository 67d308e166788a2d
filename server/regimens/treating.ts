import { bookColumnOf } from '../../core/dosing/agentWords'
import { dosingLimits, shippedAgents } from '../../core/dosing/agents'
import { doseCheck, type Dose, type DosedFish, type DosedWater } from '../../core/dosing/doseCheck'
import type { WaterContent } from '../../core/dosing/doseReasons'
import type { TreatedWater, WaterReading } from '../../core/dosing/treatedWater'
import type { TankFacts } from '../../core/facts/facts'
import { holdGroupsOf } from '../../core/species/holdGroups'
import { offerDose, type DoseOffer, type LadderStand, type ProductLabel } from '../../core/regimens/offerDose'
import type { ReadingKind } from '../../core/room/glass.schema'
import type { FactsService } from '../facts/facts.service'
import type { HoldsService } from '../holds/holds.service'
import type { RegimensStore } from './regimens.store'

type Product = NonNullable<ReturnType<RegimensStore['product']>>

/** A body of water as doses go by it. */
export interface TreatableWater {
  id: string
  /** Its tanks in use, in rack order. */
  tanks: TankFacts[]
  kind: TankFacts['water']['kind']
  volumes: DosedWater['tanks']
  sumpL: number | null
  /** Net litres; null while a tank has neither figure. */
  volumeL: number | null
  /** Agents in it now, as the table of refusals calls them. */
  agents: string[]
  /** What stands in it besides fish; null until somebody said. */
  contents: WaterContent[] | null
  alkalinityMeqL: number | null
  salinityPpt: number | null
}

/** What stands in a water is good for so many days; house guidance. */
const contentsDays = 30
/** How each agent's kit writes its readings down, and what they are in mg/L. */
const readWith: Readonly<Record<string, { what: ReadingKind; mgL: (value: number) => number; kit: string | null }>> = {
  'copper, ionic': { what: 'copperMgL', mgL: (value) => value, kit: null },
  'copper, chelated': { what: 'copperMgL', mgL: (value) => value, kit: null },
  'salinity meter': { what: 'salinityPpt', mgL: (value) => value * 1000, kit: 'salinity meter' },
}
/** A label as the house wrote it down; null for a product that only the bench uses. */
export function labelOf({ strengthMgPerMl, activePercent, strengthBasis, targetMgL, targetBasis, loMgL, hiMgL, partPercent, raiseAfterH, stepPercent, doneBelowMgL }: Product): ProductLabel {
  const share = (percent: number | null): number | null => (percent === null ? null : percent / 100)
  return { strengthMgPerMl, activeShare: share(activePercent), strengthBasis, targetMgL, targetBasis, loMgL, hiMgL, partShare: share(partPercent), raiseAfterH, stepShare: share(stepPercent), doneBelowMgL }
}

interface Collaborators {
  store: RegimensStore
  facts: Pick<FactsService, 'inUse' | 'requireTank'>
  holds: Pick<HoldsService, 'agentsIn' | 'lotsIn'>
}

/** What is known of a water for whoever puts something into it. */
export function createTreating({ store, facts, holds }: Collaborators) {
  function water(tankId: string, nowMs: number): TreatableWater {
    const tank = facts.requireTank(tankId, 'tankId', nowMs)
    const tanks = facts.inUse(nowMs).filter(({ water: { id } }) => id === tank.water.id)
    const said = store.contents(tank.water.id)
    const volumes = store.litres(tanks.map((each) => each.tankId))
    const { sumpL } = tank.water.isAlone ? { sumpL: null } : store.sump(tank.systemId)
    const isKnown = volumes.length > 0 && volumes.every(({ netL, grossL }) => netL !== null || grossL !== null)
    const [read] = tanks.flatMap(({ readings }) => readings.filter(({ what }) => what === 'salinityPpt')).sort((a, b) => b.atMs - a.atMs)
    const isBound = said?.binderUntilMs != null && said.binderUntilMs > nowMs
    return {
      ...{ id: tank.water.id, tanks, kind: tank.water.kind, volumes, sumpL },
      volumeL: isKnown ? volumes.reduce((sum, { netL, grossL }) => sum + (netL ?? dosingLimits.grossShare * (grossL ?? 0)), sumpL ?? 0) : null,
      agents: holds.agentsIn(tank.water.id, nowMs),
      // Said long ago, it is asked for once more: carbon comes and goes.
      contents: said && nowMs - said.atMs <= contentsDays * 86_400_000 ? said.contents.filter((each) => each !== 'binder' || isBound) : null,
      ...{ alkalinityMeqL: tank.water.alkalinityMeqL, salinityPpt: read?.value ?? tank.water.salinityPpt },
    }
  }

  /** Everybody in a water, as the table of refusals asks: once for each hold group. */
  function fishIn({ id, tanks }: TreatableWater, nowMs: number): DosedFish[] {
    // Those in a box that hangs in a tank stand in its water, too.
    const lotIds = [...new Set([...tanks.flatMap(({ lots, perhaps }) => [...lots, ...perhaps].map(({ lotId }) => lotId)), ...holds.lotsIn(id, nowMs)])]
    return store.kinds(lotIds).flatMap(({ groups, animal, isKnown, isWeak, sensitivities, book }): DosedFish[] => {
      const said = Object.fromEntries(Object.keys(shippedAgents).flatMap((agent) => {
        const word = book[bookColumnOf(agent) ?? '']
        return word == null ? [] : [[agent, word]]
      }))
      return holdGroupsOf(groups, animal, isKnown).map((group) => ({ group, isWeak, sensitivities, book: said }))
    })
  }

  /** What one agent went through in a water; null where nobody knows its litres. */
  function treated({ id, volumeL }: TreatableWater, agent: string): TreatedWater | null {
    if (volumeL === null || volumeL <= 0) return null
    const how = readWith[shippedAgents[agent]?.kit ?? '']
    const readings = how ? store.readings(id, how.what, 0).map(({ atMs, value, instrument }): WaterReading => ({ atMs, ...(value === 0 ? { mgL: dosingLimits.kitAbs, isBelow: true } : { mgL: how.mgL(value) }), kit: how.kit ?? instrument })) : []
    return {
      volumeL,
      doses: store.doses(id, 0).filter((dose) => dose.agent === agent).map(({ atMs, mg, isCut }) => ({ atMs, mg, isCut })),
      changes: store.changes(id, 0).map((change) => ({ atMs: change.atMs, litres: change.litres, cnMgL: change.agent === agent ? (change.mixMgL ?? 0) : 0 })),
      readings,
      foundAtMs: store.foundAt(id, agent),
    }
  }

  /** What a screen offers to put into a water now. Nothing is offered before somebody said what stands in it. */
  function offer(of: TreatableWater, product: Product & { agent: string }, { stand, nowMs, leadOverrides = false }: { stand: LadderStand | null; nowMs: number; leadOverrides?: boolean }): DoseOffer & { isContentsAsked: boolean } {
    const asked = { kind: of.kind, tanks: of.volumes, sumpL: of.sumpL, contents: of.contents ?? [], agents: of.agents, alkalinityMeqL: of.alkalinityMeqL, salinityPpt: of.salinityPpt }
    const offered = offerDose({ agent: product.agent, label: labelOf(product), water: asked, fish: fishIn(of, nowMs), treated: treated(of, product.agent), stand, nowMs, leadOverrides })
    if (of.contents !== null) return { ...offered, isContentsAsked: false }
    return { ...offered, isContentsAsked: true, check: { ...offered.check, rise: null, doseMg: null, productMl: null, productG: null, isCut: false } }
  }

  /** What the table says of low salinity in a water, which no dose brings. */
  function ofLowSalinity(of: TreatableWater, nowMs: number): Pick<Dose, 'answer' | 'override' | 'reasons'> {
    return doseCheck({ agent: 'lowSalinity', label: null, water: { kind: of.kind, tanks: of.volumes, contents: of.contents ?? [], agents: of.agents.filter((agent) => agent !== 'lowSalinity'), alkalinityMeqL: of.alkalinityMeqL }, fish: fishIn(of, nowMs), level: null })
  }

  return { water, fishIn, treated, offer, ofLowSalinity }
}
export type Treating = ReturnType<typeof createTreating>
