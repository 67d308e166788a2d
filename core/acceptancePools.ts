import { takeAlongCard, type Leaving } from './crates/takeAlongCard'
import { lossCauses, type LossCause } from './ledger/movement'
import { countTo, takeOut, type About, type Attributed, type NotAttributed, type PooledLot } from './pools/attribute'
import { foundAgain, type WrittenOff } from './pools/foundAgain'
import { weightOfCause, weightOfReason, hazardCurve, type BandSeen } from './pools/hazard'
import { millionthsPerFish } from './pools/shareOut'

interface PoolFields {
  lots: readonly { lot: string; booked: number; expected?: number; days: number }[]
  lot?: string
  among?: readonly string[]
}
const pool = ({ lots }: PoolFields): PooledLot[] => lots.map(({ expected, ...lot }) => ({ ...lot, expected: Math.round((expected ?? lot.booked) * millionthsPerFish) }))
const about = ({ lot, among = [] }: PoolFields): About => ({ among: lot === undefined ? among : [lot] })
const isCause = (word: string): word is LossCause => (lossCauses as readonly string[]).includes(word)

function answer(attributed: Attributed | NotAttributed) {
  if (!attributed.ok) return { problem: attributed.problem, available: attributed.available }
  const { how, movements, swaps, shares, after } = attributed
  const fish = (millionths: number): number => millionths / millionthsPerFish
  return { how, movements, swaps, shares: shares.map(({ lot, millionths }) => ({ lot, fish: fish(millionths) })), after: after.map(({ lot, booked, expected }) => ({ lot, booked, expected: fish(expected) })) }
}

/** Lots that stand together, under the names of the specification (rounds, 9 and moves, 10). */
export const poolAcceptance = {
  hazardCurve: ({ bands }: { bands: readonly BandSeen[] }) => ({ relative: hazardCurve(bands) }),
  attributeLoss: ({ quantity, cause = 'found dead', ...fields }: PoolFields & { quantity: number; cause?: string }) => answer(takeOut(pool(fields), quantity, { ...about(fields), weightOf: weightOfCause(isCause(cause) ? cause : 'unknown') })),
  attributeMove: ({ quantity, ...fields }: PoolFields & { quantity: number }) => answer(takeOut(pool(fields), quantity, about(fields))),
  attributeCount: ({ counted, reason = 'unknown', ...fields }: PoolFields & { counted: number; reason?: string }) => answer(countTo(pool(fields), counted, { ...about(fields), weightOf: weightOfReason(reason) })),
  takeAlongCard: ({ rules, ...leaving }: Leaving & { rules?: { qrBytes?: number } }) => {
    const { json, text, codes } = takeAlongCard(leaving, rules?.qrBytes)
    return { json, text, codes: codes.map(({ text: _, ...code }) => code) }
  },
  foundAgain: ({ losses, lot, n, place }: { losses: readonly WrittenOff[]; lot: string; n: number; place: string }) => foundAgain(losses, lot, n, place),
}
