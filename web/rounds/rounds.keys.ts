export const roundKey = (id: string | null) => ['rounds', id] as const
