/** Words as a sentence begins them. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)
