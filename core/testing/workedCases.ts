import type { AcclimationQuestion, WaterClass } from '../acclimation/question'

// The worked verdicts of core/fixtures/judgement-cases.json, for tests and the bench.
export interface WorkedFigures extends Record<string, number> {
  peak: number
  dose: number
}
export interface Worked {
  id: string
  name: string
  inputs: {
    waterClass: WaterClass
    told: { S?: number; pH?: number; alk?: number }
    measured: { T?: number; S?: number; pH?: number; tan?: number }
    guessedT: number
    bag: { n: number; mass: number; Vw: number; Vh: number; hours: number; Tpack: number; Ttransit: number; o2frac?: number; pco2head0?: number }
    bags: number
    fed: boolean
    spareTank: boolean
    tank: { T: number; S: number; alk: number; pH: number }
    preparedTank: { S: number; T: number } | null
    sensitivity: 'hardy' | 'normal' | 'delicate' | 'very'
    roomT: number
    pco2air: number
  }
  situation: string
  order: string[]
  schools: Record<string, { figures90: WorkedFigures; figuresLikely: WorkedFigures; worst: number; worstLikely: number; binding: string; workMinutes: number; litres: number }>
  equal: string[]
  borderline: string[]
  acceptRecommended: string[]
  sure: number
  bestReading: string | null
}

const some = <T extends object>(fields: T): T => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as T

export const questionOf = ({ inputs: i }: Worked): AcclimationQuestion => ({
  waterClass: i.waterClass,
  told: some({ salinityPpt: i.told.S as number, ph: i.told.pH as number, alkalinityMeqL: i.told.alk as number }),
  // As the worked verdicts were reckoned, before anything beyond the plain schools was tried.
  practice: { slowsFloats: false, gradesHours: false, valveSettings: 0, people: null },
  measured: some({ salinityBy: 'hydrometer' as const, tempC: i.measured.T as number, salinityPpt: i.measured.S as number, ph: i.measured.pH as number, tanMgL: i.measured.tan as number }),
  guessedC: i.guessedT,
  bag: some({ fish: i.bag.n, massG: i.bag.mass, waterL: i.bag.Vw, gasL: i.bag.Vh, hours: i.bag.hours, packedC: i.bag.Tpack, transitC: i.bag.Ttransit, oxygenAtm: i.bag.o2frac as number, headspacePco2Uatm: i.bag.pco2head0 as number }),
  ...{ bags: i.bags, isFed: i.fed, hasSpareTank: i.spareTank },
  tank: { tempC: i.tank.T, salinityPpt: i.tank.S, alkalinityMeqL: i.tank.alk, ph: i.tank.pH },
  prepared: i.preparedTank && { salinityPpt: i.preparedTank.S, tempC: i.preparedTank.T },
  tolerance: i.sensitivity === 'very' ? 'very delicate' : i.sensitivity,
  ...{ roomC: i.roomT, roomPco2Uatm: i.pco2air },
})

