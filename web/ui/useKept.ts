import { useState } from 'react'

/**
 * State that survives a reload: kept in this browser under `slot` until it is set to null. Touches on a half-entered
 * bag are work too.
 */
export function useKept<T>(slot: string): [T | null, (value: T | null) => void] {
  const [value, setValue] = useState<T | null>(() => read<T>(slot))
  const keep = (next: T | null): void => {
    setValue(next)
    try {
      if (next === null) localStorage.removeItem(slot)
      else localStorage.setItem(slot, JSON.stringify(next))
    } catch {
      // A browser that keeps nothing still lets one work; the tray says so once something is sent.
    }
  }
  return [value, keep]
}

function read<T>(slot: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(slot) ?? 'null') as T | null
  } catch {
    return null
  }
}
