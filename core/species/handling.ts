import type { Hurt } from './speciesWords'

/** What the species book says of handling a kind: who it hurts, what it poisons, what it bears badly. */
export interface Handling {
  hurts: readonly string[]
  poisons: string | null
  sensitivities: readonly string[]
  catchWith: string | null
}

/** One thing to mind with fish in the hand. */
export interface HandlingNote {
  key: string
  /** Whether it is about people, about fish, or about both. Venom and toxin are marked like harm. */
  isDanger: boolean
  title: string
  what: string
  /** First aid for people; local medical advice decides. */
  firstAid: string | null
}

export const noHandling: Handling = { hurts: [], poisons: null, sensitivities: [], catchWith: null }

const medical = 'Local medical advice decides.'
const wound = `Bleeding wound: press, wash with soap and water, cover; deep, or red and swollen later: doctor. ${medical}`

/** Warnings for people, in the order of harm. Source: handbook, 8; house guidance, no medical advice. */
const forPeople: Record<Exclude<Hurt, 'locks in nets'>, Omit<HandlingNote, 'key'>> = {
  venomous: {
    ...{ isDanger: true, title: 'Venomous', what: 'Tub under water, no net, no bare hand, not alone.' },
    firstAid: `Stung: out of the water, rinse, as hot as can be borne (not above 45 °C, tried with the other hand), doctor; short breath or swelling: emergency call. ${medical}`,
  },
  toxin: {
    ...{ isDanger: true, title: 'Strong poison', what: 'Gloves and eye protection; never scrape, scrub, boil or burn.' },
    firstAid: `Fumes: everybody out, doctor, say “palytoxin”. ${medical}`,
  },
  stings: { isDanger: false, title: 'Stings', what: 'Long gloves; nothing of it near the eyes.', firstAid: `Stung: rinse with the water it lives in, do not rub; short breath or swelling: emergency call. ${medical}` },
  bites: { isDanger: false, title: 'Bites', what: 'Fingers out of its reach; feed and move it with a tool.', firstAid: wound },
  pinches: { isDanger: false, title: 'Pinches', what: 'Take it from behind, or in a cup.', firstAid: null },
  sharp: { isDanger: false, title: 'Sharp', what: 'Blades or spines cut: cup or tub, no bare hand.', firstAid: wound },
}

const forFish: Record<string, Omit<HandlingNote, 'key' | 'firstAid' | 'isDanger'>> = {
  'its bag': { title: 'Poisons its own bag', what: 'Foam in its bag is no want of oxygen: fresh water at once, no bag water along. Own bag, own water.' },
  'the tank': { title: 'Poisons its water when frightened', what: 'Own bag, own water, no shared system, no fast lift. Frightened or dying: out, large water change, carbon.' },
  'when it dies': { title: 'Dead, it poisons the water', what: 'Out at once; its death is an alarm for everything on this water.' },
  air: { title: 'Never out of the water', what: 'In air it fills or dries: cup or bag under water, in every step.' },
  'locks in nets': { title: 'Locks in nets', what: 'Spines hook in the mesh: cup, or a bag under water.' },
}

/** Says what to mind with fish of a kind in the hand, what hurts people first. */
export function handlingNotes({ hurts, poisons, sensitivities, catchWith }: Handling): HandlingNote[] {
  const people = (Object.keys(forPeople) as (keyof typeof forPeople)[]).filter((word) => hurts.includes(word)).map((word): HandlingNote => ({ key: word, ...forPeople[word] }))
  const isUnderWater = isKeptUnderWater({ sensitivities })
  const words = [poisons ?? '', isUnderWater ? 'air' : '', hurts.includes('locks in nets') ? 'locks in nets' : '']
  const fish = words.flatMap((word): HandlingNote[] => (Object.hasOwn(forFish, word) ? [{ key: word, isDanger: false, firstAid: null, ...(forFish[word] as { title: string; what: string }) }] : []))
  const isOwnTool = catchWith !== null && catchWith !== 'net' && !isUnderWater && !hurts.includes('locks in nets') && !hurts.includes('venomous')
  return [...people, ...fish, ...(isOwnTool ? [{ key: 'catch', isDanger: false, title: `Catch with: ${catchWith}`, what: '', firstAid: null }] : [])]
}

/** The word that marks bag, tank and lane of a kind that can send people to hospital; null for all others. */
export const dangerOf = ({ hurts }: Pick<Handling, 'hurts'>): 'venomous' | 'toxin' | null => (hurts.includes('venomous') ? 'venomous' : hurts.includes('toxin') ? 'toxin' : null)

/** Answers whether a kind must never come into air. */
export const isKeptUnderWater = ({ sensitivities }: Pick<Handling, 'sensitivities'>): boolean => sensitivities.includes('air')

/** Answers whether the death of a kind is an alarm for the whole water. */
export const poisonsDead = ({ poisons }: Pick<Handling, 'poisons'>): boolean => poisons === 'the tank' || poisons === 'when it dies'

/** Answers whether a kind poisons the water of its bag: none of it goes along, and bags are never pooled. */
export const poisonsBag = ({ poisons }: Pick<Handling, 'poisons'>): boolean => poisons === 'its bag' || poisons === 'the tank'
