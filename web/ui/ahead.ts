import { lazy, type ComponentType } from 'react'

const loads: (() => Promise<unknown>)[] = []
const againAfterMs = 2000

/** Marks code that is fetched on its first use as needed while the server is away: it is fetched ahead, once the first screen stands. */
export function ahead<T>(load: () => Promise<T>): () => Promise<T> {
  loads.push(load)
  return load
}

/** Fetches what was marked, one after another; what cannot be had now is asked for again when it is needed. */
export async function fetchAhead(): Promise<void> {
  for (const load of loads) await load().catch(() => null)
}

/** A part of a screen whose code is fetched ahead. Used sooner than it can be had, it is asked for until it is there, and the screen around it goes on. */
export function lazyAhead<P extends object>(load: () => Promise<{ default: ComponentType<P> }>) {
  const marked = ahead(load)
  return lazy(async () => {
    for (;;) {
      const part = await marked().catch(() => null)
      if (part) return part
      await new Promise((resolve) => setTimeout(resolve, againAfterMs))
    }
  })
}
