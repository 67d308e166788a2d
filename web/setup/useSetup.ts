import useSWR from 'swr'
import type { RoomSettings } from '../../core/staff/staff.schema'
import type { AddSystem } from '../../core/room/room.schema'
import type { PreviewRow } from '../../core/setup/registerCsv'
import { registers, type RegisterName, type RegisterValues } from '../../core/setup/registers'
import type { BookChange } from '../../core/species/bookChanges'
import { fetchJson } from '../api/fetchJson'
import { useSession } from '../api/session'
import { useWrite } from '../api/useOutbox'

const named = (register: RegisterName, values: RegisterValues): string => `${registers[register].one} ${String(values[registers[register].key] ?? '')}`

/** The writes of a list that a lead keeps. */
export function useRegisterWrites(register: RegisterName) {
  const write = useWrite()
  const { recorder } = useSession()
  const path = `/api/setup/${register}`
  return {
    addRow: (values: RegisterValues) => write({ command: 'addRow', path, label: named(register, values), body: { values } }, { refusals: 'form' }) as Promise<{ id: string }>,
    editRow: (id: string, version: number, values: RegisterValues) => write({ command: 'editRow', method: 'PUT', path: `${path}/${id}`, label: named(register, values), body: { version, values } }, { refusals: 'form' }),
    retireRow: (id: string, version: number, isRetired: boolean, label: string) => write({ command: 'retireRow', path: `${path}/${id}/retirement`, label, body: { version, isRetired } }, { refusals: 'form' }),
    importRows: (rows: PreviewRow[]) =>
      write({ command: 'importRows', path: `${path}/import`, label: `${rows.length} rows of ${registers[register].title.toLowerCase()}`, body: { rows: rows.map(({ id, version, values }) => ({ id, version, values })) } }, { refusals: 'form' }),
    /** What taking a file in would do; nothing is kept. */
    previewFile: (file: Blob) => fetchJson<{ rows: PreviewRow[]; notices: string[] }>(`${path}/csv/preview`, { method: 'POST', body: file, headers: { 'X-Recording': recorder.id } }),
  }
}

/** Adds a system with its rack of tanks. */
export function useAddSystem() {
  const write = useWrite()
  return (body: AddSystem) => write({ command: 'addSystem', path: '/api/systems', label: `system ${body.name}`, body }, { refusals: 'form' })
}

/** What the shipped book would change in the species kept here. */
export function useBookChanges(): { rows: BookChange[] | undefined; problem: unknown } {
  const { data, error } = useSWR<{ rows: BookChange[] }, unknown>(['book-changes'], () => fetchJson<{ rows: BookChange[] }>('/api/species-book/changes'))
  return { rows: data?.rows, problem: error }
}

/** Takes entries of the shipped species book into the room's own list. */
export function useAdoptSpecies() {
  const write = useWrite()
  return (names: string[]) => write({ command: 'adoptSpecies', path: '/api/setup/species/adoptions', label: `${names.length} species of the book`, body: { names } }, { refusals: 'form' })
}

/** Changes the room's name, time zone and units. */
export function useChangeRoom() {
  const write = useWrite()
  return (body: RoomSettings) => write({ command: 'changeRoom', method: 'PUT', path: '/api/room/settings', label: 'name and units of the room', body }, { refusals: 'form' })
}
