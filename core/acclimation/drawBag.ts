import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { openBag, waterShareOfCo2 } from '../bag/closedBag'
import { co2PerOxygen, fedAmmoniaQuotient, metabolismAt, metabolismBands, nitrogenPerOxygen, oxygenDemandMgGH, type Band, type Metabolism } from '../bag/metabolism'
import { dicFromPh, meterPh } from '../water/carbonate'
import { oxygenSaturationMgL } from '../water/oxygen'
import { triangular } from '../stats/triangular'
import { usualFloatTauMin } from './mixing'
import { classWater, guessSds, nominalOf, targetOf, type AcclimationQuestion } from './question'
import { phSds, salinitySds, type PhInstrument, type SalinityInstrument } from './instruments'
import { exchangeBands, pourBand, type Handling } from './schools'
import type { VesselOptions, VesselState } from './vessel'

/** One plausible bag, and how its water is handled. */
export interface DrawnBag {
  start: VesselState
  options: VesselOptions
  exchangePerH: Record<Handling, number>
  pourShare: number
  floatTauMin: number
  sealedShare: number
  /** What readings would show. */
  truth: Record<ReadingKind, number>
}

export const readingKinds = ['pH', 'ammonia', 'salinity', 'temperature', 'alkalinity'] as const
export type ReadingKind = (typeof readingKinds)[number]

const onLog = (u: number, [low, likely, high]: Band): number => Math.exp(triangular(u, [Math.log(low), Math.log(likely), Math.log(high)]))
const cut = (z: number): number => Math.max(-2.5, Math.min(2.5, z))

/** What readings are taken with, as far as it is known. */
export interface Instruments {
  phBy?: PhInstrument | undefined
  salinityBy?: SalinityInstrument | undefined
}
/** Spread of a reading around the truth. Fresh water has no salinity that an instrument could miss. */
export function readingSd(kind: ReadingKind, value: number, { phBy = 'meter', salinityBy = 'refractometer' }: Instruments = {}): number {
  if (kind === 'pH') return phSds[phBy]
  if (kind === 'ammonia') return Math.max(0.25, 0.2 * value)
  if (kind === 'salinity') return value < 2 ? 0 : salinitySds[salinityBy]
  return kind === 'temperature' ? 0.3 : 0.2
}

/** The chances of one draw: sixteen of them, always all taken, so that a reading more does not shift the rest. */
interface Chances {
  metabolism: Metabolism
  handling: (band: Band) => number
  pourShare: number
  tauFactor: number
  classAlkalinity: number
  z: { supplierPh: number; supplierSalinity: number; bagPh: number; tan: number; bagSalinity: number; bagTemp: number; alkalinity: number }
}

function chancesFrom(next: () => number, { isFed, waterClass }: AcclimationQuestion): Chances {
  const u = Array.from({ length: 16 }, next)
  const at = (index: number): number => u[index] as number
  const pair = (index: number): [number, number] => {
    const r = Math.sqrt(-2 * Math.log(Math.max(at(index), 1e-12)))
    return [cut(r * Math.cos(2 * Math.PI * at(index + 1))), cut(r * Math.sin(2 * Math.PI * at(index + 1)))]
  }
  const [[supplierPh, supplierSalinity], [bagPh, tan], [bagSalinity, bagTemp], [alkalinity]] = [pair(8), pair(10), pair(12), pair(14)]
  return {
    metabolism: {
      activity: triangular(at(0), metabolismBands.activity),
      respiratoryQuotient: triangular(at(1), metabolismBands.respiratoryQuotient),
      ammoniaQuotient: triangular(at(2), isFed ? fedAmmoniaQuotient : metabolismBands.ammoniaQuotient),
      alkalinityPerNitrogen: triangular(at(3), metabolismBands.alkalinityPerNitrogen),
    },
    handling: (band) => onLog(at(4), band),
    pourShare: triangular(at(5), pourBand),
    tauFactor: onLog(at(6), [0.5, 1, 2]),
    classAlkalinity: triangular(at(7), classWater[waterClass].alkalinityMeqL),
    z: { supplierPh, supplierSalinity, bagPh, tan, bagSalinity, bagTemp, alkalinity },
  }
}

/** The draw in which everything is as likely as it gets. */
const likelyChances = ({ isFed, waterClass }: AcclimationQuestion): Chances => ({
  metabolism: { ...metabolismAt.likely, ...(isFed ? { ammoniaQuotient: fedAmmoniaQuotient[1] } : {}) },
  handling: ([, likely]) => likely,
  pourShare: pourBand[1],
  tauFactor: 1,
  classAlkalinity: classWater[waterClass].alkalinityMeqL[1],
  z: { supplierPh: 0, supplierSalinity: 0, bagPh: 0, tan: 0, bagSalinity: 0, bagTemp: 0, alkalinity: 0 },
})

/** Makes the bag that a set of chances amounts to. Measured values take the place of what would be predicted. */
function bagFrom(question: AcclimationQuestion, { metabolism, handling, pourShare, tauFactor, classAlkalinity, z }: Chances): DrawnBag {
  const { told, measured, bag, waterClass, roomPco2Uatm } = question
  const usual = classWater[waterClass]
  const tempC = nominalOf(question).tempC + (measured.tempC === undefined ? guessSds[question.guessedFrom ?? 'skin'] : readingSd('temperature', 0)) * z.bagTemp
  const supplied = told.salinityPpt === undefined ? Math.min(usual.salinityPpt.high, Math.max(usual.salinityPpt.low, usual.salinityPpt.mean + usual.salinityPpt.sd * z.supplierSalinity)) : told.salinityPpt + z.supplierSalinity
  const salinityPpt = Math.max(0.05, measured.salinityPpt === undefined ? supplied : measured.salinityPpt + readingSd('salinity', measured.salinityPpt, measured) * z.bagSalinity)
  const suppliedPh = told.ph === undefined ? usual.ph.mean + usual.ph.sd * z.supplierPh : told.ph + 0.15 * z.supplierPh
  const suppliedAlkalinity = told.alkalinityMeqL === undefined ? classAlkalinity : told.alkalinityMeqL * (1 + 0.15 * z.alkalinity)
  const opened = openBag({ ...bag, openedC: tempC, ph: suppliedPh, alkalinityMeqL: suppliedAlkalinity, salinityPpt }, metabolism)

  const alkalinityMeqL = measured.alkalinityMeqL === undefined ? opened.alkalinityMeqL : Math.max(0.05, measured.alkalinityMeqL + readingSd('alkalinity', 0) * z.alkalinity)
  const tanMgL = measured.tanMgL === undefined ? opened.tanMgL : Math.max(0.02, measured.tanMgL + readingSd('ammonia', measured.tanMgL) * z.tan)
  const measuredPh = measured.ph === undefined ? null : measured.ph + readingSd('pH', 0, measured) * z.bagPh
  const dicMmolL = measuredPh === null ? opened.dicMmolL : dicFromPh(measuredPh, alkalinityMeqL, salinityPpt, tempC, tanMgL)
  const ph = measuredPh ?? (measured.alkalinityMeqL === undefined && measured.tanMgL === undefined ? opened.ph : meterPh({ alkalinityMeqL, dicMmolL, tanMgL, salinityPpt, tempC }))
  return {
    start: { volumeL: bag.waterL, tempC, salinityPpt, alkalinityMeqL, dicMmolL, tanMgL, oxygenMgL: Math.min(opened.oxygenMgL, 3 * oxygenSaturationMgL(salinityPpt, tempC)) },
    options: {
      biomassG: bag.fish * bag.massG,
      demandMgGH: oxygenDemandMgGH(bag.massG, targetOf(question).tempC, metabolism.activity),
      nitrogenPerOxygen: nitrogenPerOxygen(metabolism.ammoniaQuotient),
      co2PerOxygen: co2PerOxygen(metabolism.respiratoryQuotient),
      alkalinityPerNitrogen: metabolism.alkalinityPerNitrogen,
      roomPco2Uatm,
    },
    exchangePerH: { bag: handling(exchangeBands.bag), bucket: handling(exchangeBands.bucket), siphon: handling(exchangeBands.siphon), air: handling(exchangeBands.air) },
    pourShare,
    floatTauMin: usualFloatTauMin(bag.waterL) * tauFactor,
    sealedShare: waterShareOfCo2(bag.waterL, bag.gasL, salinityPpt, tempC),
    truth: { pH: ph, ammonia: tanMgL, salinity: salinityPpt, temperature: tempC, alkalinity: alkalinityMeqL },
  }
}

/** The one bag with every assumption at its likely value and every error zero. */
export const likelyBag = (question: AcclimationQuestion): DrawnBag => bagFrom(question, likelyChances(question))

/** Draws plausible bags, one after another, the same for the same seed. */
export function createBagDraws(question: AcclimationQuestion, seed: number): () => DrawnBag {
  const generator = xoroshiro128plus(seed)
  const next = (): number => uniformFloat64(generator)
  return () => bagFrom(question, chancesFrom(next, question))
}
