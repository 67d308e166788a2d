import { markedUnits } from '../units/units'
import { readingKinds, showReading, type ReadingKind } from '../room/glass.schema'
import type { LevelReason } from './levelReason'
import type { UnseenKind } from './levelAsked'
import type { Missing } from './missing'
import { shippedRoundRules, type JudgedReading } from './roundRules'

/** How lots and tanks are called. */
export interface LevelNames {
  /** The kind of a lot; empty where only one stands in the tank. */
  kind: (lotId: string) => string
  /** The code of a lot, where several stand in the tank. */
  lot: (lotId: string) => string
  tank: (id: string) => string
}

const ordinals = new Intl.PluralRules('en', { type: 'ordinal' })
/** 1st, 2nd, 3rd, 4th. */
const nth = (count: number): string => `${count}${{ one: 'st', two: 'nd', few: 'rd' }[ordinals.select(count) as string] ?? 'th'}`
const fish = (count: string): string => `${count} fish`

/** A reason as a person reads it, with its points: "spots, clear, 2nd day (9)". Figures stand in it marked (`wordFigures`). */
export function reasonWords(reason: LevelReason, names: LevelNames): string {
  // Who a sign was seen on is named; what all lots of a kind share is said of the kind.
  const whose = reason.lot === null ? '' : [names.kind(reason.lot), reason.why === 'sign' ? names.lot(reason.lot) : ''].filter(Boolean).join(' ')
  return `${bareWords(reason, names)}${whose && ` in ${whose}`} (${Number(reason.points.toFixed(1))})`
}

function bareWords({ why, what, said = {} }: LevelReason, names: LevelNames): string {
  const { severity = 1, dayRunning = 1, rememberedH = 0, day = 1, tanks = [] } = said
  const where = tanks.map(names.tank).join(', ')
  switch (why) {
    case 'sign':
      return [what, severity > 1 ? 'clear' : 'slight', ...(dayRunning > 1 ? [`${nth(dayRunning)} day`] : []), ...(rememberedH > 0 ? ['not at the last look'] : [])].join(', ')
    case 'go together':
      return `two signs of the ${what} together`
    case 'appetite':
      return `ate ${what}, ${nth(day)} day`
    case 'in several lots':
      return `${what}: in several lots`
    case 'loss':
      return `${fish(what)} lost lately`
    case 'losses beyond usual':
      return `${fish(what)} lost: more than is usual`
    case 'jumped or eaten':
      return `${fish(what)} jumped or eaten`
    case 'unseen':
      return unseenWords[what] ?? what
    case 'reading':
      return `${readingWords[what as JudgedReading]} ${figureOf(what as JudgedReading, said.value ?? NaN)}`
    case 'drift':
      return `${readingWords[what as JudgedReading]} ${said.isRising ? 'rises' : 'falls'} towards its limit`
    case 'neighbour':
      return `${what} also in ${where} on this water`
    case 'whole water':
      return `something in ${what} tanks of this water`
    case 'hold':
      return 'in its hold'
  }
}

const unseenWords: Readonly<Record<string, string>> = { 'fewer than usual': 'fewer seen than usual', 'look for it': 'one may be missing', 'write off?': 'one is all but surely gone' }
const readingWords: Readonly<Record<JudgedReading, string>> = { tempC: 'temperature', ph: 'pH', salinityPpt: 'salinity', nh3N: 'ammonia, un-ionised as N,', nitriteN: 'nitrite as N', nitrateN: 'nitrate as N', oxygenMgL: 'oxygen' }
const figureOf = (kind: JudgedReading, value: number): string => (kind in readingKinds ? showReading(kind as ReadingKind, value, markedUnits) : `${Number(value.toFixed(3))} mg/L`)

const percent = (share: number): string => (share < 0.01 ? 'under 1 %' : share > 0.99 ? 'over 99 %' : `${Math.round(share * 100)} %`)

/**
 * Says what it means that not all of a kind were seen.
 * @example missingWords({ species: 'Kuhli loach', fish: 5, unseen: 3, shareSeen: 0.25, atLeastOne: 0.12, verdict: 'none', … }) // '2 of 5 Kuhli loach seen; these are hardly ever all seen: 12 % that one is gone.'
 */
export function missingWords({ species, fish: there, unseen, shareSeen, atLeastOne, verdict, writeOff }: Pick<UnseenKind, 'species' | 'fish' | 'shareSeen'> & Pick<Missing, 'unseen' | 'atLeastOne' | 'verdict' | 'writeOff'>, { hiderBelow } = shippedRoundRules.species): string | null {
  if (unseen === null || unseen <= 0) return null
  const seen = `${there - unseen} of ${there} ${species} seen`
  const shy = shareSeen < hiderBelow ? '; these are hardly ever all seen' : ''
  const next: Record<Missing['verdict'], string> = {
    none: '',
    'fewer than usual': ' Fewer than usual: look again tonight.',
    'count when handy': ' Count them when it is handy.',
    'look for it': ' Look for it: behind the filter, in the overflow, on the floor.',
    'write off?': ` ${writeOff === 1 ? 'One is' : `${writeOff} are`} all but surely gone: search, then correct the count.`,
  }
  return `${seen}${shy}: ${percent(atLeastOne)} that one is gone.${next[verdict]}`
}
