import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { TankFacts } from '../../core/facts/facts'
import { countFish } from '../../core/ledger/stockView'
import type { AddPhoto } from '../../core/crates/photo.schema'
import { mostPhotosOfTank, type PinNote, type RecordReading } from '../../core/room/glass.schema'
import type { Bears, HistoryLook, TankHistory } from '../../core/room/tankHistory'
import type { RoundRules } from '../../core/rounds/roundRules'
import { usualOver } from '../../core/rounds/usualOver'
import type { TankView } from '../../core/room/roomView'
import type { Animal } from '../../core/tankChoice/tankChoice'
import type { Picture } from '../crates/readPicture'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import { newId } from '../newId'
import type { LevelsService } from '../rounds/levels.service'
import type { PlacingStore } from '../placing/placing.store'
import type { GlassStore, PastLook } from './glass.store'

const dayMs = 86_400_000

interface Collaborators {
  store: GlassStore
  facts: Pick<FactsService, 'inUse' | 'requireTank'>
  placing: Pick<PlacingStore, 'lots'>
  tankByCode: (code: string) => { id: string } | null
  flagOf: LevelsService['flagOf']
  /** How a tank is judged, with what happened to its fish. */
  judgedOf: LevelsService['one']
  rules: () => RoundRules
  /** Folder in which pictures lie, beside the database. */
  folder: string
}

/** What hangs on tanks: readings, notes and pictures; and how a tank fared. */
export function createGlassService({ store, facts, placing, tankByCode, flagOf, judgedOf, rules, folder }: Collaborators) {
  const onWater = (waterId: string, nowMs: number): TankFacts[] => facts.inUse(nowMs).filter(({ water }) => water.id === waterId)
  const fileOf = (id: string): string => join(folder, `${id}.jpg`)

  /** Ranges that all who live in a tank bear together. */
  function bears(lotIds: readonly string[], nowMs: number): Bears[] {
    const animals = placing.lots(lotIds, nowMs, true).map(({ animal }) => animal)
    const range = (what: Bears['what'], min: (animal: Animal) => number | null | undefined, max: (animal: Animal) => number | null | undefined): Bears => {
      const [mins, maxs] = [animals.flatMap((animal) => min(animal) ?? []), animals.flatMap((animal) => max(animal) ?? [])]
      return { what, min: mins.length > 0 ? Math.max(...mins) : null, max: maxs.length > 0 ? Math.min(...maxs) : null }
    }
    return [
      range('tempC', ({ tempCMin }) => tempCMin, ({ tempCMax }) => tempCMax),
      range('salinityPpt', ({ salinityPptMin }) => salinityPptMin, ({ salinityPptMax }) => salinityPptMax),
      range('ph', ({ phMin }) => phMin, ({ phMax }) => phMax),
    ].filter(({ min, max }) => min !== null || max !== null)
  }

  return {
    /** What the page of a tank shows beside its fish and its story. */
    of(tank: TankFacts, nowMs: number): Pick<TankView, 'pins' | 'photos' | 'neighbours' | 'toolSets' | 'agents'> {
      const neighbours = onWater(tank.water.id, nowMs).filter(({ tankId }) => tankId !== tank.tankId).map((each) => ({ id: each.tankId, code: each.code, fish: countFish(each.lots), species: each.lots[0]?.species ?? null, flag: flagOf(each, nowMs) }))
      return { pins: store.pinsOf(tank.tankId), photos: store.photosOf(tank.tankId, mostPhotosOfTank), neighbours, toolSets: store.toolSetsOf(tank.zoneId), agents: tank.agents }
    },

    history(code: string, days: number, nowMs: number): TankHistory {
      const row = tankByCode(code.toUpperCase())
      if (!row) throw new Problem('not-found', `There is no tank ${code} in this room`)
      const tank = facts.requireTank(row.id, 'code', nowMs)
      const fromMs = nowMs - Math.max(1, days) * dayMs
      const [changes, looks] = [store.changes(tank.tankId, fromMs), store.looks(tank.tankId, fromMs)]
      let fish = countFish(tank.lots) - changes.reduce((sum, { change }) => sum + change, 0)
      const counts = [{ atMs: fromMs, fish }, ...changes.map(({ atMs, change }) => ({ atMs, fish: (fish += change) }))]
      const waterTankIds = onWater(tank.water.id, nowMs).map(({ tankId }) => tankId)
      return { tankId: tank.tankId, waterTankIds, fromMs, toMs: nowMs, counts, looks: looks.map(({ atMs, ate, marks, ...look }) => ({ atMs, ate, marks, seen: seenOf(look, tank) })), usual: usualOver(judgedOf(tank, nowMs)?.asked.lots ?? [], looks, { fromMs, toMs: nowMs }, rules()), readings: store.readings(waterTankIds, fromMs), bears: bears(tank.lots.map(({ lotId }) => lotId), nowMs) }
    },

    recordReading({ params, actor, key, nowMs }: CommandContext, { what, value, instrument, happenedAtMs }: RecordReading) {
      const { tankId } = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      return { seq: store.insertReading({ tankId, word: what, value: value ?? 0, instrument: instrument?.trim() || null, staffId: actor.id, commandKey: key, happenedAtMs, recordedAtMs: nowMs }) }
    },
    undoReading({ params, nowMs }: CommandContext) {
      const seq = Number(params.seq)
      if (!Number.isSafeInteger(seq) || !store.undoReading(seq, nowMs)) throw new Problem('conflict', 'There is no such reading, or it was taken back already')
      return {}
    },

    pinNote({ params, actor, key, nowMs }: CommandContext, { words }: PinNote) {
      const { tankId } = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      return { id: store.insertPin({ tankId, words: words.trim(), staffId: actor.id, commandKey: key, recordedAtMs: nowMs }) }
    },
    unpinNote({ params, actor, nowMs }: CommandContext) {
      if (!store.removePin(params.pinId ?? '', { removedById: actor.id, removedAtMs: nowMs })) throw new Problem('conflict', 'This note was taken off already')
      return {}
    },

    /** Keeps a picture that was read and made anew. */
    addTankPhoto({ params, actor, nowMs }: CommandContext, { happenedAtMs }: AddPhoto, { jpeg, widthPx, heightPx }: Picture) {
      const { tankId } = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      const id = newId()
      mkdirSync(folder, { recursive: true })
      // Written before the entry: a picture without an entry harms nobody, an entry without a picture does.
      writeFileSync(fileOf(id), jpeg, { flag: 'wx' })
      store.insertPhoto({ id, tankId, widthPx, heightPx, staffId: actor.id, happenedAtMs, recordedAtMs: nowMs })
      return { photoId: id }
    },
    removeTankPhoto({ params, actor, nowMs }: CommandContext) {
      if (!store.removePhoto(params.photoId ?? '', { removedById: actor.id, removedAtMs: nowMs })) throw new Problem('conflict', 'There is no such picture, or it was taken off already')
      return {}
    },
    fileOf(id: string): string {
      if (!store.isPhoto(id)) throw new Problem('not-found', 'There is no such picture')
      return fileOf(id)
    },
  }
}
/** How many were seen at a look: of the tank, else of its kinds that were counted. */
function seenOf({ seen, counts, expected }: Pick<PastLook, 'seen' | 'counts' | 'expected'>, { lots }: Pick<TankFacts, 'lots'>): HistoryLook['seen'] {
  if (seen !== null) return { fish: seen, of: expected }
  const kinds = counts.flatMap((count) => {
    const named = lots.find(({ lotId }) => lotId === count.lotId)
    return named ? [{ fish: count.seen, of: countFish(lots.filter((lot) => lot.speciesId === named.speciesId && lot.noted.strain === named.noted.strain)) }] : []
  })
  return kinds.length === 0 ? null : { fish: kinds.reduce((sum, { fish }) => sum + fish, 0), of: kinds.reduce((sum, { of }) => sum + of, 0) }
}
export type GlassService = ReturnType<typeof createGlassService>
