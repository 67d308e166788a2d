import type { Gate, HoldPolicy, Phase, PhaseKind, SignReach } from './policy'
import { askingWords } from './shippedHolds'

/** Gates that are asked by a tick, each with the numbers it is asked with. */
export const tickedGates = { eating: { gate: 'eating', answers: 2, atLeast: 'most', withinDays: 3 }, fillingOut: { gate: 'fillingOut' }, pairing: { gate: 'pairing' }, looked: { gate: 'looked', withinDays: 0 }, cleared: { gate: 'cleared' } } as const satisfies Readonly<Record<string, Gate>>
export type TickedGate = keyof typeof tickedGates
export const [phaseTicks, releaseTicks] = [['eating', 'fillingOut', 'pairing'], ['eating', 'fillingOut', 'pairing', 'looked', 'cleared']] as const satisfies readonly (readonly TickedGate[])[]

export interface PhaseDraft {
  id: string
  kind: PhaseKind
  days: string
  wishDays: string
  ticks: TickedGate[]
  /** What is kept as it is: steps, readings, levels, how days count. */
  kept: Pick<Phase, 'counts' | 'level'> & { gates: readonly Gate[] }
}
/** A policy as it stands in the fields of a form. A rule that goes back to no phase is none. */
export interface PolicyDraft {
  name: string
  start: HoldPolicy['start']
  phases: PhaseDraft[]
  signBack: string
  signReach: SignReach
  addBack: string
  addBy: 'water' | 'tank'
  treatBack: string
  release: TickedGate[]
  kept: { words: readonly string[]; from: 'any' | 'held'; agents: readonly string[]; release: readonly Gate[] }
}

const isTicked = (name: string): name is TickedGate => Object.hasOwn(tickedGates, name)
const ticksOf = (gates: readonly Gate[]): TickedGate[] => gates.flatMap(({ gate }) => (isTicked(gate) ? [gate] : []))
const others = (gates: readonly Gate[]): Gate[] => gates.filter(({ gate }) => !isTicked(gate))

/** A policy in the fields of a form. */
export const draftOf = ({ name, start, phases, onSign, onAddition, onTreatment, release, agents }: HoldPolicy): PolicyDraft => ({
  ...{ name, start },
  phases: phases.map(({ id, kind, days, wishDays, counts, level, gates = [] }) => ({ id, kind, days: String(days), wishDays: wishDays === undefined ? '' : String(wishDays), ticks: ticksOf(gates), kept: { ...(counts ? { counts } : {}), ...(level ? { level } : {}), gates: others(gates) } })),
  ...{ signBack: onSign?.back ?? '', signReach: onSign?.reach ?? 'water', addBack: onAddition?.back ?? '', addBy: onAddition?.by ?? 'water', treatBack: onTreatment?.back ?? '' },
  release: ticksOf(release),
  kept: { words: onSign?.words ?? askingWords, from: onAddition?.from ?? 'held', agents, release: others(release) },
})

/** A number as it was typed; what is none stays what it is, and is refused beside its field. */
const figure = (typed: string): number | string => (typed.trim() === '' || !Number.isFinite(Number(typed)) ? typed : Number(typed))

/** What a form says, as a policy; whether it is sound is for `readPolicy` to say. */
export function policyOfDraft({ name, start, phases, signBack, signReach, addBack, addBy, treatBack, release, kept }: PolicyDraft, id: string): object {
  return {
    ...{ id, name: name.trim(), start },
    phases: phases.map((phase) => ({ id: phase.id.trim(), kind: phase.kind, days: figure(phase.days), ...(phase.wishDays.trim() === '' ? {} : { wishDays: figure(phase.wishDays) }), ...(phase.kept.counts ? { counts: phase.kept.counts } : {}), ...(phase.kept.level ? { level: phase.kept.level } : {}), gates: [...phase.ticks.map((tick) => tickedGates[tick]), ...phase.kept.gates] })),
    onSign: signBack === '' ? null : { back: signBack, reach: signReach, words: kept.words },
    onAddition: addBack === '' ? null : { by: addBy, from: kept.from, back: addBack },
    onTreatment: treatBack === '' ? null : { back: treatBack },
    release: [...release.map((tick) => tickedGates[tick]), ...kept.release],
    agents: kept.agents,
  }
}

/** An id for a policy of this name that no other has. */
export function policyIdFor(name: string, taken: ReadonlySet<string>): string {
  const plain = name.normalize('NFKD').toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^[^a-z]+|-+$/g, '').slice(0, 30) || 'house'
  for (let nth = 1; ; nth += 1) {
    const id = nth === 1 ? plain : `${plain}-${nth}`
    if (!taken.has(id)) return id
  }
}
