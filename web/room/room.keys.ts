export const tankKey = (code: string, entries: number) => ['room', code, entries] as const
