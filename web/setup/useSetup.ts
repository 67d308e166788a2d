import type { RoomSettings } from '../../core/staff/staff.schema'
import { staffApi } from '../../core/staff/staff.api'
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

/** Changes the room's name, time zone and units. */
export function useChangeRoom() {
  const write = useWrite()
  return (body: RoomSettings) => write(staffApi.changeRoom, { label: 'name and units of the room', body }, form)
}
