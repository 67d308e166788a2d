import type { CatchCard, CatchTip } from './catchCard'

/** With what to catch, in a few words. */
export function gearWords({ tool, mesh, netCm, net }: Pick<CatchCard, 'tool' | 'mesh' | 'netCm' | 'net'>): string {
  if (tool === 'cup') return 'Cup, under water'
  if (tool === 'bag') return 'Bag, led under water'
  const wanted = `net with ${mesh ?? ''} mesh${mesh === 'fine' ? '' : ' or finer'}, ${Math.round(netCm ?? 0)} cm or wider`
  return net === null ? `A ${wanted}; none of the house fits` : `${net}: a ${wanted}`
}

const percent = (share: number): string => (share > 0.99 ? 'nearly sure' : `${Math.round(share * 100)} %`)

/** What is to be expected today, as one sentence: guidance, no promise. */
export function catchWords({ verdict, lifts, done, caught, liftsLeft, days }: CatchCard, want: number): string {
  const all = want === 1 ? 'it' : `all ${want}`
  switch (verdict) {
    case 'not there':
      return 'So many do not stand there.'
    case 'go':
      return `About ${Math.max(1, Math.round(lifts))} ${Math.round(lifts) > 1 ? 'lifts' : 'lift'}; ${percent(done)} that ${all} ${want === 1 ? 'is' : 'are'} caught today.`
    case 'some today':
      return `About ${caught.toFixed(1)} of ${want} today in ${liftsLeft} ${liftsLeft === 1 ? 'lift' : 'lifts'}; ${days === null ? 'the rest is uncertain' : `${all} likely by day ${days}`}.`
    case 'another day':
      return `Not today: ${liftsLeft === 0 ? 'the tank has learned enough' : 'the tank has learned'}. A fresh day catches more.`
    case 'prepare':
      return 'Hardly as it stands, on any day: less decor, lower water or a divider first.'
  }
}

const tips: Record<CatchTip, string> = {
  'trap-corner': 'Net still, as a pocket in a corner; drive them in with the other hand.',
  'close-gap': 'Rounded corner: close the gap behind the net.',
  'hand-above': 'Tall tank: one hand above, they go over.',
  'rock-wall': 'Decor out, or net against the rock.',
  'eye-level': 'Come from below, eye level; wait.',
  'first-stay': 'Leave the first in it: they draw the rest.',
  'count-in-net': 'Count in the net, under water; let the surplus out before lifting.',
  holes: 'Look for holes: they are smaller than they seem.',
  cover: 'Hand over the net: they jump.',
  'under-water': 'Never out of the water.',
  spines: 'Gloves: spines, and some carry venom.',
  'two-people': 'Two people.',
  prepare: 'Less decor, lower water, a divider.',
  'another-day': 'Another day.',
}

/** What to mind, one short sentence each. */
export const tipWords = (card: Pick<CatchCard, 'tips'>): string[] => card.tips.map((tip) => tips[tip])
