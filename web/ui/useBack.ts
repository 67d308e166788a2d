import { useLocation } from 'react-router'

/** Where to go once this page has done its work: where one came from when that was said, or the page's own place. */
export function useBack(own: string): string {
  const state = useLocation().state as { back?: unknown } | null
  return typeof state?.back === 'string' ? state.back : own
}
