import { holdsApi } from '../../core/holds/holds.api'
import type { PolicyView } from '../../core/holds/holdsView'
import type { HoldPolicy } from '../../core/holds/policy'
import type { PolicyRule } from '../../core/holds/policyFor'
import { auditApi } from '../../core/audit/audit.api'
import type { Situation } from '../../core/acclimation/question'
import { schoolsApi } from '../../core/acclimation/schools.api'
import type { HouseSchool, KeepSchool } from '../../core/acclimation/schools.schema'
import { keepingApi } from '../../core/keeping/keeping.api'
import type { ChangeLimit, LimitView } from '../../core/limits/houseLimits'
import { limitsApi } from '../../core/limits/limits.api'
import { movesApi } from '../../core/moves/moves.api'
import { roundsApi } from '../../core/rounds/rounds.api'
import { roomApi } from '../../core/room/room.api'
import type { AddSystem } from '../../core/room/room.schema'
import type { PreviewRow } from '../../core/setup/registerCsv'
import { registers, type RegisterName, type RegisterValues } from '../../core/setup/registers'
import { bookApi, registerApi } from '../../core/setup/setup.api'
import type { BookChange } from '../../core/species/bookChanges'
import { fetchJson } from '../api/fetchJson'
import { useSession } from '../api/session'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

const named = (register: RegisterName, values: RegisterValues): string => `${registers[register].one} ${String(values[registers[register].key] ?? '')}`
const form = { refusals: 'form' } as const

/** The writes of a list that a lead keeps. */
export function useRegisterWrites(register: RegisterName) {
  const write = useWrite()
  const { recorder } = useSession()
  const api = registerApi(register)
  return {
    addRow: (values: RegisterValues) => write(api.add, { label: named(register, values), body: { values } }, form),
    editRow: (id: string, version: number, values: RegisterValues) => write(api.edit, { params: { id }, label: named(register, values), body: { version, values } }, form),
    retireRow: (id: string, version: number, isRetired: boolean, label: string) => write(api.retire, { params: { id }, label, body: { version, isRetired } }, form),
    importRows: (rows: PreviewRow[]) => write(api.import, { label: `${rows.length} rows of ${registers[register].title.toLowerCase()}`, body: { rows: rows.map(({ id, version, values }) => ({ id, version, values })) } }, form),
    /** What taking a file in would do; nothing is kept. */
    previewFile: (file: Blob) => fetchJson<{ rows: PreviewRow[]; notices: string[] }>(api.preview.path, { method: 'POST', body: file, headers: { 'X-Recording': recorder.id } }),
  }
}

/** The rules of moves: as shipped, and what the house changed. */
export function useMoveRules() {
  const write = useWrite()
  const { data, problem } = useRead(movesApi.readMoveRules, {})
  return { rules: data, problem, change: (rules: string, version: number) => write(movesApi.changeMoveRules, { label: 'rules of moves', body: { rules, version } }, form) }
}

/** The lists behind the round: as shipped, and what the house has otherwise. */
export function useRoundLists() {
  const write = useWrite()
  const { data, problem } = useRead(roundsApi.readRoundLists, {})
  return { lists: data, problem, change: (rules: string, version: number) => write(roundsApi.changeRoundLists, { label: 'lists of the round', body: { rules, version } }, form) }
}

/** Adds a system with its rack of tanks. */
export function useAddSystem() {
  const write = useWrite()
  return (body: AddSystem) => write(roomApi.addSystem, { label: `system ${body.name}`, body }, form)
}

/** What the shipped book would change in the species kept here. */
export function useBookChanges(): { rows: BookChange[] | undefined; problem: unknown } {
  const { data, problem } = useRead(bookApi.readBookChanges, {})
  return { rows: data?.rows, problem }
}

/** Takes entries of the shipped species book into the room's own list. */
export function useAdoptSpecies() {
  const write = useWrite()
  return (names: string[]) => write(bookApi.adoptSpecies, { label: `${names.length} species of the book`, body: { names } }, form)
}

/** The shipped species book, and what of it is kept here. */
export const useBook = () => useRead(bookApi.readBook, {})

/** Changes a house limit. */
export function useChangeLimit() {
  const write = useWrite()
  return (limit: LimitView, label: string, body: ChangeLimit) => write(limitsApi.changeLimit, { params: { key: limit.key }, label: `limit ${label}`, body }, form)
}

/** The writes of the house's own schools. */
export function useSchoolWrites() {
  const write = useWrite()
  return {
    chooseDefault: (situation: Situation, schoolKey: string | null, version: number) => write(schoolsApi.chooseDefault, { params: { situation }, label: 'a first choice', body: { schoolKey, version } }, form),
    addSchool: (body: KeepSchool) => write(schoolsApi.addSchool, { label: `school ${body.name}`, body }, form),
    editSchool: (schoolId: string, version: number, body: KeepSchool) => write(schoolsApi.editSchool, { params: { schoolId }, label: `school ${body.name}`, body: { ...body, version } }, form),
    retireSchool: ({ id, name, version, retiredAtMs }: HouseSchool) => write(schoolsApi.retireSchool, { params: { schoolId: id }, label: `school ${name}`, body: { isRetired: retiredAtMs === null, version } }, form),
  }
}

/** The writes of policies of holds, and of the rules that choose them. */
export function useHoldPolicyWrites() {
  const write = useWrite()
  return {
    save: (policyId: string, policy: HoldPolicy, version: number) => write(holdsApi.saveHoldPolicy, { params: { policyId }, label: `policy ${policy.name}`, body: { policy: JSON.stringify(policy), version } }, form),
    retire: ({ policy, version, isRetired }: PolicyView) => write(holdsApi.retireHoldPolicy, { params: { policyId: policy.id }, label: `policy ${policy.name}`, body: { isRetired: isRetired ? 0 : 1, version } }, form),
    saveRules: (rules: readonly PolicyRule[], version: number) => write(holdsApi.saveHoldRules, { label: 'rules of holds', body: { rules: [...rules], version } }, form),
  }
}

/** A page of what was done here, newest first. */
export const useAudit = (staffId: string, before: string | null) => useRead(auditApi.readAudit, { query: { staffId: staffId || null, before } })

/** What there is to keep: rows, pictures, copies. */
export const useKeeping = () => useRead(keepingApi.readKeeping, {})
