const hourMs = 3_600_000

/** Hours since a moment, never below 0: what is entered by a clock that runs ahead happened just now. */
export const hoursAgo = (atMs: number, nowMs: number): number => Math.max(0, (nowMs - atMs) / hourMs)
