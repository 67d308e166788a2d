export const roomKey = ['room'] as const
export const tankKey = (code: string, before: string | null) => ['room', code, before] as const
