import type { PlanFact, Wait } from './planFacts'
import type { PlanStateName } from './planState'
import { readingKinds, readingNames, showReading, type ReadingKind } from '../room/glass.schema'
import { markedUnits } from '../units/units'

/** Names of what facts and waits speak of. */
export interface PlanNames {
  place: (id: string) => string
  /** The kind of fish. */
  fish: (lot: string) => string
  crate: (id: string) => string
  plan: (id: string) => string
}

const readingName = (kind: unknown): ReadingKind | undefined => readingNames.find((each) => each === kind)
function labelOfReading(kind: unknown): string {
  const name = readingName(kind)
  return name ? readingKinds[name].label : String(kind)
}
function figureOf(kind: unknown, value: number): string {
  const name = readingName(kind)
  return name ? showReading(name, value, markedUnits) : String(value)
}
/** A range of a reading, of which one end may be open. */
function rangeWords({ kind, min, max }: Extract<PlanFact, { is: 'reading' }>): string {
  const [least, most] = [min, max].map((end) => (end === undefined ? null : figureOf(kind, end)))
  return `${labelOfReading(kind)} ${least && most ? `from ${least} to ${most}` : least ? `at least ${least}` : `at most ${most}`}`
}

const cm = (value: unknown): string => `${Math.round(Number(value) * 10) / 10} cm`
const list = (value: unknown, name: (id: string) => string): string => [...new Set((Array.isArray(value) ? (value as string[]) : []).map(name))].join(', ')

/** What a plan is to wait for, in words. */
export function factWords(fact: PlanFact, names: PlanNames): string {
  switch (fact.is) {
    case 'date':
      return `the ${fact.on}`
    case 'empty':
    case 'free':
      return `${names.place(fact.place)} to be ${fact.is === 'empty' ? 'empty' : 'free of other fish'}, and ready`
    case 'size':
      return `${fact.lot ? names.fish(fact.lot) : (fact.species ?? 'fish')} at ${cm(fact.cm)}${fact.by === 'estimated' ? ', by the estimate' : ''}`
    case 'hold':
      return `the hold of ${names.fish(fact.lot)}`
    case 'gate':
      return `${fact.gate} of ${names.fish(fact.lot)}`
    case 'pairing':
      return `pairing ${fact.pairing}`
    case 'crate':
      return names.crate(fact.crate)
    case 'thing':
      return `${fact.n} ${fact.thing}`
    case 'count':
      return `${names.place(fact.place)} down to ${fact.atMost} fish`
    case 'reading':
      return `${rangeWords(fact)} in ${names.place(fact.water)}`
    case 'done':
      return names.plan(fact.plan)
  }
}

/** What is not so yet, or in the way, in words. */
export function waitWords(wait: Wait, names: PlanNames): string {
  const of = (slot: string): string => String(wait[slot] ?? '')
  switch (wait.code) {
    case 'date':
      return `the ${of('on')}`
    case 'empty':
    case 'free':
      return Number(wait.fish) > 0 ? `${names.place(of('place'))} to be empty (${of('fish')} in it)` : `${names.place(of('place'))} is ${of('state')}`
    case 'size': {
      const name = wait.lot ? names.fish(of('lot')) : of('species')
      if (wait.now === null || wait.now === undefined) return `${name} to be measured`
      const isReached = Number(wait.now) >= Number(wait.cm)
      return isReached ? `${name} to be measured: about ${cm(wait.now)} by now` : `${name} at ${cm(wait.cm)} (about ${cm(wait.now)} now${wait.on ? `, about ${of('on')}` : ''})`
    }
    case 'hold':
      return `the hold of ${names.fish(of('lot'))}`
    case 'gate':
      return `${of('gate')} of ${names.fish(of('lot'))}`
    case 'pairing':
      return `pairing ${of('pairing')}`
    case 'crate':
      return `${names.crate(of('crate'))}${wait.state === 'cancelled' ? ', which will not come' : ''}`
    case 'thing':
      return `${of('n')} ${of('thing')} (${wait.have === null ? 'nobody counted' : `${of('have')} here`})`
    case 'count':
      return `${names.place(of('place'))} down to ${of('atMost')} (${of('fish')} in it)`
    case 'reading':
      return `a reading of ${labelOfReading(wait.kind)} in ${names.place(of('water'))} (${typeof wait.value === 'number' ? `${figureOf(wait.kind, wait.value)} now` : 'none of late'})`
    case 'done':
      return names.plan(of('plan'))
    case 'fish-gone':
      return `${of('want')} ${names.fish(of('lot'))} are wanted, ${of('have')} are in the house`
    case 'place-retired':
      return `${names.place(of('place'))} is no longer in use`
    case 'fish-double':
      return `${list(wait.plans, names.plan)} has the ${names.fish(of('lot'))} in ${names.place(of('place'))}`
    case 'fish-elsewhere':
      return `${of('want')} ${names.fish(of('lot'))} in ${names.place(of('place'))} (${of('have')} there)`
    case 'place-double':
      return `${list(wait.plans, names.plan)} has ${names.place(of('place'))}`
    case 'nobody-clears':
      return `nobody plans to clear ${names.place(of('place'))} of ${list(wait.lots, names.fish)}`
  }
}

/** How a plan stands, in a word or two. */
export const stateWords: Record<PlanStateName, string> = {
  done: 'done',
  dropped: 'dropped',
  expired: 'has run out',
  impossible: 'cannot be any more',
  stuck: 'stuck',
  double: 'counts on what another has',
  ready: 'can go now',
  ask: 'asks for a measure',
  waiting: 'waits',
}

/** Plans that somebody has to look at, beside those that can go. */
export const isAmiss = (state: PlanStateName): boolean => state === 'stuck' || state === 'double' || state === 'impossible' || state === 'expired'
