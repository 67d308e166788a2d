import { Problem } from '../http/problem'
import type { CratesStore } from './crates.store'

/** What every write into a crate asks first: whether it is there, and open. */
export function crateGuards(store: Pick<CratesStore, 'isCrate' | 'isClosed'>) {
  function requireCrate(id: string | undefined): string {
    if (!id || !store.isCrate(id)) throw new Problem('not-found', 'There is no such crate')
    return id
  }

  /** Nothing is written into a crate that was closed; it is opened again first. */
  function requireOpen(id: string | undefined): string {
    const crateId = requireCrate(id)
    if (store.isClosed(crateId)) throw new Problem('conflict', 'This crate is closed; open it again to change what is in it')
    return crateId
  }

  return { requireCrate, requireOpen }
}
