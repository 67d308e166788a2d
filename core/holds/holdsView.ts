import type { HoldBar } from './holdBar'
import type { HoldPolicy } from './policy'
import type { PolicyRule } from './policyFor'
import type { Release } from './releaseCheck'

/** Fish of one lot in one place, and their hold as it is told. */
export interface HeldGroupView {
  lotId: string
  lotCode: string
  speciesId: string
  species: string
  strain: string | null
  supplier: string
  fish: number
  placeId: string
  /** The tank, or what the bucket is called. */
  placeName: string
  /** Whether the place is a tank: it has a page. */
  isTank: boolean
  waterId: string
  policyId: string
  policyName: string
  isReady: boolean
  /** Over all phases, for a scale. */
  day: number
  of: number
  /** Where it stands, in a sentence or two. */
  words: string
  /** What a sign, or fish added, would mean today. */
  exposed: string | null
  /** What began it again, newest first, in a sentence each. */
  restarts: string[]
  waitsFor: string[]
  earliest: string
  /** Whether it waits for somebody's word about a sign or a breach. */
  isUndecided: boolean
  bar: HoldBar
  release: Release
}
/** Fish whose hold was ended lately, and that stand still where they were held. */
export type LetGo = Pick<HeldGroupView, 'lotId' | 'lotCode' | 'speciesId' | 'species' | 'strain' | 'fish' | 'placeId' | 'placeName'>
/** A body of water with held fish. */
export interface HeldWaterView {
  id: string
  name: string
  /** Fish keep being added: it does not come ready by itself. */
  isNeverReady: boolean
  /** The latest of its groups: that one its bar shows. */
  latest: { lotId: string; placeId: string }
}
/** Signs of one word in one tank, or a breach, that holds wait for. */
export interface ToDecide {
  id: string
  /** Null for signs. */
  contactId: string | null
  tankId: string | null
  tankCode: string
  word: string
  count: number
  firstMs: number
  lastMs: number
  /** What it would mean if it counted, each group in a sentence; empty where no date would move. */
  ifItCounts: string[]
}
/** A hold that somebody ended lately, or another word of theirs about one. */
export interface HoldEntryView {
  id: string
  placeName: string
  words: string
  by: string
  atMs: number
  staffId: string
  recordedAtMs: number
}
/** A few fish of two groups together, and what that proves so far. */
export interface PairingView {
  id: string
  tankCode: string
  tankId: string
  lots: [string, string]
  /** Fish of each in it, of how many. */
  fish: { paired: number; of: number }[]
  state: 'running' | 'passed' | 'failed' | 'given up'
  startedAtMs: number
  /** What it proves and risks. */
  words: string
  /** Looks that are planned: when, and whether somebody looked. */
  looks: { h: number; dueAtMs: number; isMade: boolean; isMissed: boolean }[]
  reason: string | null
}
/** A tank apart in which fish of several lots stand. */
export interface Pairable {
  tankId: string
  tankCode: string
  lots: { lotId: string; name: string; fish: number }[]
}
export interface HoldsView {
  on: string
  decisions: ToDecide[]
  waters: HeldWaterView[]
  /** Ready first, then by the day they may be ready. */
  groups: HeldGroupView[]
  /** In tanks that fish are held in: to be moved. */
  letGo: LetGo[]
  entries: HoldEntryView[]
  /** Those that run first. */
  pairings: PairingView[]
  pairable: Pairable[]
  /** Entries that contradict each other by their times: fish that clocks know nothing of, in words. */
  unclocked: string[]
}

/** What something would do to holds, in sentences. */
export interface HoldWhatIfView {
  words: string[]
  /** Whether any date would move, or fish stand unprotected. */
  isHarmless: boolean
}

export interface PolicyView {
  policy: HoldPolicy
  version: number
  /** Made or changed by the house. */
  isOwn: boolean
  isRetired: boolean
  /** In a sentence or two. */
  words: string
}
export interface HoldPoliciesView {
  policies: PolicyView[]
  rules: PolicyRule[]
  version: number
}
