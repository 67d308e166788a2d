import { overflowTemperature, afterExchanges, dropsToMl, exchangesNeeded, fillAfter, fillFlow, fillTime, fillVolumeL, floatTemperature, mlToDrops, overflowAfter, overflowFlow, overflowTime, overflowWithSource, tauFromReadings } from './acclimation/mixing'
import { constantFlowTime, evenRampFlow, evenRampTime, fastestChange, rampVolumeL } from './acclimation/crossing'
import { refitRun, type Reading } from './acclimation/refit'
import { summariseRun } from './acclimation/summariseRun'
import { runVessel, type Phase, type VesselState } from './acclimation/vessel'
import { openBag } from './bag/closedBag'
import { metabolismAt, oxygenDemandMgGH } from './bag/metabolism'
import { adviseDeliveryFields, type DeliveryFields } from './acceptanceDelivery'
import { holdAcceptance } from './acceptanceHolds'
import { moveAcceptance } from './acceptanceMoves'
import { outcomeAcceptance } from './acceptanceOutcomes'
import { poolAcceptance } from './acceptancePools'
import { roundAcceptance } from './acceptanceRounds'
import { doseMg, doseProductG, netVolumeL, volumeFromDoseL } from './dosing/dose'
import { lossFromReadings, treatmentLevel } from './dosing/treatmentLevel'
import { afterChange, afterChanges, afterContinuousChange, changesNeeded, plateau } from './dosing/waterChange'
import { deathWeight, fishUntilAlarm, scoreOf } from './stats/lossAlarm'
import { betaPrior, betaQuantile, betaShare, shrunkShare } from './stats/suppliers'
import { chiSquareTail, logRank, survivalAt, type Seen } from './stats/survival'
import { wilsonInterval } from './stats/wilson'
import { acuteCriterion2013, chronicCriterion2013, unionisedMgL, unionisedPercent } from './water/ammonia'
import { co2MgL, dicFromPh, equilibriumMeterPh, meterPh, pco2Uatm } from './water/carbonate'
import { conductivityFromSalinity, salinityFromConductivity, salinityFromRatio } from './water/conductivity'
import { ammoniumPka, ammoniumPkaFresh, lnBisulfate, lnK0, lnK0PerLitre, lnKb, lnKw, phOffset, pk1, pk2 } from './water/constants'
import { floatExpansionPerK, salinityFromHydrometer, salinityFromSg, saltGramsPerLitre, seawaterDensity, specificGravity } from './water/density'
import { greatestBiomassG, hoursToOxygen, oxygenAfter, oxygenSaturationMgL, oxygenSolubilityUmolKg, pressureAtAltitudeAtm, vapourPressureAtm } from './water/oxygen'
import { litresToDilute, litresToSwap, saltToAddG, usualActiveShare } from './water/salt'

/**
 * The core under the names of the specification: each function takes one object with the field names of its tables. It
 * only adapts; whoever holds other values against the core does it here.
 */
type Fields = Record<string, number>
const st = ({ S = 0, T = 0 }: Fields): [number, number] => [S, T]
const state = ({ alk = 0, dic = 0, tan = 0, S = 0, T = 0 }: Fields) => ({ alkalinityMeqL: alk, dicMmolL: dic, tanMgL: tan, salinityPpt: S, tempC: T })
type VesselFields = { V: number; T: number; S: number; alk: number; dic: number; tan: number; do: number }
const vesselState = (fields: Partial<VesselFields>): VesselState => {
  const { V = 1, T = 0, S = 0, alk = 0, dic = 0, tan = 0 } = fields
  return { volumeL: V, tempC: T, salinityPpt: S, alkalinityMeqL: alk, dicMmolL: dic, tanMgL: tan, oxygenMgL: fields.do ?? 0 }
}
interface PhaseFields {
  min?: number
  mode?: 'none' | 'fill' | 'overflow'
  q?: number
  kla?: number
  tau?: number
  Tb?: number
  sealed?: number
  dump?: number
  add?: number
  pour?: number
  transfer?: number
}
const phaseOf = ({ min, mode = 'none', q, kla, tau, Tb, sealed, dump, add, pour }: PhaseFields): Phase => {
  if (dump !== undefined) return { dump }
  if (add !== undefined) return { addL: add }
  if (pour !== undefined) return { pour }
  if (min === undefined) return { transfer: true }
  return { minutes: min, mode, ...(q === undefined ? {} : { flowLPerMin: q }), ...(kla === undefined ? {} : { exchangePerH: kla }), ...(tau === undefined ? {} : { tauMin: tau }), ...(Tb === undefined ? {} : { bathC: Tb }), ...(sealed === undefined ? {} : { sealedShare: sealed }) }
}
const seen = (rows: readonly { t: number; event: number | boolean; n?: number }[]): Seen[] => rows.map(({ t, event, n }) => ({ time: t, isDeath: Boolean(event), ...(n === undefined ? {} : { weight: n }) }))
const mixing = ({ V0, V = V0, q = 0, c0 = 0, ct = 0 }: Fields) => ({ volumeL: V ?? 0, flow: q, from: c0, to: ct })
const deaths = (rows: readonly { x: number; n: number }[]) => rows.map(({ x, n }) => ({ deaths: x, of: n }))
const f = (fields: Fields, name: string, otherwise = NaN): number => fields[name] ?? otherwise
const refit = (kind: 'overflow' | 'fill') => ({ readings, c0, ct }: { readings: Reading[]; c0: number; ct: number }) => {
  const fit = refitRun(kind, readings, c0, ct)
  return { k: fit?.k ?? NaN, se: fit?.standardError ?? NaN, last: fit?.now ?? NaN }
}

export const acceptance = {
  density: (i: Fields) => seawaterDensity(...st(i)),
  sgFromS: (i: Fields) => specificGravity(f(i, 'S'), f(i, 'T'), f(i, 'Tref')),
  sFromSg: (i: Fields) => salinityFromSg(f(i, 'sg'), f(i, 'T'), f(i, 'Tref')),
  sFromHydrometer: (i: Fields) => salinityFromHydrometer({ reading: f(i, 'reading'), tempC: f(i, 'T'), scaleC: f(i, 'Tcal'), waterC: f(i, 'Tw', f(i, 'Tcal')), expansionPerK: f(i, 'alpha', floatExpansionPerK.glass) }),
  sFromR: (i: Fields) => salinityFromRatio(f(i, 'R'), f(i, 'T'), f(i, 'p', 0)),
  sFromCond: (i: Fields) => salinityFromConductivity(f(i, 'C'), f(i, 'T')),
  condFromS: (i: Fields) => conductivityFromSalinity(...st(i)),
  gPerL: (i: Fields) => saltGramsPerLitre(...st(i)),

  pKaEmerson: (i: Fields) => ammoniumPkaFresh(f(i, 'T')),
  pKaT: (i: Fields) => ammoniumPka(...st(i)),
  pHOffset: (i: Fields) => phOffset(...st(i)),
  nh3Percent: (i: Fields) => unionisedPercent(f(i, 'pH'), f(i, 'T'), f(i, 'S', 0)),
  nh3N: (i: Fields) => unionisedMgL(f(i, 'tan'), f(i, 'pH'), f(i, 'T'), f(i, 'S', 0)),
  epa2013CMC: (i: Fields) => acuteCriterion2013(f(i, 'pH'), f(i, 'T')),
  epa2013CCC: (i: Fields) => chronicCriterion2013(f(i, 'pH'), f(i, 'T')),

  lnK0: (i: Fields) => lnK0(...st(i)),
  lnK0vol: (i: Fields) => lnK0PerLitre(...st(i)),
  lnKS: (i: Fields) => lnBisulfate(...st(i)),
  lnKB: (i: Fields) => lnKb(...st(i)),
  lnKW: (i: Fields) => lnKw(...st(i)),
  pK1: (i: Fields) => pk1(...st(i)),
  pK2: (i: Fields) => pk2(...st(i)),
  phFromAlkDic: (i: Fields) => meterPh(state(i)),
  dicFromAlkPh: (i: Fields) => dicFromPh(f(i, 'pH'), f(i, 'alk'), f(i, 'S'), f(i, 'T'), f(i, 'tan', 0)),
  pco2: (i: Fields) => pco2Uatm(state(i)),
  co2mg: (i: Fields) => co2MgL(state(i)),
  equilibriumPh: (i: Fields) => equilibriumMeterPh(f(i, 'alk'), f(i, 'pco2'), f(i, 'S'), f(i, 'T'), f(i, 'tan', 0)),

  vo2: (i: Fields | (Record<string, number | string> & { which?: string })) => {
    const { which = 'likely', ...rest } = i as Record<string, number> & { which?: 'low' | 'likely' | 'high' }
    return oxygenDemandMgGH(f(rest, 'mass'), f(rest, 'T'), metabolismAt[which].activity)
  },
  bag: (i: Fields | (Record<string, number | string> & { which?: string })) => {
    const { which = 'likely', ...rest } = i as Record<string, number> & { which?: 'low' | 'likely' | 'high' }
    const bag = openBag(
      {
        ...{ fish: f(rest, 'n'), massG: f(rest, 'mass'), waterL: f(rest, 'Vw'), gasL: f(rest, 'Vh'), hours: f(rest, 'hours'), packedC: f(rest, 'Tpack'), transitC: f(rest, 'Ttransit'), openedC: f(rest, 'Topen') },
        ...{ ph: f(rest, 'pH0'), alkalinityMeqL: f(rest, 'alk0'), salinityPpt: f(rest, 'S'), tanMgL: f(rest, 'tan0', 0), oxygenAtm: f(rest, 'o2frac', 0.95), headspacePco2Uatm: f(rest, 'pco2head0', 0), hypoxiaMgL: f(rest, 'hypoxia', 3) },
      },
      metabolismAt[which],
    )
    return { tan: bag.tanMgL, alk: bag.alkalinityMeqL, dic: bag.dicMmolL, pH: bag.ph, pco2: bag.pco2Uatm, co2mg: bag.co2MgL, fNH3: bag.unionisedShare, nh3n: bag.unionisedMgL, do: bag.oxygenMgL, tHypoxia: bag.hoursToHypoxia, tZero: bag.hoursToNoOxygen, vo2: bag.demandMgGH, biomass: bag.biomassG, o2used: bag.oxygenUsedMg }
  },

  vessel: ({ start, tank, phases, options }: { start: Partial<VesselFields>; tank: Partial<VesselFields>; phases: PhaseFields[]; options: Fields }) => {
    const moments = runVessel(vesselState(start), vesselState(tank), phases.map(phaseOf), {
      ...{ biomassG: f(options, 'biomass'), demandMgGH: f(options, 'r'), nitrogenPerOxygen: f(options, 'mgN'), co2PerOxygen: f(options, 'mmolCO2'), alkalinityPerNitrogen: f(options, 'alkPerN'), roomPco2Uatm: f(options, 'pco2air', 600), stepMin: f(options, 'dt', 0.5) },
    })
    const { end, minutes, peakMgL, dose, doseAboveFloor, reaches, spread, lowestOxygenMgL } = summariseRun(moments)
    return {
      end: { V: end.volumeL, T: end.tempC, S: end.salinityPpt, alk: end.alkalinityMeqL, dic: end.dicMmolL, tan: end.tanMgL, do: end.oxygenMgL, pH: end.ph },
      ...{ minutes, peak: peakMgL, dose, over: doseAboveFloor, t02: reaches[0.02], t05: reaches[0.05], t10: reaches[0.1], dT: spread.tempC, dpH: spread.ph, dS: spread.salinityPpt, minDO: lowestOxygenMgL },
    }
  },

  fillAt: (i: Fields) => fillAfter(f(i, 't'), mixing(i)),
  fillTime: (i: Fields) => fillTime(mixing(i), f(i, 'tol')),
  fillFlow: (i: Fields) => fillFlow(f(i, 'V0'), f(i, 'c0'), f(i, 'ct'), f(i, 'tol'), f(i, 't')),
  fillVolume: (i: Fields) => fillVolumeL(f(i, 'V0'), f(i, 'c0'), f(i, 'ct'), f(i, 'tol')),
  overflowAt: (i: Fields) => overflowAfter(f(i, 't'), mixing(i)),
  overflowTime: (i: Fields) => overflowTime(mixing(i), f(i, 'tol')),
  overflowFlow: (i: Fields) => overflowFlow(f(i, 'V'), f(i, 'c0'), f(i, 'ct'), f(i, 'tol'), f(i, 't')),
  overflowTempAt: (i: Fields) => overflowTemperature(f(i, 't'), { volumeL: f(i, 'V'), flow: f(i, 'q'), from: f(i, 'T0'), to: f(i, 'Tt') }, f(i, 'Ta'), f(i, 'tau')),
  overflowSourceAt: (i: Fields) => overflowWithSource(f(i, 't'), mixing(i), f(i, 'g')),
  stepsAt: (i: Fields) => afterExchanges(f(i, 'n'), f(i, 'f'), f(i, 'c0'), f(i, 'ct')),
  stepsNeeded: (i: Fields) => exchangesNeeded(f(i, 'f'), f(i, 'c0'), f(i, 'ct'), f(i, 'tol')),
  newtonAt: (i: Fields) => floatTemperature(f(i, 't'), f(i, 'T0'), f(i, 'Tb'), f(i, 'tau')),
  tauFromReadings: (i: Fields) => tauFromReadings(f(i, 't1'), f(i, 'T1'), f(i, 't2'), f(i, 'T2'), f(i, 'Tb')),
  dripsToMl: (i: Fields) => dropsToMl(f(i, 'dpm'), f(i, 'dropsPerMl', 20)),
  mlToDrips: (i: Fields) => mlToDrops(f(i, 'ml'), f(i, 'dropsPerMl', 20)),
  fitOverflow: refit('overflow'),
  fitFill: refit('fill'),

  overflowMaxRate: (i: Fields) => fastestChange(f(i, 'V'), f(i, 'q'), f(i, 'c0'), f(i, 'ct')),
  timeForRateLimitedDrip: (i: Fields) => constantFlowTime(f(i, 'c0'), f(i, 'ct'), f(i, 'tol'), f(i, 'rmax')),
  rampFlow: (i: Fields) => evenRampFlow(f(i, 'c'), f(i, 'V'), f(i, 'ct'), f(i, 'r')),
  rampTime: (i: Fields) => evenRampTime(f(i, 'c0'), f(i, 'ct'), f(i, 'tol'), f(i, 'r')),
  rampVolume: (i: Fields) => rampVolumeL(f(i, 'V'), f(i, 'c0'), f(i, 'ct'), f(i, 'tol')),
  saltMass: (i: Fields) => saltToAddG(f(i, 'V'), f(i, 'S1'), f(i, 'S2'), f(i, 'T'), f(i, 'active', usualActiveShare)),
  dilutionSwap: (i: Fields) => litresToSwap(f(i, 'V'), f(i, 'S1'), f(i, 'S2'), f(i, 'Sd', 0)),
  dilutionAdd: (i: Fields) => litresToDilute(f(i, 'V'), f(i, 'S1'), f(i, 'S2'), f(i, 'Sd', 0)),

  o2satUmolKg: (i: Fields) => oxygenSolubilityUmolKg(...st(i)),
  o2sat: (i: Fields) => oxygenSaturationMgL(f(i, 'S'), f(i, 'T'), f(i, 'P', 1)),
  vapourPressure: (i: Fields) => vapourPressureAtm(...st(i)),
  pressureAtAltitude: (i: Fields) => pressureAtAltitudeAtm(f(i, 'z')),
  timeToDO: (i: Fields) => hoursToOxygen(f(i, 'C'), f(i, 'C0'), { saturationMgL: f(i, 'Cs'), exchangePerH: f(i, 'k'), demandMgLH: f(i, 'L') }),
  doAt: (i: Fields) => oxygenAfter(f(i, 't'), f(i, 'C0'), { saturationMgL: f(i, 'Cs'), exchangePerH: f(i, 'k'), demandMgLH: f(i, 'L') }),
  maxBiomass: (i: Fields) => greatestBiomassG({ saturationMgL: f(i, 'Cs'), exchangePerH: f(i, 'k') }, f(i, 'Cmin'), f(i, 'V'), f(i, 'r')),

  afterChange: (i: Fields) => afterChange(f(i, 'c0'), f(i, 'f'), f(i, 'cn', 0)),
  afterChanges: (i: Fields) => afterChanges(f(i, 'c0'), f(i, 'f'), f(i, 'n'), f(i, 'cn', 0)),
  changesNeeded: (i: Fields) => changesNeeded(f(i, 'c0'), f(i, 'target'), f(i, 'f'), f(i, 'cn', 0)),
  afterContinuousChange: (i: Fields) => afterContinuousChange(f(i, 'c0'), f(i, 'x'), f(i, 'V'), f(i, 'cn', 0)),
  plateau: (i: Fields) => plateau(f(i, 'p'), f(i, 'f'), f(i, 'cn', 0)),
  doseMg: (i: Fields) => doseMg(f(i, 'V'), f(i, 'c1'), f(i, 'c2')),
  doseProductG: (i: Fields) => doseProductG(f(i, 'V'), f(i, 'c1'), f(i, 'c2'), f(i, 'active')),
  volumeFromDose: (i: Fields) => volumeFromDoseL(f(i, 'mg'), f(i, 'c1'), f(i, 'c2')),
  netVolume: (i: Fields) => netVolumeL({ lengthCm: f(i, 'L'), widthCm: f(i, 'W'), heightCm: f(i, 'H'), rockKg: f(i, 'rockKg', 0), rockKgPerL: f(i, 'density', 2.7), sandL: f(i, 'sandL', 0), sandPorosity: f(i, 'porosity', 0.4), equipmentL: f(i, 'equipment', 0), sumpL: f(i, 'sump', 0) }),
  treat: ({ par, events }: { par: Fields; events: { t: number; dose?: number; change?: { f: number; cn?: number }; reading?: number; sd?: number }[] }) => {
    const level = treatmentLevel(
      { volumeL: f(par, 'V'), lossPerH: f(par, 'lambda'), startMgL: f(par, 'c0'), startSd: f(par, 'sd0'), doseRelativeSd: f(par, 'doseRel'), driftPerH: f(par, 'q') },
      events.map(({ t, dose, change, reading, sd }) => ({ atH: t, ...(dose === undefined ? {} : { doseMg: dose }), ...(change ? { change: { share: change.f, freshMgL: change.cn ?? 0 } } : {}), ...(reading === undefined ? {} : { readingMgL: reading, readingSd: sd ?? 0 }) })),
    )
    return { c: level.mgL, sd: level.sd }
  },
  fitDecay: ({ readings }: { readings: [number, number][] }) => lossFromReadings(readings),

  adviseDelivery: (fields: DeliveryFields) => adviseDeliveryFields(fields),
  ...poolAcceptance,
  ...roundAcceptance,
  ...holdAcceptance,
  ...outcomeAcceptance,
  ...moveAcceptance,

  wilson: (i: Fields) => {
    const { low, high } = wilsonInterval(f(i, 'x'), f(i, 'n'))
    return { lo: low, hi: high }
  },
  kmAt: ({ data, t }: { data: { t: number; event: number }[]; t: number }) => {
    const { survival, standardError, low, high, atRisk, deaths: died } = survivalAt(seen(data), t)
    return { S: survival, se: standardError, lo: low ?? NaN, hi: high ?? NaN, atRisk, deaths: died }
  },
  logRank: ({ groups }: { groups: { t: number; event: number }[][] }) => {
    const { chi2, degrees, p, observed, expected } = logRank(groups.map(seen))
    return { chi2, df: degrees, p, O: observed, E: expected }
  },
  chi2sf: (i: Fields) => chiSquareTail(f(i, 'x'), f(i, 'df')),
  betaI: (i: Fields) => betaShare(f(i, 'x'), f(i, 'a'), f(i, 'b')),
  betaQ: (i: Fields) => betaQuantile(f(i, 'p'), f(i, 'a'), f(i, 'b')),
  betaPrior: ({ rows }: { rows: { x: number; n: number }[] }) => {
    const { p, rho, weight, a, b } = betaPrior(deaths(rows))
    return { p, rho, M: weight, a, b }
  },
  shrink: ({ x, n, rows }: { x: number; n: number; rows: { x: number; n: number }[] }) => {
    const { mean, low, high } = shrunkShare({ deaths: x, of: n }, deaths(rows))
    return { mean, lo: low, hi: high }
  },
  cusumDesign: (i: Fields) => ({ m: deathWeight(f(i, 'p0'), f(i, 'p1')) }),
  cusumARL: (i: Fields) => fishUntilAlarm(f(i, 'p'), f(i, 'm'), f(i, 'H')),
  cusumEnd: ({ outcomes, m }: { outcomes: number[]; m: number; H?: number }) => scoreOf(outcomes.map((outcome) => outcome === 1), m),
}
