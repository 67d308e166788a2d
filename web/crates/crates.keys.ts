export const crateKey = (id: string) => ['crates', id] as const
