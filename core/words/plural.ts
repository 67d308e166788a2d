/** Writes a number with its word: `1 bag`, `9 bags`. */
export const plural = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`
