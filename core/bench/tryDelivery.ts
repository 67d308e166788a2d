import { usualPractice, type Practice } from '../acclimation/question'
import type { PhInstrument, SalinityInstrument } from '../acclimation/instruments'
import { countLot, triageBag, worstTriage } from '../crates/triage'
import type { BagFindings } from '../crates/crateView'
import { standardLimits, type Limits } from '../limits/houseLimits'
import type { Tolerance } from '../setup/words'
import { looksLikeGravity } from '../units/salinityDoubt'
import { baseUnits } from '../units/units'
import { adviseDelivery, type DeliveryAdvice } from './adviseDelivery'
import { deliveryOf, rangeOf } from './deliveryOf'
import { hasInvertebrate, type BenchFish } from './fishRules'
import { knownFigures, type KnownTank } from './knownFigures'
import type { WaterFacts } from './waterOfBag'

/** A bag as it is written down when it is opened; what nobody noted is left out. */
export interface TriedBag {
  fish: number
  skinC?: number | undefined
  waterC?: number | undefined
  salinityPpt?: number | undefined
  salinityBy?: SalinityInstrument | undefined
  ph?: number | undefined
  phBy?: PhInstrument | undefined
  tanMgL?: number | undefined
  dead?: number | undefined
  concerns?: readonly BagFindings['concerns'][number][]
  behaviour?: BagFindings['behaviour']
  body?: BagFindings['body']
}

/** A whole delivery of one kind, in base units, as staff would write it down. */
export interface TriedDelivery {
  species: { name: string; massG: number | null; tolerance: Tolerance | null }
  kind: BenchFish
  water: WaterFacts
  shipping: { tempC: number | null; salinityPpt: number | null; ph: number | null; alkalinityMeqL: number | null }
  crate: { hours: number | null; hasWorkingPacks: boolean; roomC: number | null; otherBagsC: number | null }
  bags: readonly TriedBag[]
  tank: KnownTank & { agents: readonly string[]; isOneWater: boolean }
  prepared: { tempC?: number | undefined; salinityPpt?: number | undefined } | null
  hasSpareTank: boolean
  hasBinder: boolean
}

const findingsOf = ({ fish, dead = 0, concerns = [], behaviour = null, body = null, waterC }: TriedBag, hasBinder: boolean) => ({ alive: Math.max(0, fish - dead), dead, concerns: [...concerns], body, behaviour, waterTempC: waterC ?? null, hasBinder })

/** Takes a delivery the way of the screens: what is known, the water in the bags, triage, then advice. */
export function tryDelivery(delivery: TriedDelivery, draws: number, limits: Limits = standardLimits, practice: Practice = usualPractice): DeliveryAdvice & { waterClass: string } {
  const { species, kind, water, shipping, crate, bags, tank, prepared, hasSpareTank, hasBinder } = delivery
  const house = crate.roomC === null ? limits : { ...limits, roomAirC: crate.roomC }
  const found = bags.map((bag) => findingsOf(bag, hasBinder))
  const triage = worstTriage(found.map((findings) => triageBag({ findings, hoursInBag: crate.hours, poisons: kind.poisons, isInvertebrate: hasInvertebrate([kind]), lot: countLot(found) }, house)))
  const odd = bags.map(({ salinityPpt }) => salinityPpt).find((ppt) => ppt !== undefined && looksLikeGravity(ppt))
  const known = knownFigures({
    species,
    water,
    bags: bags.map((bag, index) => ({ fish: found[index]?.alive ?? bag.fish, skinTempC: bag.skinC ?? null, waterTempC: bag.waterC ?? null, salinityPpt: bag.salinityPpt ?? null, ph: bag.ph ?? null, ammoniaMgL: bag.tanMgL ?? null, hasBinder, salinityBy: bag.salinityBy ?? null, phBy: bag.phBy ?? null })),
    ...{ hoursInBag: crate.hours, usualHours: null, tank, preparedPpt: prepared?.salinityPpt ?? null, hasSpareTank, otherBagsC: crate.otherBagsC, hasWorkingPacks: crate.hasWorkingPacks },
    shipping: { ...shipping, from: 'told' },
    ...{ instruments: { salinityBy: 'refractometer', phBy: 'meter' }, limits: house, units: baseUnits },
  })
  const figures = { ...Object.fromEntries(Object.entries(known.figures).map(([name, { value }]) => [name, value])), ...(prepared?.tempC === undefined ? {} : { preparedC: prepared.tempC }) }
  const facts = { kinds: [kind], triage, tankWater: tank.water, tankAgents: tank.agents, isOneWater: tank.isOneWater, hoursSaid: crate.hours, speciesName: species.name, waterFacts: water, readPpt: rangeOf(bags.map(({ salinityPpt }) => salinityPpt)), readC: rangeOf(bags.map(({ waterC }) => waterC)) }
  const asked = deliveryOf(facts, figures, { ...known.words, binder: hasBinder ? 'yes' : 'no' }, practice, baseUnits, { isSurePpt: odd === undefined })
  return { ...adviseDelivery(asked, { limits: house }, draws), waterClass: asked.water.waterClass }
}
