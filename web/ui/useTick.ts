import { useEffect, useState } from 'react'

/** Draws again every so often, because a clock is on screen. */
export function useTick(everyMs: number): void {
  const [, setTicks] = useState(0)
  useEffect(() => {
    const timer = setInterval(() => setTicks((ticks) => ticks + 1), everyMs)
    return () => clearInterval(timer)
  }, [everyMs])
}
