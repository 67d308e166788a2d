import { groupBy } from '../../core/collections/groupBy'
import type { LotFacts, TankFacts } from '../../core/facts/facts'
import { stockOf } from '../../core/facts/askFacts'
import type { RecheckView } from '../../core/bench/benchView'
import { choreWords, type AskedChore } from '../../core/chores/askedChore'
import type { ChoreAtPlace } from '../../core/chores/choreView'
import { cardWords, choresOnRound } from '../../core/chores/choresOnRound'
import { actWords, proposedChange } from '../../core/rounds/actWords'
import { askedSigns, signWords } from '../../core/rounds/signDecision'
import { toHospital } from '../../core/rounds/toHospital'
import { missingWords, reasonWords } from '../../core/rounds/levelWords'
import type { NotEating } from '../../core/rounds/notEating'
import type { RoundRules } from '../../core/rounds/roundRules'
import type { DecidedSign } from '../../core/rounds/rounds.schema'
import type { JudgedStop, RoundStop } from '../../core/rounds/roundView'
import { asksToday, hungryWords, lotAppetite, usualWords, type FoodsKnown } from '../../core/rounds/stopWords'
import type { JudgedTank, LevelsService } from './levels.service'

interface Collaborators {
  levels: Pick<LevelsService, 'all' | 'besides' | 'flagOf' | 'foods' | 'one'>
  pins: () => readonly { tankId: string; words: string }[]
  /** What was asked for at tanks. */
  chores: (nowMs: number) => readonly AskedChore[]
  /** Work that comes round, as far as it is due. */
  routine: (nowMs: number) => readonly ChoreAtPlace[]
  /** Looks that pairings ask for. */
  pairings: (nowMs: number) => readonly { tankId: string; words: string }[]
  /** Looks that the bench asks for some time after a run. */
  rechecks: (nowMs: number) => readonly RecheckView[]
  tanks: (nowMs: number) => readonly TankFacts[]
  /** Places that somebody counts on. */
  booked: (nowMs: number) => Pick<ReadonlySet<string>, 'has'>
  systemName: (id: string) => string
  rules: () => RoundRules
}

/** A look that the bench asks for is told a little ahead. */
const soonMs = 15 * 60_000

/** What is said of a tank as long as nothing is written about it. */
type OfTank = Omit<JudgedStop, 'pins' | 'chores' | 'routine' | 'hospital' | 'rechecks'>

const notWorkedOut = 'its looks could not be worked out: look closely'

/** Water that stands in the tanks of one body; null where one of them is not measured. */
function volumeOf(onWater: readonly JudgedTank[]): number | null {
  const volumes = onWater.map(({ tank }) => tank.netVolumeL)
  return volumes.every((volume) => volume !== null) ? volumes.reduce((sum, volume) => sum + volume, 0) : null
}

/** What the card of a tank says: why it is not quiet, what is usual, what is asked today. */
export function createStopsService({ levels, pins, chores, routine, rechecks, pairings, tanks, booked, systemName, rules }: Collaborators) {
  function judgedOf({ tank, level, asked, unseen, state, isBroken }: JudgedTank, onWater: readonly JudgedTank[], known: FoodsKnown, nowMs: number): OfTank {
    const codeOf = (id: string): string => onWater.find((each) => each.tank.tankId === id)?.tank.code ?? ''
    const lotOf = (id: string) => tank.lots.find(({ lotId }) => lotId === id)
    const hasKinds = new Set(tank.lots.map(({ species }) => species)).size > 1
    const names = { kind: (id: string) => (hasKinds ? (lotOf(id)?.species ?? '') : ''), lot: (id: string) => (tank.lots.length > 1 ? (lotOf(id)?.lotCode ?? 'a lot that left') : ''), tank: codeOf }
    const appetites = tank.lots.map((lot) => ({ lot, appetite: lotAppetite(lot, tank, known, nowMs, rules()) }))
    const change = proposedChange(level.reasons, volumeOf(onWater), rules())
    const counted = level.reasons.flatMap(({ why, what, lot }) => (why === 'sign' ? [{ sign: what as DecidedSign, lotId: lot }] : why === 'losses beyond usual' ? [{ sign: 'death' as const, lotId: null }] : []))
    return {
      ...{ state, level: level.level, change, act: level.act.map((proposal) => ({ proposal, words: actWords(proposal, change, !tank.water.isAlone) })) },
      signs: askedSigns(tank, counted, onWater.some((each) => each.tank.lots.some(({ hold }) => hold !== null)), nowMs, rules()).map((sign) => ({ ...sign, words: signWords(sign, tank.lots) })),
      reasons: isBroken ? [notWorkedOut] : [...new Set(level.reasons.map((reason) => reasonWords(reason, names)))],
      usual: usualWords(asked, rules()),
      asks: [...new Set(asksToday(appetites.filter(({ appetite }) => !appetite.listed).map(({ lot }) => lot), nowMs))],
      unseen: unseen.flatMap((kind) => missingWords(kind, rules().species) ?? []),
      hungry: [...new Set(appetites.flatMap(({ lot, appetite }) => hungryWords(lot, appetite) ?? []))],
    }
  }

  /** A tank whose looks cannot be put into words says so, and takes no other with it. */
  function apart({ state }: JudgedTank, of: () => OfTank): OfTank {
    try {
      return of()
    } catch {
      return { state, level: 'watch', reasons: [notWorkedOut], act: [], change: null, signs: [], usual: [], asks: [], unseen: [], hungry: [] }
    }
  }

  type Stop = Omit<RoundStop, 'check' | 'lastCheck' | 'before' | 'part'>
  type Card = Omit<Stop, 'judged' | 'flag'> & { judged: OfTank }
  /** Cards as long as nothing was written about their tank. */
  const kept = new WeakMap<JudgedTank, Card>()

  function cardOf(each: JudgedTank, onWater: () => readonly JudgedTank[], nowMs: number): Card {
    const { tankId, code, kind, systemId } = each.tank
    const card = kept.get(each) ?? { tankId, code, kind, stock: stockOf(each.tank), systemName: systemName(systemId), judged: apart(each, () => judgedOf(each, onWater(), levels.foods(nowMs), nowMs)) }
    kept.set(each, card)
    return card
  }

  /** Looks that the bench and pairings ask for, read once for all tanks. */
  const dueLooks = (nowMs: number) => ({ ofBench: rechecks(nowMs).filter(({ doneAtMs, dueAtMs }) => doneAtMs === null && dueAtMs <= nowMs + soonMs), ofPairings: pairings(nowMs) })

  /** What hangs on a tank and is asked for there; it changes without a look. */
  function hanging(each: JudgedTank, due: ReturnType<typeof dueLooks>, onRound: ReadonlyMap<string, ChoreAtPlace[]>, nowMs: number): Omit<JudgedStop, keyof OfTank | 'pins'> {
    const asked = chores(nowMs).filter(({ tankId }) => tankId === each.tank.tankId).map((chore) => ({ id: chore.id, kind: chore.kind, byMs: chore.byMs, askedBy: chore.askedBy, words: choreWords(chore) }))
    const looks = due.ofBench.filter(({ tankCodes }) => tankCodes.includes(each.tank.code)).map(({ label, usual }) => `the bench asks for a look, ${label} after the run: ${usual} usual by now`)
    const paired = due.ofPairings.filter(({ tankId }) => tankId === each.tank.tankId).map(({ words }) => words)
    const isProposed = each.level.act.includes('hospital tank')
    const round = (onRound.get(each.tank.tankId) ?? []).map((chore) => ({ choreId: chore.choreId, placeId: chore.placeId, words: cardWords(chore) }))
    return { chores: asked, routine: round, rechecks: [...paired, ...looks], hospital: isProposed ? toHospital(each.tank, each.level.reasons, tanks(nowMs), booked(nowMs), rules()) : null }
  }

  return {
    /** Whether a lot of a tank goes without a meal for longer than usual, and what to try. */
    appetiteOf: (lot: LotFacts, tank: TankFacts, nowMs: number): NotEating => lotAppetite(lot, tank, levels.foods(nowMs), nowMs, rules()),

    /** Every tank with fish as a stop of the round, by tank. */
    all(nowMs: number): Map<string, Stop> {
      const hung = groupBy(pins(), ({ tankId }) => tankId)
      const [every, due] = [[...levels.all(nowMs).values()], dueLooks(nowMs)]
      const onRound = choresOnRound(routine(nowMs), tanks(nowMs))
      const byWater = groupBy(every, ({ tank }) => tank.water.id)
      return new Map(every.map((each) => {
        const card = cardOf(each, () => byWater.get(each.tank.water.id) ?? [], nowMs)
        return [card.tankId, { ...card, flag: levels.flagOf(each.tank, nowMs), judged: { ...card.judged, ...hanging(each, due, onRound, nowMs), pins: (hung.get(card.tankId) ?? []).map(({ words }) => words) } }]
      }))
    },

    /** What the looks at one tank mean; null where no fish stand in it. Its notes are its page's own. */
    of(tank: TankFacts, nowMs: number): JudgedStop | null {
      const each = levels.one(tank, nowMs)
      return each && { ...cardOf(each, () => levels.besides(tank, nowMs), nowMs).judged, ...hanging(each, dueLooks(nowMs), choresOnRound(routine(nowMs), tanks(nowMs)), nowMs), pins: [] }
    },
  }
}
export type StopsService = ReturnType<typeof createStopsService>
