/** A sentence that goes on within another: its first letter small, codes and names further on as they are. */
export const lowerFirst = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1)
