import { agentWord } from './agentWords'
import { shippedAgents } from './agents'

/** Something went into a water, was found there, or is out of it. */
export interface PutInto {
  of: 'dose' | 'found' | 'cleared'
  agent: string
  atMs: number
}
/** Fish stood in a water; until now where `toMs` is null. */
export interface StoodThere {
  fromMs: number
  toMs: number | null
  /** What was put into that water, oldest first. */
  put: readonly PutInto[]
}
const dayMs = 86_400_000

/** While an agent was in a water: from what was put in until it was cleared, or gone by itself. */
function spells(put: readonly PutInto[], nowMs: number): { agent: string; fromMs: number; toMs: number }[] {
  return put.flatMap(({ of, agent, atMs }, index) => {
    if (of === 'cleared') return []
    const days = shippedAgents[agent]?.goneAfterDays
    const goneMs = days == null ? nowMs : Math.min(nowMs, atMs + days * dayMs)
    const clearedMs = put.slice(index + 1).find((later) => later.of === 'cleared' && later.agent === agent)?.atMs ?? nowMs
    return [{ agent, fromMs: atMs, toMs: Math.min(goneMs, clearedMs) }]
  })
}

/**
 * Agents that fish stood in, as the species book calls them, each with the last moment of it; by name.
 * @param stays - the waters in which they stood, any order.
 */
export function agentsMet(stays: readonly StoodThere[], nowMs: number): { agent: string; lastMs: number }[] {
  const last = new Map<string, number>()
  for (const { fromMs, toMs, put } of stays)
    for (const spell of spells(put, nowMs)) {
      const [from, until] = [Math.max(spell.fromMs, fromMs), Math.min(spell.toMs, toMs ?? nowMs)]
      const word = agentWord(spell.agent)
      if (from <= until) last.set(word, Math.max(last.get(word) ?? 0, until))
    }
  return [...last].map(([agent, lastMs]) => ({ agent, lastMs })).sort((a, b) => (a.agent < b.agent ? -1 : 1))
}
