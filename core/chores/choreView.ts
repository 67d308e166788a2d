import type { ChoreKind, ChorePlace, SaveChore } from './chores.schema'
import type { ChoreRule, ItemCount } from './choresDue'

/** A chore as a lead set it up. */
export interface ChoreSetUp {
  id: string
  name: string
  kind: ChoreKind
  rule: ChoreRule & Pick<SaveChore['rule'], 'kind'>
  startOn: string
  places: ChorePlace[]
  note: string | null
  version: number
}

/** Fish that a visit takes along, and where they are moved. */
export interface TakenFish {
  fromCode: string
  species: string
  quantity: number
  /** How many of the kind stand there. */
  there: number
  /** Address of the move that takes them. */
  to: string
}

/** One chore at one place. */
export interface ChoreAtPlace {
  choreId: string
  placeId: string
  chore: string
  kind: ChoreKind
  place: string
  /** The system it is at; null for a tank, or elsewhere. */
  systemId: string | null
  /** The tank it is at; null for a whole system, or elsewhere. */
  tankId: string | null
  tankCode: string | null
  dueOn: string
  lateDays: number
  /** Litres, salt, temperature, source of a water change; null where there is nothing to say. */
  words: string | null
  uses: ItemCount[]
  fish: TakenFish[]
  note: string | null
}
export interface DoneChore {
  doneId: string
  choreId: string
  placeId: string
  chore: string
  place: string
  by: string
  atMs: number
}
export interface ChoresView {
  on: string
  due: ChoreAtPlace[]
  /** Done today. */
  done: DoneChore[]
  /** What to take along for all that is due, with how many are in the store room; null where nobody counted. */
  carry: (ItemCount & { onHand: number | null; missing: number })[]
  /** What comes round next, and when; null where nobody can tell yet. */
  later: { choreId: string; chore: string; place: string; dueOn: string | null }[]
  chores: ChoreSetUp[]
  supplies: { item: string; pieces: number | null }[]
}
