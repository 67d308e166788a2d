import { useMemo } from 'react'
import useSWR, { type SWRConfiguration } from 'swr'
import type { HouseDefaults } from '../../core/acclimation/question'
import { schools as tradeSchools, type School } from '../../core/acclimation/schools'
import { toSchool, type DefaultView, type HouseSchool } from '../../core/acclimation/schools.schema'
import type { BenchView } from '../../core/bench/benchView'
import type { DueItem } from '../../core/due/due'
import { standardLimits, type LimitView, type Limits } from '../../core/limits/houseLimits'
import type { RoomView } from '../../core/room/roomView'
import type { RegisterName, RegisterRow } from '../../core/setup/registers'
import { fetchJson } from './fetchJson'

// Reads that several screens need. Features do not import each other, so what they share stands here, under one key.

/** The racks as they stand. */
export function useRoomView(options?: SWRConfiguration) {
  const { data, error } = useSWR<RoomView, unknown>(['room'], () => fetchJson<RoomView>('/api/room'), options)
  return { room: data, problem: error }
}

/** Work that waits, the most urgent first. */
export function useDue(options?: SWRConfiguration) {
  const { data, error } = useSWR<{ items: DueItem[] }, unknown>(['due'], () => fetchJson<{ items: DueItem[] }>('/api/due'), options)
  return { items: data?.items, problem: error }
}

/** Rows of a list that a lead keeps. */
export function useRegister(register: RegisterName | null) {
  const { data, error } = useSWR<{ rows: RegisterRow[] }, unknown>(register === null ? null : ['setup', register], () => fetchJson<{ rows: RegisterRow[] }>(`/api/setup/${register}`))
  return { rows: data?.rows, problem: error }
}

/** Every house limit as it stands. */
export function useHouseLimits() {
  const { data, error } = useSWR<{ limits: LimitView[] }, unknown>(['house-limits'], () => fetchJson<{ limits: LimitView[] }>('/api/house-limits'))
  return { limits: data?.limits, problem: error }
}

interface HouseSchools {
  schools: HouseSchool[]
  defaults: DefaultView[]
}
/** The house's own schools, retired ones too, and which school it takes first in which situation. */
export function useHouseSchools() {
  const { data, error } = useSWR<HouseSchools, unknown>(['schools'], () => fetchJson<HouseSchools>('/api/schools'))
  return { schools: data?.schools, defaults: data?.defaults, problem: error }
}

/** Names of the species and suppliers in use, for whoever types one. */
export function useNames(register: 'species' | 'suppliers'): string[] {
  return (useRegister(register).rows ?? []).filter((row) => row.retiredAtMs === null).map((row) => String(row.values.name))
}

/** The limits in force by key; the standards until they are read. */
export function useLimits(): Limits {
  const { limits } = useHouseLimits()
  return useMemo(() => (limits ? (Object.fromEntries(limits.map(({ key, value }) => [key, value])) as Limits) : standardLimits), [limits])
}

/** Schools on offer here: those of the trade and the house's own. */
export function useSchools(): School[] {
  const { schools } = useHouseSchools()
  return useMemo(() => [...tradeSchools, ...(schools ?? []).filter(({ retiredAtMs }) => retiredAtMs === null).map(toSchool)], [schools])
}

/** First choices of the house, by situation. */
export function useHouseDefaults(): HouseDefaults {
  const { defaults } = useHouseSchools()
  return useMemo(() => Object.fromEntries((defaults ?? []).flatMap(({ situation, schoolKey }) => (schoolKey === null ? [] : [[situation, schoolKey]]))), [defaults])
}

/** Runs, rechecks and bags that wait. */
export function useBenchView(options?: SWRConfiguration) {
  const { data, error } = useSWR<BenchView, unknown>(['bench'], () => fetchJson<BenchView>('/api/bench'), options)
  return { bench: data, problem: error }
}
