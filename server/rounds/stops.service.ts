import { groupBy } from '../../core/collections/groupBy'
import { stockOf } from '../../core/facts/askFacts'
import { missingWords, reasonWords } from '../../core/rounds/levelWords'
import type { RoundRules } from '../../core/rounds/roundRules'
import type { JudgedStop, RoundStop } from '../../core/rounds/roundView'
import { asksToday, hungryWords, lotAppetite, usualWords, type FoodsKnown } from '../../core/rounds/stopWords'
import type { JudgedTank, LevelsService } from './levels.service'

interface Collaborators {
  levels: Pick<LevelsService, 'all' | 'flagOf' | 'foods'>
  pins: () => readonly { tankId: string; words: string }[]
  systemName: (id: string) => string
  rules: () => RoundRules
}

/** What the card of a tank says: why it is not quiet, what is usual, what is asked today. */
export function createStopsService({ levels, pins, systemName, rules }: Collaborators) {
  function judgedOf({ tank, level, asked, unseen, state }: JudgedTank, codeOf: (tankId: string) => string, known: FoodsKnown, nowMs: number): Omit<JudgedStop, 'pins'> {
    const lotNames = new Map(tank.lots.map(({ lotId, lotCode, species }) => [lotId, tank.lots.length > 1 ? `${species} (${lotCode})` : species]))
    const names = { lot: (id: string) => lotNames.get(id) ?? 'a lot that left', tank: codeOf }
    return {
      ...{ state, level: level.level, act: level.act },
      reasons: level.reasons.map((reason) => reasonWords(reason, names)),
      usual: usualWords(asked, rules()),
      asks: asksToday(tank, nowMs),
      unseen: unseen.flatMap((kind) => missingWords(kind) ?? []),
      hungry: tank.lots.flatMap((lot) => hungryWords(lot, lotAppetite(lot, tank, known, nowMs, rules())) ?? []),
    }
  }

  type Card = Omit<RoundStop, 'check' | 'lastCheck' | 'before' | 'judged' | 'flag'> & { judged: Omit<JudgedStop, 'pins'> }
  /** Cards as long as nothing was written about their tank. */
  const kept = new WeakMap<JudgedTank, Card>()

  return {
    /** Every tank with fish as a stop of the round, by tank. */
    all(nowMs: number): Map<string, Omit<RoundStop, 'check' | 'lastCheck' | 'before'>> {
      const [judged, known, hung] = [levels.all(nowMs), levels.foods(nowMs), groupBy(pins(), ({ tankId }) => tankId)]
      const codeOf = (tankId: string): string => judged.get(tankId)?.tank.code ?? ''
      const cardOf = (each: JudgedTank): Card => {
        const { tankId, code, kind, systemId } = each.tank
        const card = kept.get(each) ?? { tankId, code, kind, stock: stockOf(each.tank), systemName: systemName(systemId), judged: judgedOf(each, codeOf, known, nowMs) }
        kept.set(each, card)
        return card
      }
      return new Map([...judged].map(([tankId, each]) => {
        const card = cardOf(each)
        return [tankId, { ...card, flag: levels.flagOf(tankId, nowMs), judged: { ...card.judged, pins: (hung.get(tankId) ?? []).map(({ words }) => words) } }]
      }))
    },
  }
}
export type StopsService = ReturnType<typeof createStopsService>
