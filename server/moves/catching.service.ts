import { catchCard, type Net } from '../../core/moves/catchCard'
import type { MoveRules } from '../../core/moves/moveRules'
import type { MovedFish, RecordFight, RecordLift } from '../../core/moves/moves.schema'
import type { CatchView } from '../../core/moves/moveView'
import { figure, word, words } from '../../core/species/readEntry'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { PlacingStore } from '../placing/placing.store'
import type { MovesStore } from './moves.store'

interface Collaborators {
  store: MovesStore
  facts: Pick<FactsService, 'requireTank'>
  placing: Pick<PlacingStore, 'lots'>
  rules: () => MoveRules
  dayStart: (nowMs: number) => number
}

/** Where no length is known, one by which the finer net is advised. */
const unknownLengthCm = 4

/** What catching fish takes, and what was seen of their fights. */
export function createCatchingService({ store, facts, placing, rules, dayStart }: Collaborators) {
  function cardOf({ speciesId, strain, quantity }: MovedFish, tankId: string, isChosen: boolean, nowMs: number): CatchView[] {
    const lots = facts.requireTank(tankId, 'tankId', nowMs).lots.filter((lot) => lot.speciesId === speciesId && lot.noted.strain === strain)
    const [first] = placing.lots(lots.map(({ lotId }) => lotId), nowMs, true)
    if (!first) return []
    const { animal } = first
    const [entry, shape, liftIds] = [store.entry(speciesId) ?? {}, store.shapeOf(tankId), store.lifts(tankId, dayStart(nowMs))]
    const lengthCm = animal.sizeCm ?? animal.asPreyCm ?? animal.adultCm
    const [hurts, tool] = [words(entry.hurts), word(entry.catchWith)]
    const card = catchCard(
      {
        fish: {
          lengthCm: lengthCm ?? unknownLengthCm,
          fins: animal.fins === 'long' ? 'long' : 'normal',
          spines: hurts.some((each) => each === 'venomous' || each === 'sharp' || each === 'locks in nets'),
          // What the book wants caught otherwise bears no net.
          sensitivities: [...animal.sensitivities, ...(tool !== null && tool !== 'net' ? ['netting'] : [])],
          groupMin: animal.groupMin ?? 1,
          shareSeenPercent: figure(entry.shareSeenPercent),
          isWary: animal.temperament === 'territorial' || animal.temperament === 'hunts small fish' || words(entry.eats).length > 0,
        },
        // A tank of which nobody gave the measures lets every net in, and is not tall.
        tank: { widthCm: shape?.depthCm ?? Infinity, heightCm: shape?.heightCm ?? 0, corners: shape?.corners ?? 'square', decor: shape?.decor ?? 'bare' },
        ...{ inTank: lots.reduce((sum, lot) => sum + lot.quantity, 0), want: quantity, chosen: isChosen, liftsToday: liftIds.length },
        nets: store.nets().flatMap(({ id, widthCm, mesh }): Net[] => (widthCm === null || mesh === null ? [] : [{ id, widthCm, mesh }])),
      },
      rules(),
    )
    const known: [what: string, value: unknown][] = [['their length', lengthCm], ['the tank front to back', shape?.depthCm], ['its height', shape?.heightCm], ['its decor', shape?.decor]]
    const unknown = known.flatMap(([what, value]) => (value === null || value === undefined ? [what] : []))
    return [{ ...card, species: animal.species, want: quantity, liftsToday: liftIds.length, liftIds, unknown }]
  }

  return {
    /** With what to catch fish of a tank, and how many are to be expected. */
    cards: (tankId: string, fish: readonly MovedFish[], isChosen: boolean, nowMs: number): { cards: CatchView[] } => ({ cards: fish.flatMap((each) => cardOf(each, tankId, isChosen, nowMs)) }),

    recordLift({ params, actor, key, nowMs }: CommandContext, { happenedAtMs }: RecordLift) {
      return { id: store.insertLift({ tankId: facts.requireTank(params.tankId ?? '', 'tankId', nowMs).tankId, atMs: happenedAtMs, staffId: actor.id, commandKey: key, recordedAtMs: nowMs }) }
    },
    undoLift({ params, actor, nowMs }: CommandContext) {
      if (!store.undoLift(params.liftId ?? '', { undoneById: actor.id, undoneAtMs: nowMs })) throw new Problem('not-found', 'There is no such lift')
      return {}
    },

    /** Writes down that two kinds fought, with the size of the tank they did it in. */
    recordFight({ params, actor, key, nowMs }: CommandContext, { speciesAId, speciesBId, harm, happenedAtMs }: RecordFight) {
      const tank = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      if (store.speciesNamed(speciesAId) === null) throw fieldProblem('speciesAId', 'There is no such species')
      if (store.speciesNamed(speciesBId) === null) throw fieldProblem('speciesBId', 'There is no such species')
      return { id: store.insertFight({ tankId: tank.tankId, volumeL: tank.netVolumeL, speciesAId, speciesBId, harm, atMs: happenedAtMs, staffId: actor.id, commandKey: key, recordedAtMs: nowMs }) }
    },
    undoFight({ params, actor, nowMs }: CommandContext) {
      if (!store.undoFight(params.fightId ?? '', { undoneById: actor.id, undoneAtMs: nowMs })) throw new Problem('not-found', 'There is no such fight')
      return {}
    },
  }
}
export type CatchingService = ReturnType<typeof createCatchingService>
