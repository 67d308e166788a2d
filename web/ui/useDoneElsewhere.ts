import { useEffect, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { Done } from './JustDone'

/** What was recorded on the screen from which one came back, such as a move. */
export function useDoneElsewhere(): Done[] {
  const [location, navigate] = [useLocation(), useNavigate()]
  const { done } = (location.state ?? {}) as { done?: Done }
  const [first] = useState(done ? [done] : [])
  // Told once: a reload must not say it again of what was taken back meanwhile.
  useEffect(() => {
    if (done) void navigate({ search: location.search }, { replace: true, state: null })
  }, [done, location.search, navigate])
  return first
}
