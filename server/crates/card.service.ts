import { groupBy } from '../../core/collections/groupBy'
import type { CardFacts, CardKind } from '../../core/crates/cardFacts'
import type { CardWater } from '../../core/crates/takeAlongCard'
import { agentId } from '../../core/dosing/agents'
import { agentsMet } from '../../core/dosing/agentsMet'
import { stockOf } from '../../core/facts/askFacts'
import type { LotFacts, TankFacts } from '../../core/facts/facts'
import { poolsOf } from '../../core/pools/poolsOf'
import { dayInZone } from '../../core/time/dayInZone'
import type { HoldBooksStore } from '../holds/holdBooks.store'
import type { HoldsService } from '../holds/holds.service'
import type { FactsService } from '../facts/facts.service'
import { Problem } from '../http/problem'
import type { CratesStore } from './crates.store'

const hourMs = 3_600_000
/** A figure that is older says what the water was. */
const freshHours = 48

interface Collaborators {
  store: Pick<CratesStore, 'toldOfLots'>
  facts: Pick<FactsService, 'inUse'>
  /** What fish served of their hold, whether or not it is over. */
  served: HoldsService['served']
  /** Where fish stood, and what was put into those waters. */
  books: Pick<HoldBooksStore, 'staysOf' | 'putInto'>
  zone: () => string
  roomName: () => string
}

/** What goes along with fish that leave a tank. */
export function createCardService({ store, facts, served, books, zone, roomName }: Collaborators) {
  /** What one value all lots agree on; null where they do not, or nobody knows. */
  const agreed = <T>(values: readonly (T | null)[]): T | null => (new Set(values).size === 1 ? (values[0] ?? null) : null)

  /** The least that any of the lots served; null where one of them was not held. */
  function heldOf(lots: readonly LotFacts[], tankId: string, nowMs: number): CardKind['held'] {
    const holds = lots.map(({ lotId }) => served(lotId, tankId, nowMs))
    const [first] = holds.sort((a, b) => (a?.days ?? -1) - (b?.days ?? -1))
    return first ? { days: first.days, of: first.of, school: first.policy.toLowerCase() } : null
  }

  /** What stood in the waters that they lived in, and until when. */
  const agentsOf = (lotIds: readonly string[], nowMs: number): CardKind['agents'] =>
    agentsMet(books.staysOf(lotIds).map(({ tankId, fromMs, toMs }) => ({ fromMs, toMs, put: books.putInto(tankId).map((row) => ({ ...row, agent: agentId(row.agent) })) })), nowMs).map(({ agent, lastMs }) => ({ agent, lastOn: dayInZone(lastMs, zone()) }))

  function kindOf(lots: readonly LotFacts[], tank: TankFacts, nowMs: number): Omit<CardKind, 'speciesId' | 'species' | 'strain' | 'quantity'> {
    const told = store.toldOfLots(lots.map(({ lotId }) => lotId))
    const lastMealMs = Math.min(...lots.map(({ lastMeal }) => lastMeal?.atMs ?? 0))
    const foods = [...new Set(told.flatMap(({ ateBefore }) => ateBefore ?? []))]
    return {
      // Of several lots the card says what holds for each of them.
      origin: agreed(lots.map(({ lotId, origin }) => told.find((each) => each.lotId === lotId)?.origin ?? (origin === 'born here' ? 'captive bred' : null))),
      identity: agreed(lots.map(({ lotId }) => told.find((each) => each.lotId === lotId)?.identity ?? null)),
      sizeCm: agreed(lots.map(({ noted }) => noted.sizeCm)),
      ateBefore: foods.length > 0 ? foods.join(', ').slice(0, 80) : null,
      held: heldOf(lots, tank.tankId, nowMs),
      agents: agentsOf(lots.map(({ lotId }) => lotId), nowMs),
      lastFedOn: lastMealMs > 0 ? dayInZone(lastMealMs, zone()) : null,
    }
  }

  function measuredOf({ readings }: TankFacts, nowMs: number): CardWater {
    const newest = (what: string): number | null => readings.find((each) => each.what === what && nowMs - each.atMs <= freshHours * hourMs)?.value ?? null
    return { tempC: newest('tempC'), salinityPpt: newest('salinityPpt'), ph: newest('ph'), alkalinityMeqL: newest('alkalinityMeqL') }
  }

  return {
    /** What a card from this tank can say. */
    facts(code: string, nowMs: number): CardFacts {
      const tank = facts.inUse(nowMs).find((each) => each.code === code.toUpperCase())
      if (!tank) throw new Problem('not-found', `There is no tank ${code} in this room`)
      const lotsOf = groupBy(tank.lots, ({ lotId }) => lotId)
      const kinds = poolsOf(stockOf(tank)).map(({ speciesId, species, strain, quantity, lots }): CardKind => ({ speciesId, species, strain, quantity, ...kindOf(lots.flatMap(({ lotId }) => lotsOf.get(lotId) ?? []), tank, nowMs) }))
      const { tempC, salinityPpt, ph, alkalinityMeqL } = tank.water
      return { room: roomName(), tankCode: tank.code, kinds, measured: measuredOf(tank, nowMs), keptAt: { tempC, salinityPpt, ph, alkalinityMeqL } }
    },
  }
}
export type CardService = ReturnType<typeof createCardService>
