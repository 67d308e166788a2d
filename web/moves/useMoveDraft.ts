import { useEffect, useState } from 'react'
import { useLocation, useSearchParams } from 'react-router'
import type { MovedFish } from '../../core/moves/moves.schema'
import type { Pool } from '../../core/pools/poolsOf'
import { fishOfAddress } from '../ui/fishOfAddress'
import type { Picks } from './FishPicker'

/** What an address says already of the kinds that live here. */
const picksOf = (pools: readonly Pool[], search: URLSearchParams): Picks =>
  Object.fromEntries(fishOfAddress(search).flatMap((fish) => pools.filter((pool) => pool.speciesId === fish.speciesId && pool.strain === fish.strain).map((pool) => [pool.key, fish])))

/** What was said so far of a move: which fish, where to, with what. Fish and place stand in the address, and survive a reload. */
export function useMoveDraft(pools: readonly Pool[], onChange: () => void) {
  const [search, setSearch] = useSearchParams()
  const [picks, setPicks] = useState<Picks>(() => picksOf(pools, search))
  const [open, setOpen] = useState<string | null>(() => (Object.keys(picks).length > 0 ? null : (search.get('kind') ?? (pools.length === 1 ? (pools[0]?.key ?? null) : null))))
  const [to, setTo] = useState<string | null>(() => search.get('to'))
  const [toolSetId, setToolSetId] = useState<string | null>(null)
  const [waterGoesAlong, setWater] = useState(false)
  const fish = Object.values(picks)
  /** The plan that is carried out. */
  const planId = search.get('plan')
  const said = fish.length === 0 && to === null ? '' : new URLSearchParams({ ...(planId === null ? {} : { plan: planId }), ...(fish.length > 0 ? { fish: JSON.stringify(fish) } : {}), ...(to === null ? {} : { to }) }).toString()
  // Where one came from goes along.
  const { state } = useLocation() as { state: unknown }
  useEffect(() => {
    if (said !== '' && said !== search.toString()) setSearch(said, { replace: true, state })
  }, [said, search, setSearch, state])
  const changed = <T,>(set: (value: T) => void) => (value: T): void => {
    onChange()
    set(value)
  }
  return {
    ...{ picks, fish, open, setOpen, to, toolSetId, waterGoesAlong, planId },
    ...{ setTo: changed(setTo), setToolSetId: changed(setToolSetId), setWater: changed(setWater) },
    pick(key: string, one: MovedFish | null): void {
      onChange()
      setPicks(({ [key]: _, ...others }) => (one && one.quantity > 0 ? { ...others, [key]: one } : others))
    },
  }
}
