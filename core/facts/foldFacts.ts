import { mealAnswers, type Ate } from '../rounds/rounds.schema'
import type { FactEvent, Fight, KnownFacts, LotFacts, LotStanding, Look, Measured } from './facts'

/** What is known of a tank before anything is. */
export const nothingKnown: Omit<KnownFacts, 'tankId'> = { lots: [], perhaps: [], looks: [], losses: [], fights: [], readings: [], doses: [], decisions: [] }

/**
 * Folds what changed into what is known of a tank: the server over what the books say, a screen over what still waits on
 * its device. An event of another tank changes nothing; the same event again changes nothing more.
 */
export function foldFacts<Tank extends KnownFacts>(tank: Tank, event: FactEvent): Tank {
  return event.tankId === tank.tankId ? withLots(apply(tank, event)) : tank
}

/** Folds many events at once; each tank's lots are read once, at the end. */
export const foldAll = <Tank extends KnownFacts>(tank: Tank, events: readonly FactEvent[]): Tank => withLots(events.filter(({ tankId }) => tankId === tank.tankId).reduce<Tank>(apply, tank))

function apply<Tank extends KnownFacts>(tank: Tank, event: FactEvent): Tank {
  switch (event.kind) {
    case 'stands':
      return {
        ...tank,
        lots: [...tank.lots.filter(({ lotId }) => lotId !== event.lot.lotId), ...(event.lot.quantity > 0 ? [unread(event.lot)] : [])].sort(largestFirst),
        perhaps: [...tank.perhaps.filter(({ lotId }) => lotId !== event.lot.lotId), ...(event.lot.quantity === 0 && event.lot.expected > 0 ? [event.lot] : [])].sort(largestFirst),
      }
    case 'checked': {
      const [looks, fights] = [tank.looks, tank.fights].map((each) => each.filter(({ id }: { id: string }) => id !== event.replacesId && id !== event.look.id)) as [Look[], Fight[]]
      return { ...tank, looks: [...looks, event.look].sort(newestFirst), fights: isFight(event.look) ? [...fights, { id: event.look.id, atMs: event.look.atMs }].sort(newestFirst) : fights }
    }
    case 'lost': {
      const { loss } = event
      const losses = [...tank.losses.filter(({ id }) => id !== loss.id), loss].sort(newestFirst)
      const fights = tank.fights.filter(({ id }) => id !== loss.id)
      return { ...tank, losses, fights: loss.cause === 'eaten' ? [...fights, { id: loss.id, atMs: loss.atMs }].sort(newestFirst) : fights }
    }
    case 'taken back':
      return { ...tank, losses: tank.losses.filter(({ id }) => id !== event.movementId), fights: tank.fights.filter(({ id }) => id !== event.movementId) }
    case 'read':
      return { ...tank, readings: withMeasured(tank.readings, event) }
    case 'dosed':
      return { ...tank, doses: withMeasured(tank.doses, event) }
  }
}

const unread = (lot: LotStanding): LotFacts => ({ ...lot, lastAnswer: null, lastMeal: null, refusals: 0, losses: [], doses: [] })
const largestFirst = (a: LotStanding, b: LotStanding): number => b.quantity - a.quantity || byText(a.lotCode, b.lotCode)
const byText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

interface Dated {
  id: string
  atMs: number
  recordedAtMs?: number
}
/** What happened in one moment stands in the order of recording. */
const newestFirst = (a: Dated, b: Dated): number => b.atMs - a.atMs || (b.recordedAtMs ?? 0) - (a.recordedAtMs ?? 0) || byText(b.id, a.id)

/** Answers whether fish went for each other at a look. */
export const isFight = ({ signs }: Pick<Look, 'signs'>): boolean => signs.includes('chased') || signs.includes('chasing')

/** How a lot ate at a look: by its own answer, else the tank's. */
export const ateOf = ({ answers, ate }: Pick<Look, 'answers' | 'ate'>, lotId: string): Ate => answers.find((own) => own.lotId === lotId)?.ate ?? ate

const withMeasured = (all: readonly Measured[], { measured, replacesSeq }: { measured: Measured; replacesSeq: number | null }): Measured[] =>
  [...all.filter(({ seq }) => seq !== replacesSeq && seq !== measured.seq), measured].sort((a, b) => b.atMs - a.atMs || b.seq - a.seq)

/** Reads for every lot what the looks, losses and doses of its tank say of it since it came. */
function withLots<Tank extends KnownFacts>(tank: Tank): Tank {
  const lots = tank.lots.map((lot): LotFacts => {
    const own = tank.looks.flatMap((look) => {
      const ate = ateOf(look, lot.lotId)
      return ate === 'not fed' || look.atMs < lot.sinceMs ? [] : [{ ate, atMs: look.atMs }]
    })
    const meal = own.find(({ ate }) => mealAnswers.includes(ate))
    return {
      ...lot,
      lastAnswer: own[0] ?? null,
      lastMeal: meal ?? null,
      refusals: meal ? own.indexOf(meal) : own.length,
      losses: tank.losses.filter(({ lotId }) => lotId === lot.lotId),
      doses: tank.doses.filter(({ lotId, atMs }) => atMs >= lot.sinceMs && (lotId === null || lotId === lot.lotId)),
    }
  })
  return { ...tank, lots }
}
