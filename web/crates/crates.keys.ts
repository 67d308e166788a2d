export const cratesKey = ['crates'] as const
export const crateKey = (id: string) => ['crates', id] as const
