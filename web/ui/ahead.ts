const loads: (() => Promise<unknown>)[] = []

/** Marks code that is fetched on its first use as needed while the server is away: it is fetched ahead, once the first screen stands. */
export function ahead<T>(load: () => Promise<T>): () => Promise<T> {
  loads.push(load)
  return load
}

/** Fetches what was marked, one after another; what cannot be had now is asked for again when it is needed. */
export async function fetchAhead(): Promise<void> {
  for (const load of loads) await load().catch(() => null)
}
