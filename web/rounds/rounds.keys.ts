export const roundKey = (number: number | null) => ['rounds', number] as const
