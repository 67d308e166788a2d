import type { QueryOf } from '../../core/commands/declare'
import type { benchApi } from '../../core/bench/bench.api'
import type { BenchSubject } from '../../core/bench/benchView'
import type { PhInstrument, SalinityInstrument } from '../../core/acclimation/instruments'
import { hasInvertebrate, type BenchFish } from '../../core/bench/fishRules'
import { rangeOf } from '../../core/bench/deliveryOf'
import { knownFigures, type KnownBag } from '../../core/bench/knownFigures'
import { speciesTogether } from '../../core/bench/speciesTogether'
import { countLot, releaseStep, triageBag, worstTriage, type Triage, type TriageInput } from '../../core/crates/triage'
import type { BrokenRule } from '../../core/tankChoice/company'
import type { Limits } from '../../core/limits/houseLimits'
import type { DisplayUnits } from '../../core/units/units'
import { Problem } from '../http/problem'
import type { Going, PlacingService } from '../placing/placing.service'
import type { SubjectBag, SubjectStore } from './subject.store'

const hourMs = 3_600_000
/** Waters nearer than this are the same. */
const samePpt = 0.3
/** Fish that leave a tank are on the way for so long, usually. */
const visitHours = 0.5
const mostLines = 40

const toKnownBag = ({ quantity, listed, isOpened, findings }: SubjectBag): KnownBag => ({
  fish: isOpened ? quantity : listed,
  ...{ skinTempC: findings?.skinTempC ?? null, waterTempC: findings?.waterTempC ?? null, salinityPpt: findings?.salinityPpt ?? null, ph: findings?.ph ?? null, ammoniaMgL: findings?.ammoniaMgL ?? null, hasBinder: findings?.hasBinder === true, salinityBy: findings?.salinityBy ?? null, phBy: findings?.phBy ?? null },
})

interface Collaborators {
  store: SubjectStore
  limits: () => Limits
  units: () => DisplayUnits
  /** What the house reads with. */
  instruments: () => { salinityBy: SalinityInstrument; phBy: PhInstrument }
  placing: Pick<PlacingService, 'against'>
}

/** Gathers what the books know of fish and their tank, so that nothing is asked twice. */
export function createSubjectService({ store, limits, units, instruments, placing }: Collaborators) {
  const tankView = (id: string | null) => {
    const tank = id === null ? null : store.tank(id)
    if (id !== null && !tank) throw new Problem('not-found', 'There is no such tank')
    return tank
  }

  function ofLines(lineIds: readonly string[], bagId: string | null, tankId: string | null, nowMs: number): BenchSubject {
    const lines = lineIds.map((lineId) => {
      const line = store.line(lineId)
      if (!line) throw new Problem('not-found', 'There is no such line')
      return { ...line, ...bagsAtHand(lineId, bagId) }
    })
    const [line] = lines
    if (!line) throw new Problem('not-found', 'There is no such line')
    if (lines.some(({ crateId }) => crateId !== line.crateId)) throw new Problem('conflict', 'Bags of different crates came in different water: acclimate them apart')
    const kinds = store.kindsOf(lines.map(({ lotId }) => lotId))
    const tank = tankView(tankId ?? line.tankId)
    const hoursInBag = line.packedAtMs === null ? null : (nowMs - line.packedAtMs) / hourMs
    const atHand = lines.flatMap((each) => each.bags)
    const triages = triagesOf(lineIds, atHand, kinds, hoursInBag)
    // Bags that fail go alone, by their own readings; the others wait for them.
    const failing = atHand.filter((_, index) => triages[index]?.step === releaseStep)
    const bags = failing.length > 0 ? failing : atHand
    const isReady = tank !== null && tank.isAlone && tank.water !== 'fresh' && tank.fish === 0 && store.wasMadeReady(line.crateId, tank.id)
    const preparedPpt = isReady && line.shippingSalinityPpt !== null && Math.abs(line.shippingSalinityPpt - (tank?.salinityPpt ?? line.shippingSalinityPpt)) > samePpt ? line.shippingSalinityPpt : null
    const species = speciesTogether(lines.map((each) => ({ ...each, fish: each.bags.map(toKnownBag).reduce((sum, { fish }) => sum + fish, 0) })), limits())
    const speciesName = lines.map((each) => each.species).join(' and ')
    const waterFacts = { standing: null, usual: line.usualWater, waters: [...new Set(lines.flatMap(({ waters }) => waters))], phMax: species.phMax, hardness: kinds[0]?.kept?.hardness ?? null }
    const { figures, words } = knownFigures({
      species: { ...species, name: speciesName },
      water: waterFacts,
      bags: bags.map(toKnownBag),
      ...{ hoursInBag, usualHours: line.transitHours, tank, preparedPpt, limits: limits(), units: units(), instruments: instruments() },
      ...{ otherBagsC: store.otherBagsC(line.crateId, lineIds, nowMs - hourMs), hasWorkingPacks: line.hasWorkingPacks },
      shipping: { tempC: line.shippingTempC, salinityPpt: line.shippingSalinityPpt, ph: line.shippingPh, alkalinityMeqL: line.shippingAlkalinityMeqL, from: 'told' },
      hasSpareTank: tank !== null && tank.isAlone && tank.fish === 0,
    })
    return {
      ...{ title: bags.length < atHand.length ? `${bags.map(({ from }) => from).join(' and ')} of ${speciesName}; ${atHand.length - bags.length} more wait` : lines.map(titleOf).join(' and '), lineIds: [...lineIds], temperament: species.temperament },
      crate: { id: line.crateId, number: line.crateNumber },
      company: tank === null ? [] : store.company(line.crateId, tank.id).filter(({ lineId }) => !lineIds.includes(lineId)),
      tank: tank && { id: tank.id, code: tank.code, netVolumeL: tank.netVolumeL },
      against: against(tank, bags.map(({ lotId, quantity, listed }) => ({ lotId, quantity: quantity || listed })), nowMs),
      sources: bags.filter(({ quantity }) => quantity > 0).map(({ placeId, lotId, lotCode, species: name, from, quantity }) => ({ placeId, lotId, lotCode, species: name, from, quantity })),
      ...{ figures, words, kinds, speciesName, waterFacts, readPpt: rangeOf(bags.map(({ findings }) => findings?.salinityPpt)), readC: rangeOf(bags.map(({ findings }) => findings?.waterTempC)) },
      ...{ tankWater: tank?.water ?? null, tankAgents: tank?.agents ?? [], isOneWater: false, hoursSaid: hoursInBag },
      triage: worstTriage(triages),
      agents: store.agents(),
    }
  }

  /** Rules against the tank that they are to go to. */
  const against = (tank: { id: string } | null, going: readonly Going[], nowMs: number): BrokenRule[] => (tank === null ? [] : placing.against({ going, tankId: tank.id, isPlan: true }, nowMs))

  /** Shut bags are expected, opened ones are here: once some are open, they are what goes on the bench. */
  function bagsAtHand(lineId: string, bagId: string | null): { bags: SubjectBag[]; shut: number } {
    const all = store.bags(lineId)
    const alone = all.find(({ placeId, quantity }) => placeId === bagId && quantity > 0)
    if (alone) return { bags: [alone], shut: 0 }
    const opened = all.filter(({ quantity }) => quantity > 0)
    return opened.length > 0 ? { bags: opened, shut: all.length - opened.length } : { bags: all, shut: 0 }
  }

  const titleOf = ({ bags, shut, species }: { bags: readonly SubjectBag[]; shut: number; species: string }): string => `${bags.length} ${bags.length === 1 ? 'bag' : 'bags'} of ${species}${shut > 0 ? `, ${shut} more still shut` : ''}`

  /** The first response that each bag asks for, null where it was not opened; deaths count over all that were opened of its lot. */
  function triagesOf(lineIds: readonly string[], bags: readonly SubjectBag[], kinds: readonly BenchFish[], hoursInBag: number | null): (Triage | null)[] {
    const opened = lineIds.flatMap((lineId) => store.openedBags(lineId))
    const kindOf = (species: string): BenchFish[] => kinds.filter((kind) => kind.species === species)
    return bags.map(({ species, lotId, findings }) => {
      if (!findings) return null
      const lot = countLot(opened.filter((each) => each.lotId === lotId))
      return triageBag({ findings: findings as TriageInput['findings'], hoursInBag, poisons: kindOf(species)[0]?.poisons ?? null, isInvertebrate: hasInvertebrate(kindOf(species)), lot }, limits())
    })
  }

  /** Fish that leave a tank, for another one of the room or for somebody else's. */
  function ofLot(lotId: string, fromTankId: string, isOfKind: boolean, tankId: string | null, nowMs: number): BenchSubject {
    const one = store.lotInTank(lotId, fromTankId)
    const together = isOfKind && one ? store.kindInTank(lotId, fromTankId) : null
    const lot = one && together ? { ...one, quantity: together.quantity } : one
    const from = tankView(fromTankId)
    if (!lot || !from) throw new Problem('not-found', 'No fish of this lot stand in this tank')
    const tank = tankView(tankId)
    const waterFacts = { standing: from.water, usual: null, waters: lot.waters, phMax: lot.phMax }
    const known = knownFigures({
      species: { ...lot, name: lot.species },
      water: waterFacts,
      ...{ otherBagsC: null, hasWorkingPacks: false, units: units(), instruments: instruments() },
      bags: [{ fish: lot.quantity, skinTempC: null, waterTempC: null, salinityPpt: null, ph: null, ammoniaMgL: null, hasBinder: false }],
      ...{ hoursInBag: visitHours, usualHours: null, tank, preparedPpt: null, hasSpareTank: false, limits: limits() },
      shipping: { tempC: from.tempC, salinityPpt: from.salinityPpt, ph: from.ph, alkalinityMeqL: from.alkalinityMeqL, from: 'system' },
    })
    const { placeId, lotCode, species, quantity } = lot
    return {
      ...{ title: `${quantity} ${species} from ${lot.from}`, crate: null, lineIds: [], company: [], temperament: lot.temperament, triage: null, kinds: store.kindsOf([lotId]) },
      ...{ speciesName: species, waterFacts, tankWater: tank?.water ?? null, tankAgents: tank?.agents ?? [], isOneWater: tank !== null && tank.waterId === from.waterId, hoursSaid: visitHours },
      tank: tank && { id: tank.id, code: tank.code, netVolumeL: tank.netVolumeL },
      against: against(tank, [{ lotId, quantity: lot.quantity, fromPlaceId: fromTankId }], nowMs),
      sources: [{ placeId, lotId, lotCode, species, from: lot.from, quantity, ...(together && together.lots > 1 ? { isOfKind: true } : {}) }],
      ...{ figures: known.figures, words: { ...known.words, gas: 'air' } },
      agents: store.agents(),
    }
  }

  return {
    /** By `line` (several share a vessel; `bag` names one of its bags alone), or by `lot` and `from` (a tank), with `kind` all fish of the kind that lot is of; `tank` names where they are to go instead of where they are planned. */
    view({ line, bag, lot, from, kind, tank }: QueryOf<typeof benchApi.readSubject>, nowMs: number): BenchSubject {
      if (line.length > 0) return ofLines([...new Set(line)].slice(0, mostLines), bag, tank, nowMs)
      if (lot !== null && from !== null) return ofLot(lot, from, kind !== null, tank, nowMs)
      throw new Problem('not-found', 'Say which fish: a line of a crate, or a lot and the tank it stands in')
    },
  }
}
export type SubjectService = ReturnType<typeof createSubjectService>
