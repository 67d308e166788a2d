// A phone's own clock may be hours off; what is recorded goes by the server's.
const slot = 'crate.clock'
const clock = { offsetMs: learntOffset(), frozenMs: null as number | null }

/** Takes over the server's clock, and keeps how far this device's own is off for when it is opened without the server. */
export function setServerClock(serverNowMs: number, isFrozen: boolean): void {
  clock.offsetMs = serverNowMs - Date.now()
  clock.frozenMs = isFrozen ? serverNowMs : null
  try {
    localStorage.setItem(slot, String(clock.offsetMs))
  } catch {
    // It is learnt again with the next answer.
  }
}

/** Takes over what the server says of its clock in passing; a clock that stands still goes on doing so. */
export function correctServerClock(serverNowMs: number): void {
  if (clock.frozenMs === null) setServerClock(serverNowMs, false)
}

/** The server's now, UTC epoch milliseconds. */
export const nowMs = (): number => clock.frozenMs ?? Date.now() + clock.offsetMs

function learntOffset(): number {
  try {
    const offsetMs = Number(localStorage.getItem(slot))
    return Number.isFinite(offsetMs) ? offsetMs : 0
  } catch {
    return 0
  }
}
