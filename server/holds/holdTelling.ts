import { contactWords } from '../../core/contacts/contactWords'
import { restartWords, type CauseStory } from '../../core/holds/holdWords'
import { isVessel, placeId } from '../../core/holds/holdRoom'
import type { HoldPolicy } from '../../core/holds/policy'
import type { ToldRestart } from '../../core/holds/holdClock'
import type { TankFacts } from '../../core/facts/facts'
import type { HoldStoriesStore } from './holdStories.store'

export interface Telling {
  stories: HoldStoriesStore
  tanks: ReadonlyMap<string, TankFacts>
  policies: ReadonlyMap<string, HoldPolicy>
  systemName: (id: string) => string
}

/** Names people and screens give to what clocks know by its id. */
export function createTelling({ stories, tanks, policies, systemName }: Telling) {
  const lotName = (lotId: string): string => {
    const lot = stories.lot(lotId)
    return lot ? `${lot.species} ${lot.code}` : 'a lot'
  }
  const isTank = (place: string): boolean => tanks.has(place)
  /** A tank by its code, a bucket by its name, the vessel of a run as what it is. */
  const placeName = (place: string): string => tanks.get(place)?.code ?? stories.vesselName(placeId(place)) ?? 'a vessel on the bench'
  const policyName = (id: string | null): string => policies.get(id ?? '')?.name ?? 'no hold'

  /** A body of water: its system, or the tank whose own it is. */
  function waterName(waterId: string): string {
    const tank = tanks.get(waterId)
    return tank ? `water of ${tank.code}` : isVessel(waterId) ? placeName(waterId) : systemName(waterId)
  }
  const nodeName = (node: string): string => waterName(node.replace(/^water:/, ''))

  function breachWords(contactId: string): string {
    const told = stories.breach(contactId)
    return told ? contactWords({ kind: told.kind, from: nodeName(told.fromNode), to: nodeName(told.toNode) }) : 'a breach'
  }

  /** The lot that came, by the entry that brought it; water that was joined is told by its tank. */
  function cameWords(id: string): string {
    if (/^w\d+$/.test(id)) return `the water of ${stories.plumbedTank(Number(id.slice(1))) ?? 'a tank'}`
    const [event = '', lotId] = id.split(':')
    return lotName(lotId ?? stories.lotOfMovement(event) ?? '')
  }

  function signStory(id: string): { word: string; tank: string } {
    if (id.endsWith(':death')) return { word: 'death', tank: stories.deathIn(id.slice(0, -':death'.length)) ?? 'a tank' }
    const told = stories.sign(Number(id.slice(1)))
    return { word: told?.word ?? 'seen', tank: told?.code ?? 'a tank' }
  }

  function storyOf({ cause, id }: Pick<ToldRestart, 'cause' | 'id'>, policy: HoldPolicy | undefined): CauseStory {
    if (cause === 'sign') return { cause, ...signStory(id) }
    if (cause === 'addition') return { cause, lot: cameWords(id), by: policy?.onAddition?.by ?? 'water' }
    if (cause === 'exposure') return { cause, what: breachWords(id) }
    if (cause === 'treatment') return { cause }
    const entry = stories.entryOf(id)
    return { cause: 'policy', policy: policyName(entry?.policyId ?? null), reason: entry?.reason ?? 'nobody said why' }
  }

  return {
    lotName,
    isTank,
    placeName,
    policyName,
    waterName,
    breachWords,
    restartTold: (restart: ToldRestart, policyId: string | null): string => restartWords(restart, storyOf(restart, policies.get(policyId ?? ''))),
  }
}
export type HoldTelling = ReturnType<typeof createTelling>
