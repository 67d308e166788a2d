import { useMemo } from 'react'
import type { HouseDefaults } from '../../core/acclimation/question'
import { schools as tradeSchools, type School } from '../../core/acclimation/schools'
import { schoolsApi } from '../../core/acclimation/schools.api'
import { toSchool } from '../../core/acclimation/schools.schema'
import { benchApi } from '../../core/bench/bench.api'
import { contactsApi } from '../../core/contacts/contacts.api'
import { standardLimits, type Limits } from '../../core/limits/houseLimits'
import { holdsApi } from '../../core/holds/holds.api'
import { limitsApi } from '../../core/limits/limits.api'
import { introductionsApi } from '../../core/moves/introductions.api'
import { movesApi } from '../../core/moves/moves.api'
import { roomApi } from '../../core/room/room.api'
import type { RegisterName } from '../../core/setup/registers'
import { outcomesApi } from '../../core/outcomes/outcomes.api'
import { registerApi } from '../../core/setup/setup.api'
import { useRead } from './useRead'

// Reads that several screens need. Features do not import each other, so what they share stands here.

/** The racks as they stand. */
export function useRoomView() {
  const { data, problem } = useRead(roomApi.readRoom, {}, { everyMs: 15_000 })
  return { room: data, problem }
}

/** A tank by its code, with who lives in it. */
export function useTankOf(code: string | null) {
  const { data, problem } = useRead(roomApi.readTank, code === null ? null : { params: { code } })
  return { tank: data, problem }
}

/** Buckets and boxes as they stand. */
export function useVessels() {
  const { data, problem } = useRead(movesApi.readVessels, {}, { everyMs: 30_000 })
  return { vessels: data?.vessels, problem }
}

/** Newcomers on their way into tanks; none while they are being read. */
export const useIntroductions = () => (useRead(introductionsApi.readIntroductions, {}, { everyMs: 30_000 }).data?.introductions ?? []).filter(({ endedAtMs }) => endedAtMs === null)

/** Tool sets as they are now. */
export function useToolSets() {
  const { data, problem } = useRead(contactsApi.readTools, {}, { everyMs: 30_000 })
  return { tools: data?.tools, problem }
}

/** Rows of a list that a lead keeps. */
export function useRegister(register: RegisterName | null) {
  const { data, problem } = useRead(registerApi(register ?? 'species').list, register === null ? null : {})
  return { rows: data?.rows, problem }
}

/** Policies of holds, and which fish begin which. */
export function useHoldPolicies() {
  const { data, problem } = useRead(holdsApi.readHoldPolicies, {})
  return { policies: data, problem }
}

/** Every house limit as it stands. */
export function useHouseLimits() {
  const { data, problem } = useRead(limitsApi.readLimits, {})
  return { limits: data?.limits, problem }
}

/** The house's own schools, retired ones too, and which school it takes first in which situation. */
export function useHouseSchools() {
  const { data, problem } = useRead(schoolsApi.readSchools, {})
  return { schools: data?.schools, defaults: data?.defaults, problem }
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

/** The bench as it stands on this device: runs, rechecks and bags that wait. */
export function useBench() {
  const { data, problem } = useRead(benchApi.readBench, {}, { everyMs: 5000 })
  return { bench: data, problem }
}

/** Airlines with their drops. */
export const useAirlines = () => useRead(benchApi.readAirlines, {}).data?.airlines ?? []

/** Alarms on losses: those that ring, and those that are watched. */
export const useAlarms = () => useRead(outcomesApi.readAlarms, {}, { everyMs: 600_000 })
/** The same beside other things: a minute late where others write, so that no loss makes a screen read one thing more. */
export const useAlarmsBeside = () => useRead(outcomesApi.readAlarms, {}, { everyMs: 60_000, isDraft: true })

/** What losses of a tank look like; null waits. */
export const useLossHints = (code: string | null) => useRead(outcomesApi.readHints, code === null ? null : { params: { code } }).data
