// A phone's own clock may be hours off; what is recorded goes by the server's.
const clock = { offsetMs: 0, frozenMs: null as number | null }

/** Takes over the server's clock. */
export function setServerClock(serverNowMs: number, isFrozen: boolean): void {
  clock.offsetMs = serverNowMs - Date.now()
  clock.frozenMs = isFrozen ? serverNowMs : null
}

/** The server's now, UTC epoch milliseconds. */
export const nowMs = (): number => clock.frozenMs ?? Date.now() + clock.offsetMs
