import shipped from './shippedHolds.json'
import type { HoldPolicy } from './policy'

/** The policies that a house begins with: lengths are the trade's usual ones, all of them house guidance to be edited. */
export const shippedPolicies = shipped.policies as readonly HoldPolicy[]
/** Words of signs that ask somebody in all of them. */
export const askingWords: readonly string[] = shipped.asks
/** What a pairing is reckoned with: house guidance, nobody has measured it for the germs of a shop. */
export const shippedPairing = shipped.pairing

/** Policies by id; a house's own come before the shipped ones of the same id. */
export const policiesById = (own: readonly HoldPolicy[] = []): ReadonlyMap<string, HoldPolicy> => new Map([...shippedPolicies, ...own].map((policy) => [policy.id, policy]))
