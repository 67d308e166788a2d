/** What an address asks with one thing said otherwise, or no longer where it is null; whatever else it says stays. */
export function withParam(before: URLSearchParams, name: string, value: string | null): URLSearchParams {
  const next = new URLSearchParams(before)
  if (value === null) next.delete(name)
  else next.set(name, value)
  return next
}
