/** Whole days from one calendar day to a later one; clock changes do not matter. */
export const daysBetween = (fromOn: string, toOn: string): number => Math.round((Date.parse(toOn) - Date.parse(fromOn)) / 86_400_000)
