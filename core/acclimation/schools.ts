import { usualBucketTauMin } from './mixing'
import type { Phase } from './vessel'

/** How water is handled decides how fast carbon dioxide leaves it. */
export const handlings = ['bag', 'bucket', 'siphon', 'air'] as const
export type Handling = (typeof handlings)[number]

/**
 * Exchange of carbon dioxide with the air, 1/h: open still bag, bucket dripped into, siphon with a gentle splash, air
 * stone. Assumptions (two-film theory with 0.5 to 5 cm/h), and the largest uncertainty there is.
 */
export const exchangeBands: Record<Handling, readonly [low: number, likely: number, high: number]> = { bag: [0.05, 0.2, 0.5], bucket: [0.2, 0.5, 1.5], siphon: [1, 2, 5], air: [2, 4, 10] }
/** Share of the excess carbon dioxide that one pour drives out. */
export const pourBand = [0.1, 0.2, 0.4] as const

/** One step of a school, as data: a house's own school is a list of these and needs no code. */
export type SchoolStep =
  /** Shut in the tank until it is as warm, 15 to 45 minutes. */
  | { step: 'float' }
  | { step: 'open'; minutes: number }
  | { step: 'pour' }
  /** Tank water runs in until there is so many times the water one began with. */
  | { step: 'fill'; toTimes: number; minutes: number; handling: Handling }
  /** Tank water in at once, in parts of the water one began with. */
  | { step: 'add'; times: number }
  | { step: 'dump'; share: number }
  /** `perBag` minutes for every bag of the lot come on top. */
  | { step: 'wait'; minutes: number; perBag?: number; handling: Handling; nearRoom: boolean }
  | { step: 'repeat'; times: number; steps: readonly SchoolStep[] }
  /** Netted into made-up water of the bag's salinity, then changed by overflow, hour by hour. */
  | { step: 'overflow'; restMinutes: number; gramsPerL: number; leastL: number }
  /** Netted into a tank of the bag's salinity, which is changed over days. */
  | { step: 'tankRamp'; restMinutes: number; pptPerDay: number }
  | { step: 'transfer' }

export interface School {
  key: string
  name: string
  steps: readonly SchoolStep[]
  /** Minutes of work for each bag and for the lot. */
  handsPerBagMin: number
  handsPerLotMin: number
  /** All bags of a lot in one vessel. */
  isPooled?: boolean | undefined
  /** Another way of doing the same school: floated more slowly, or stretched over hours. */
  variant?: SchoolVariant | undefined
  /** Only with these. */
  needs?: 'prepared tank' | 'five bags' | 'gap' | 'gap and spare tank' | undefined
}

export const schoolVariants = ['slowed float', 'stretched'] as const
export type SchoolVariant = (typeof schoolVariants)[number]
/** A school's name with its variant, as people read it. */
export const nameOfSchool = ({ name, variant }: Pick<School, 'name' | 'variant'>): string => (variant === 'slowed float' ? `${name}, float slowed` : variant === 'stretched' ? `${name}, stretched` : name)

/** Longest that a school may take beside its work: what goes on for longer is no acclimation, and cannot be followed minute by minute. */
export const longestSchoolMin = 3 * 24 * 60
/** Minutes that the steps of a school wait or let water run. */
export const minutesOf = (steps: readonly SchoolStep[]): number => steps.reduce((sum, step) => sum + (step.step === 'repeat' ? step.times * minutesOf(step.steps) : 'minutes' in step ? step.minutes : 0), 0)

/** Salinity gap from which a passage is a crossing, ppt. */
export const crossingGapPpt = 8
/** Gap from which ordinary schools are held to a limit for each hour, ppt. */
export const gradedFromPpt = 6

/** The schools of the trade, in the words of their steps. */
export const schools: readonly School[] = [
  { key: 'straight', name: 'Straight in', handsPerBagMin: 2, handsPerLotMin: 0, steps: [{ step: 'open', minutes: 1 }, { step: 'transfer' }] },
  { key: 'netOver', name: 'Net-over', handsPerBagMin: 4, handsPerLotMin: 0, steps: [{ step: 'float' }, { step: 'open', minutes: 2 }, { step: 'transfer' }] },
  { key: 'matched', name: 'Matched release', handsPerBagMin: 4, handsPerLotMin: 0, needs: 'prepared tank', steps: [{ step: 'float' }, { step: 'fill', toTimes: 5, minutes: 5, handling: 'siphon' }, { step: 'transfer' }] },
  { key: 'siphon', name: 'Open siphon', handsPerBagMin: 6, handsPerLotMin: 2, steps: [{ step: 'pour' }, { step: 'fill', toTimes: 5, minutes: 20, handling: 'siphon' }, { step: 'transfer' }] },
  { key: 'drip', name: 'Slow drip, still', handsPerBagMin: 7, handsPerLotMin: 3, steps: [{ step: 'float' }, { step: 'pour' }, { step: 'fill', toTimes: 4, minutes: 60, handling: 'bucket' }, { step: 'transfer' }] },
  { key: 'dripAir', name: 'Slow drip, aerated', handsPerBagMin: 8, handsPerLotMin: 4, steps: [{ step: 'float' }, { step: 'pour' }, { step: 'fill', toTimes: 4, minutes: 60, handling: 'air' }, { step: 'transfer' }] },
  {
    ...{ key: 'rapid', name: 'Rapid fill', handsPerBagMin: 14, handsPerLotMin: 2 },
    steps: [{ step: 'pour' }, { step: 'repeat', times: 9, steps: [{ step: 'add', times: 1 / 3 }, { step: 'wait', minutes: 10, handling: 'bucket', nearRoom: true }] }, { step: 'transfer' }],
  },
  {
    ...{ key: 'step', name: 'Step exchange', handsPerBagMin: 16, handsPerLotMin: 2 },
    steps: [{ step: 'float' }, { step: 'repeat', times: 5, steps: [{ step: 'dump', share: 0.5 }, { step: 'add', times: 0.5 }, { step: 'wait', minutes: 5, handling: 'bucket', nearRoom: false }] }, { step: 'transfer' }],
  },
  {
    ...{ key: 'pooled', name: 'Pooled pulses', handsPerBagMin: 0.75, handsPerLotMin: 15, isPooled: true, needs: 'five bags' },
    steps: [
      { step: 'pour' },
      { step: 'wait', minutes: 0, perBag: 0.75, handling: 'bucket', nearRoom: true },
      { step: 'repeat', times: 6, steps: [{ step: 'fill', toTimes: 1 / 3, minutes: 2, handling: 'siphon' }, { step: 'wait', minutes: 13, handling: 'bucket', nearRoom: true }] },
      { step: 'transfer' },
    ],
  },
  { key: 'overflow', name: 'Overflow transition', handsPerBagMin: 4, handsPerLotMin: 45, needs: 'gap', steps: [{ step: 'float' }, { step: 'open', minutes: 2 }, { step: 'overflow', restMinutes: 60, gramsPerL: 5, leastL: 10 }, { step: 'transfer' }] },
  { key: 'ramp', name: 'Ramp in the tank', handsPerBagMin: 4, handsPerLotMin: 40, needs: 'gap and spare tank', steps: [{ step: 'float' }, { step: 'open', minutes: 2 }, { step: 'tankRamp', restMinutes: 60, pptPerDay: 3 }] },
]

/** How much slower a bag warms with a towel or a second bag around it, or in a bucket of tank water. */
export const slowedTimes = 2.5
const [longestFloatMin, longestSlowedMin] = [45, 120]
/** Minutes a bag floats: until it is within a degree, in fives, 15 to 45; slowed, up to 120. */
export function floatMinutes(waterL: number, gapC: number, isSlowed = false): number {
  const tauMin = 10 * Math.cbrt(waterL) * (isSlowed ? slowedTimes : 1)
  return Math.min(isSlowed ? longestSlowedMin : longestFloatMin, Math.max(15, 5 * Math.ceil((tauMin * Math.log(Math.max(1, Math.abs(gapC)))) / 5)))
}

/** What the steps of a school are carried out on. */
export interface SchoolScene {
  /** Water of one bag, or of the pool. */
  waterL: number
  bags: number
  floatMin: number
  floatTauMin: number
  /** Share of new carbon dioxide that stays in the water of the shut bag. */
  sealedShare: number
  tankC: number
  roomC: number
  exchangePerH: Record<Handling, number>
  pourShare: number
}

/** Turns the steps of a school that needs no base water into phases of the vessel. */
export function phasesOf(steps: readonly SchoolStep[], scene: SchoolScene): Phase[] {
  const room = { tauMin: usualBucketTauMin, bathC: scene.roomC }
  return steps.flatMap((each): Phase[] => {
    switch (each.step) {
      case 'float':
        return [{ minutes: scene.floatMin, mode: 'none', exchangePerH: 0, sealedShare: scene.sealedShare, tauMin: scene.floatTauMin, bathC: scene.tankC }]
      case 'open':
        return [{ minutes: each.minutes, mode: 'none', exchangePerH: scene.exchangePerH.bag }]
      case 'pour':
        return [{ pour: scene.pourShare }]
      case 'fill':
        // Below 1 a pulse adds that part; above, the vessel is filled up to it.
        return [{ minutes: each.minutes, mode: 'fill', flowLPerMin: ((each.toTimes > 1 ? each.toTimes - 1 : each.toTimes) * scene.waterL) / each.minutes, exchangePerH: scene.exchangePerH[each.handling], ...room }]
      case 'add':
        return [{ addL: each.times * scene.waterL }]
      case 'dump':
        return [{ dump: each.share }]
      case 'wait': {
        const minutes = each.minutes + (each.perBag ?? 0) * scene.bags
        return minutes > 0 ? [{ minutes, mode: 'none', exchangePerH: scene.exchangePerH[each.handling], ...(each.nearRoom ? room : {}) }] : []
      }
      case 'repeat':
        return Array.from({ length: each.times }, () => phasesOf(each.steps, scene)).flat()
      case 'transfer':
        return [{ transfer: true }]
      case 'overflow':
      case 'tankRamp':
        return []
    }
  })
}

/** Tank water that goes in, L. */
export const litresAdded = (phases: readonly Phase[]): number =>
  phases.reduce((sum, phase) => sum + ('addL' in phase ? phase.addL : 'minutes' in phase && phase.mode !== 'none' ? phase.minutes * (phase.flowLPerMin ?? 0) : 0), 0)
