import { groupBy } from '../../core/collections/groupBy'
import type { TankFacts } from '../../core/facts/facts'
import { stockOf } from '../../core/facts/askFacts'
import { actWords } from '../../core/rounds/actWords'
import { missingWords, reasonWords } from '../../core/rounds/levelWords'
import type { RoundRules } from '../../core/rounds/roundRules'
import type { JudgedStop, RoundStop } from '../../core/rounds/roundView'
import { asksToday, hungryWords, lotAppetite, usualWords, type FoodsKnown } from '../../core/rounds/stopWords'
import type { JudgedTank, LevelsService } from './levels.service'

interface Collaborators {
  levels: Pick<LevelsService, 'all' | 'besides' | 'flagOf' | 'foods' | 'one'>
  pins: () => readonly { tankId: string; words: string }[]
  systemName: (id: string) => string
  rules: () => RoundRules
}

const notWorkedOut = 'its looks could not be worked out: look closely'

/** What the card of a tank says: why it is not quiet, what is usual, what is asked today. */
export function createStopsService({ levels, pins, systemName, rules }: Collaborators) {
  function judgedOf({ tank, level, asked, unseen, state, isBroken }: JudgedTank, codeOf: (tankId: string) => string, known: FoodsKnown, nowMs: number): Omit<JudgedStop, 'pins'> {
    const lotOf = (id: string) => tank.lots.find(({ lotId }) => lotId === id)
    const hasKinds = new Set(tank.lots.map(({ species }) => species)).size > 1
    const names = { kind: (id: string) => (hasKinds ? (lotOf(id)?.species ?? '') : ''), lot: (id: string) => (tank.lots.length > 1 ? (lotOf(id)?.lotCode ?? 'a lot that left') : ''), tank: codeOf }
    const appetites = tank.lots.map((lot) => ({ lot, appetite: lotAppetite(lot, tank, known, nowMs, rules()) }))
    return {
      ...{ state, level: level.level, act: level.act.map((proposal) => ({ proposal, words: actWords(proposal, level.reasons, tank.water.isAlone ? tank.netVolumeL : null, rules()) })) },
      reasons: isBroken ? [notWorkedOut] : [...new Set(level.reasons.map((reason) => reasonWords(reason, names)))],
      usual: usualWords(asked, rules()),
      asks: [...new Set(asksToday(appetites.filter(({ appetite }) => !appetite.listed).map(({ lot }) => lot), nowMs))],
      unseen: unseen.flatMap((kind) => missingWords(kind, rules().species) ?? []),
      hungry: [...new Set(appetites.flatMap(({ lot, appetite }) => hungryWords(lot, appetite) ?? []))],
    }
  }

  /** A tank whose looks cannot be put into words says so, and takes no other with it. */
  function apart({ state }: JudgedTank, of: () => Omit<JudgedStop, 'pins'>): Omit<JudgedStop, 'pins'> {
    try {
      return of()
    } catch {
      return { state, level: 'watch', reasons: [notWorkedOut], act: [], usual: [], asks: [], unseen: [], hungry: [] }
    }
  }

  type Stop = Omit<RoundStop, 'check' | 'lastCheck' | 'before'>
  type Card = Omit<Stop, 'judged' | 'flag'> & { judged: Omit<JudgedStop, 'pins'> }
  /** Cards as long as nothing was written about their tank. */
  const kept = new WeakMap<JudgedTank, Card>()

  function cardOf(each: JudgedTank, onWater: () => readonly JudgedTank[], nowMs: number): Card {
    const { tankId, code, kind, systemId } = each.tank
    const codeOf = (id: string): string => onWater().find(({ tank }) => tank.tankId === id)?.tank.code ?? ''
    const card = kept.get(each) ?? { tankId, code, kind, stock: stockOf(each.tank), systemName: systemName(systemId), judged: apart(each, () => judgedOf(each, codeOf, levels.foods(), nowMs)) }
    kept.set(each, card)
    return card
  }

  return {
    /** Every tank with fish as a stop of the round, by tank. */
    all(nowMs: number): Map<string, Stop> {
      const hung = groupBy(pins(), ({ tankId }) => tankId)
      const every = [...levels.all(nowMs).values()]
      return new Map(every.map((each) => {
        const card = cardOf(each, () => every, nowMs)
        return [card.tankId, { ...card, flag: levels.flagOf(each.tank, nowMs), judged: { ...card.judged, pins: (hung.get(card.tankId) ?? []).map(({ words }) => words) } }]
      }))
    },

    /** What the looks at one tank mean; null where no fish stand in it. Its notes are its page's own. */
    of(tank: TankFacts, nowMs: number): JudgedStop | null {
      const each = levels.one(tank, nowMs)
      return each && { ...cardOf(each, () => levels.besides(tank, nowMs), nowMs).judged, pins: [] }
    },
  }
}
export type StopsService = ReturnType<typeof createStopsService>
