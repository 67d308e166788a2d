import type { WaterContent } from '../dosing/doseReasons'
import type { CourseNow } from './courseNow'
import type { RegimenKind, RegimenPlan } from './regimens.schema'
import type { SalinityNow } from './salinityNow'
import type { LevelPoint, WaterReading } from '../dosing/treatedWater'

/** A product of the house that can be dosed. */
export interface ProductView {
  id: string
  name: string
  agent: string
  /** Its kit; null where no kit reads it. */
  kit: string | null
  unit: 'mL' | 'g' | null
  targetMgL: number | null
  hiMgL: number | null
  /** What its label still lacks for a number to be worked out; empty when all is there. */
  missing: string[]
}
/** A reason as it is told. */
export interface ReasonView {
  code: string
  answer: 'W' | 'R' | 'X'
  words: string
}
/** How strong an agent is in a water. */
export interface LevelView {
  mgL: number
  lo: number
  hi: number
  ageH: number | null
  basis: 'reckoned' | 'measured' | 'stale'
  isJump: boolean
  /** What it was read with last; null if never, or where nobody said. */
  kitRead: string | null
}
/** What may go into a water now. */
export interface OfferView {
  product: ProductView
  tankId: string
  tankCode: string
  waterName: string
  volumeL: number | null
  answer: 'allow' | 'warn' | 'refuse'
  override: 'none' | 'tick' | 'lead' | 'nobody'
  reasons: ReasonView[]
  /** Milliliters or grams of the product; null where nothing is offered. */
  amount: number | null
  doseMg: number | null
  riseMgL: number | null
  towardsMgL: number | null
  isCut: boolean
  level: LevelView | null
  /** What stands in the water besides fish; null until somebody said, and nothing is offered before. */
  contents: WaterContent[] | null
  /** What is likely to stand there, by how its tanks are set up. */
  likely: WaterContent[]
  binderUntilMs: number | null
  /** For people and for fish; the label, a veterinarian and local law decide. */
  caution: string
  removal: string | null
  /** Who may go on all the same; null where nothing stands against it. */
  overrideWords: string | null
}

export interface LogRow {
  id: string
  kind: 'dose' | 'change' | 'reading' | 'transfer' | 'feed' | 'cleaned' | 'bath'
  words: string
  by: string
  staffId: string
  atMs: number
  recordedAtMs: number
  /** Whether it is taken back here. */
  isUndoable: boolean
}
/** Something a regimen asks for. */
export interface RegimenDue {
  id: string
  what: string
  detail: string | null
  tankCode: string
  byMs: number | null
}
/** A regimen in a list. */
export interface RegimenSummary {
  id: string
  kind: RegimenKind
  title: string
  tankId: string
  tankCode: string
  waterName: string
  /** What now, with its reason. */
  now: string
  why: string | null
  isAmiss: boolean
  due: RegimenDue[]
  startedAtMs: number
  ended: { atMs: number; by: string; reason: string } | null
}
export interface LadderView {
  offer: OfferView
  /** What the ladder does next. */
  step: string | null
  changeL: number | null
  changes: number | null
  loMgL: number
  hiMgL: number
  targetMgL: number
  doneBelowMgL: number
  path: LevelPoint[]
  readings: (WaterReading & { isOwnKit: boolean })[]
  /** What a change of a share of the water asks for, by school. */
  redose: { litres: number; school: 'asIs' | 'redose' | 'premix'; words: string }[]
}
export interface TransferView {
  served: number
  of: number
  status: 'finished' | 'start again' | 'due' | 'on time'
  /** Where they stand. */
  atTankId: string
  atCode: string
  nextCode: string | null
  nextTankId: string | null
  rows: { k: number; dueAtMs: number; fromCode: string; toCode: string; readyFromMs: number | null; isDry: boolean }[]
  problems: string[]
  toClean: { tankId: string; tankCode: string; leftAtMs: number; neededAtMs: number | null }[]
  /** Fish that go on, for the page of the move. */
  fish: { speciesId: string; species: string; strain: string | null; quantity: number }[]
}
export interface RegimenView extends RegimenSummary {
  plan: RegimenPlan
  note: string | null
  by: string
  ladder: LadderView | null
  doses: (CourseNow & { offer: OfferView }) | null
  feed: (CourseNow & { food: string }) | null
  transfer: TransferView | null
  /** With what is said against low salinity in its water. */
  salinity: (SalinityNow & { reasons: ReasonView[]; isRefused: boolean }) | null
  log: LogRow[]
  nowMs: number
}
/** A water in which something is, whether a regimen says so or not. */
export interface TreatedWaterView {
  waterId: string
  waterName: string
  tankId: string
  tankCodes: string[]
  fish: number
  agents: { agent: string; name: string; lastOn: string; goneOn: string | null }[]
  binderUntilMs: number | null
}
/** What was done lately that belongs to no regimen, or to the bench. */
export interface LatelyRow {
  id: string
  words: string
  /** Where it is seen in full. */
  to: string
  by: string
  atMs: number
}
export interface RegimensView {
  running: RegimenSummary[]
  ended: RegimenSummary[]
  waters: TreatedWaterView[]
  products: ProductView[]
  /** Doses, and baths and dips of the bench; newest first. */
  lately: LatelyRow[]
}
