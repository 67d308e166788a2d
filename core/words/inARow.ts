/** Words in a row of a sentence: `a`, `a and b`, `a, b and c`; empty without any. */
export const inARow = (words: readonly string[]): string => (words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`)
