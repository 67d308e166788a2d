import type { SourcesRule } from '../moves/moveRules'
import type { HoldDay } from '../holds/holdDay'
import type { Handling } from '../species/handling'
import type { TankDecor, TankKind, TankPurpose, TankState, Water } from '../room/room.schema'
import type { Ate, DecidedSign, Sign, SignDecisionAs } from '../rounds/rounds.schema'
import type { Habit, Mouth } from '../rounds/roundRules'
import type { Tolerance } from '../setup/words'

/** The body of water of a tank, and what it is kept at. */
export interface WaterFacts {
  /** Its system, or the tank itself where its water is its own. */
  id: string
  isAlone: boolean
  kind: Water
  tempC: number | null
  /** What it is kept at; while its salinity is lowered, what was read last. */
  salinityPpt: number | null
  /** What the house keeps it at, lowered or not. */
  houseSalinityPpt?: number | null
  ph: number | null
  alkalinityMeqL: number | null
}

/** A sign as it was seen: how badly, and on whom; lot null is the whole tank. */
export interface Mark {
  sign: Sign
  /** 1 slight or one fish, 2 clear or several. */
  severity: number
  lotId: string | null
}

/** How one lot ate, where it did not eat as the tank did. */
export interface OwnAnswer {
  lotId: string
  ate: Ate
}
/** How many of one kind were seen; any of its lots names it. */
export interface KindCount {
  lotId: string
  seen: number
}

/** One look at a tank as it stands; what was corrected is no look any more. */
export interface Look {
  id: string
  /** The round it belongs to: its day and number. */
  on: string
  number: number
  ate: Ate
  signs: Sign[]
  marks: Mark[]
  answers: OwnAnswer[]
  counts: KindCount[]
  seen: number | null
  /** Fish in the books when it was recorded. */
  expected: number
  note: string | null
  atMs: number
  recordedAtMs: number
}

/** Fish of a lot that were lost from a tank, and not taken back. The lot may be gone since, so it is named here. */
export interface Loss {
  /** The movement. */
  id: string
  lotId: string
  lotCode: string
  species: string
  /** What its death does to the water, in the book's word; null when nothing is known. */
  poisons: string | null
  quantity: number
  cause: string | null
  /** Whether nobody knew which lot it was, and the books took it to be this one. */
  isAttributed: boolean
  atMs: number
}

/** Fish were chased or eaten, by the look or the movement that says so. */
export interface Fight {
  id: string
  atMs: number
}

/** A figure somebody read, or a dose somebody gave. */
export interface Measured {
  seq: number
  /** What was read, or the agent. */
  what: string
  /** In the unit of what was read; milligrams of a dose. */
  value: number
  instrument: string | null
  /** Null where the whole tank is meant. */
  lotId: string | null
  atMs: number
}

export interface Meal {
  ate: Ate
  atMs: number
}

/** What the species book says that facts are judged by. */
export interface BookWords {
  handling: Handling
  firstMealDays: number | null
  bearsHunger: string | null
  firstFoods: string | null
  /** How a kind shows itself and feeds; left out where only a list of stock is known. */
  ways?: KindWays
}

/** What is usual for a kind at a look. */
export interface KindWays {
  /** Usual share of a settled group that is seen, 0 to 1. */
  shareSeen: number | null
  tolerance: Tolerance | null
  habits: Habit[]
  mouth: Mouth | null
  /** Usual weight and length when traded, in g and cm, and full length. */
  massG: number | null
  tradedCm: number | null
  adultCm: number | null
}

/** What somebody noted of a lot when it was entered. */
export interface NotedOfLot {
  sizeCm: number | null
  strain: string | null
  /** Water they live in, where the book names none. */
  water: Water | null
  atMs: number
}

/** Who a lot is and how many of it stand in a tank. */
export interface LotStanding {
  lotId: string
  lotCode: string
  speciesId: string
  species: string
  /** Supplier, or how the lot came to be. */
  origin: string
  noted: NotedOfLot
  quantity: number
  /** Fish to be expected of it here, in millionths: another number than are booked where several lots stand together. */
  expected: number
  /** When the first of these fish came into the tank: the beginning of their stay. */
  sinceMs: number
  /** When they came into the house. */
  arrivedAtMs: number
  /** Whether they stood here before the books began, since nobody knows when. */
  isBeforeBooks: boolean
  /** The day of its hold that it is in here; null for one that is not held. */
  hold: HoldDay | null
  book: BookWords
}

/** Fish of one lot in one tank, and what was seen of them there. */
export interface LotFacts extends LotStanding {
  /** The newest feeding response since they came; a tank that nobody fed gave none. */
  lastAnswer: Meal | null
  /** The newest look since they came at which anything was eaten. */
  lastMeal: Meal | null
  /** Looks since then, or since they came, at which nothing was eaten. */
  refusals: number
  /** Of this lot, from this tank, newest first. */
  losses: Loss[]
  doses: Measured[]
}

/** What somebody decided of a sign: it stands for looks from its first until its last, and as long as it is seen on. */
export interface SignDecision {
  id: string
  sign: DecidedSign
  /** Null where the whole tank is meant. */
  lotId: string | null
  as: SignDecisionAs
  /** The largest it was seen at when it was decided. */
  severity: number
  /** Looks that it stands for. */
  firstMs: number
  lastMs: number
  /** Until when it is known; null for what was confirmed or dismissed. */
  untilMs: number | null
  note: string | null
  by: string
  atMs: number
}

/** A tank as it is set up. */
export interface TankSetUp {
  tankId: string
  code: string
  kind: TankKind
  systemId: string
  rack: string
  shelf: number
  position: number
  netVolumeL: number | null
  purpose: TankPurpose | null
  state: TankState | null
  decor?: TankDecor | null
  zoneId: string | null
  /** What its zone says of sources that have not met; null leaves it to the house. */
  sourcesRule?: SourcesRule | null
  isRetired: boolean
  water: WaterFacts
  /** What stands in its water now that some animals do not bear. */
  agents: string[]
  /** An ammonia binder works in its water until then; null while none does. */
  binderUntilMs?: number | null
}

/** What is known of a tank beside how it is set up. */
export interface KnownFacts {
  tankId: string
  /** The largest lot first. */
  lots: LotFacts[]
  /** Lots of which none is booked here any more, and yet part of a fish is to be expected. */
  perhaps: LotStanding[]
  /** Those of the last days, and however old the newest, the newest of an earlier round, of a tank that was fed, and with a meal; newest first. */
  looks: Look[]
  losses: Loss[]
  fights: Fight[]
  /** Those of the last days, newest first. */
  readings: Measured[]
  doses: Measured[]
  /** What was decided of signs seen in it lately; what was taken back is none. */
  decisions: SignDecision[]
}

/** What is known of a tank now. */
export interface TankFacts extends TankSetUp, KnownFacts {}

/** What changed in one tank. Each says how things stand after it, so that late, corrected and taken-back entries fold like any other. */
export type FactEvent =
  /** So many of a lot stand there since then; none, and they have left. */
  | { kind: 'stands'; tankId: string; lot: LotStanding }
  | { kind: 'checked'; tankId: string; look: Look; replacesId: string | null }
  | { kind: 'lost'; tankId: string; loss: Loss }
  /** A loss was taken back. */
  | { kind: 'taken back'; tankId: string; movementId: string }
  | { kind: 'read' | 'dosed'; tankId: string; measured: Measured; replacesSeq: number | null }
