import type { ContactKind } from './contact'
import type { TraceQuestion } from './trace'

/** A node as people call it, and where one goes to see it. */
export interface NodeView {
  node: string
  /** "R1-01", "Fresh sale rack", "green", "a bag of crate 7". */
  name: string
  /** Tanks on this water, by code; none for tools, bags and vessels. */
  tanks: string[]
}

/** One step of a chain, in words and with what it went between. */
export interface ChainStep {
  id: string
  kind: ContactKind
  from: string
  to: string
  atMs: number
  words: string
  isPlanned: boolean
}

export interface ReachedView extends NodeView {
  hops: number
  atMs: number
  anyAtMs: number
  chain: ChainStep[]
  isCleared: boolean | null
}

export interface ReachedLotView {
  lotId: string
  lotCode: string
  species: string
  origin: string
  hops: number
  atMs: number
  /** Codes of the tanks in which fish of it stand now. */
  tanks: string[]
  /** The day of its hold, where it is in one that this falls into. */
  hold: { day: number; of: number } | null
}

/** What can have met, from one water, lot or tool set. */
export interface TraceView {
  start: NodeView
  direction: TraceQuestion['direction']
  fromMs: number
  toMs: number
  reached: ReachedView[]
  /** Everything that the chains go through, by name. */
  nodes: NodeView[]
  /** Waters that the one asked for is joined to now, by the contact that says so. */
  joined: { contactId: string; name: string }[]
  lots: ReachedLotView[]
  sources: string[]
  /** Waters of the same zone of which nothing is recorded. */
  sameTools: NodeView[]
}

/** A tool set as it is now. */
export interface ToolView {
  id: string
  name: string
  zone: string | null
  marking: string | null
  state: 'clean' | 'used' | 'in bath'
  readyAtMs: number | null
  /** Waters it was in since it was last clean, by name. */
  carries: string[]
}
