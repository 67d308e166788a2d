import { lazy, type ComponentType } from 'react'

const loads: (() => Promise<unknown>)[] = []
const againAfterMs = 2000

/** Marks code that is fetched on its first use as needed while the server is away: it is fetched ahead, once the first screen stands. */
export function ahead<T>(load: () => Promise<T>): () => Promise<T> {
  loads.push(load)
  return load
}

/** Fetches what was marked, one after another; what cannot be had now is asked for again when it is needed. Answers whether all of it is here, with all that it needs itself. */
export async function fetchAhead(): Promise<boolean> {
  const had: boolean[] = []
  for (const load of loads) had.push(await load().then(() => true, () => false))
  return had.every(Boolean)
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
