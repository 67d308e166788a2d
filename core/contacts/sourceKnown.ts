/** Words that stand for where a lot came from where nobody knows. */
const unknown: readonly string[] = ['brought in', 'before the books']

/**
 * Where fish were before they came here; null where nobody knows: two lots that were brought in by two people have no source
 * in common.
 */
export const sourceKnown = (origin: string | null): string | null => (origin === null || unknown.includes(origin) ? null : origin)

/** How two sources stand to each other, in words. */
export const sourcesStateWords = (state: string): string => ({ never: 'have never met', contact: 'came into contact, and no more', pairing: 'are in their pairing', failed: 'did not pass their pairing' })[state] ?? state
