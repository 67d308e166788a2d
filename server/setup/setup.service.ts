import { setImmediate as breath } from 'node:timers/promises'
import Papa from 'papaparse'
import { createRegisterReader, emptyValues, formulaLike, rowKey, writeRegister, type References } from '../../core/setup/registerCsv'
import { registers, type RegisterName, type RegisterRow, type RegisterValues } from '../../core/setup/registers'
import type { EditRow, ImportRows, RetireRow } from '../../core/setup/registerSchema'
import type { Water } from '../../core/room/room.schema'
import { bookChanges, entryOf, type BookChange } from '../../core/species/bookChanges'
import { speciesBook } from '../../core/species/speciesBook'
import { nameKey } from '../../core/words/nameKey'
import { changesBetween, type AuditStore } from '../audit/audit.store'
import { listProblem, readCsv } from '../crates/readCsv'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { SetupStore } from './setup.store'

/** After so many rows of a file, whoever else waits is served first. */
const rowsAtOnce = 50

interface Collaborators {
  store: SetupStore
  audit: AuditStore
  insertPlace: (id: string, kind: 'tank' | 'vessel') => void
}

/** The lists that a lead keeps: add, edit, retire, bring back, take in and give out as files. */
export function createSetupService({ store, audit, insertPlace }: Collaborators) {
  const label = (register: RegisterName, values: RegisterValues): string => `${registers[register].one} ${String(values[registers[register].key] ?? '')}`

  function requireRow(register: RegisterName, id: string | undefined): RegisterRow {
    const row = id === undefined ? null : store.row(register, id)
    if (!row) throw new Problem('not-found', `There is no such ${registers[register].one}`)
    return row
  }

  function requireVersion(register: RegisterName, row: RegisterRow, version: number): void {
    if (row.version !== version) throw new Problem('stale', `Somebody else changed this ${registers[register].one} meanwhile`, { current: row })
  }

  /** Rows of a register by what they are matched by: read once, however many rows a file brings. */
  function keptRows(register: RegisterName) {
    const byKey = new Map<string, Map<string, RegisterRow>>()
    const keyById = new Map<string, string>()
    const keep = (row: RegisterRow): void => {
      byKey.get(keyById.get(row.id) ?? '')?.delete(row.id)
      const key = rowKey(register, row.values)
      keyById.set(row.id, key)
      byKey.set(key, (byKey.get(key) ?? new Map<string, RegisterRow>()).set(row.id, row))
    }
    store.rows(register).forEach(keep)
    return { keep, twinOf: (values: RegisterValues, id: string | null): RegisterRow | undefined => [...(byKey.get(rowKey(register, values))?.values() ?? [])].find((row) => row.id !== id) }
  }

  /** What no schema can know: names already taken, rows that are not there, spots already filled. */
  function checkFit(register: RegisterName, values: RegisterValues, id: string | null, prefix: string, here: KeptRows): void {
    const { key, fields, one } = registers[register]
    const twin = here.twinOf(values, id)
    if (twin) throw fieldProblem(prefix + key, `${String(values[key])} is in the list already${twin.retiredAtMs === null ? '' : ', retired; bring it back instead'}`)
    for (const field of fields) {
      const value = values[field.name]
      if (field.kind !== 'reference' || value === null) continue
      const named = store.row(field.register, String(value))
      if (!named) throw fieldProblem(prefix + field.name, `There is no such ${registers[field.register].one}`)
      if (named.retiredAtMs !== null && values[field.name] !== (id === null ? null : store.row(register, id)?.values[field.name])) throw fieldProblem(prefix + field.name, `This ${registers[field.register].one} is retired`)
    }
    if (register === 'tanks') checkSpot(values, id, prefix)
    if (values.netVolumeL && values.grossVolumeL && values.netVolumeL > values.grossVolumeL) throw fieldProblem(`${prefix}netVolumeL`, `Net volume of a ${one} cannot be more than its gross volume`)
  }

  function checkSpot(values: RegisterValues, id: string | null, prefix: string): void {
    const there = store.tankAtSpot(String(values.rack), Number(values.shelf), Number(values.position))
    if (there && there.id !== id) throw fieldProblem(`${prefix}position`, `${there.code} stands there already`)
  }

  function insert(context: CommandContext, register: RegisterName, values: RegisterValues, prefix: string, here = keptRows(register)): string {
    const trimmed = tidy(values)
    checkFit(register, trimmed, null, prefix, here)
    const id = newId()
    if (register === 'tanks' || register === 'vessels') insertPlace(id, register === 'tanks' ? 'tank' : 'vessel')
    store.insert(register, { id, version: 1, retiredAtMs: null, ...derived(register, trimmed), ...(register === 'species' ? { createdAtMs: context.nowMs } : {}), ...trimmed })
    note(context, 'added', label(register, trimmed), changesBetween(emptyValues(registers[register].fields), trimmed))
    here.keep({ id, version: 1, retiredAtMs: null, values: trimmed })
    return id
  }

  function update(context: CommandContext, register: RegisterName, row: RegisterRow, values: RegisterValues, prefix: string, here = keptRows(register)): number {
    const trimmed = tidy(values)
    checkFit(register, trimmed, row.id, prefix, here)
    store.update(register, row.id, { ...trimmed, ...derived(register, trimmed), version: row.version + 1 })
    note(context, 'edited', label(register, trimmed), changesBetween(row.values, trimmed))
    here.keep({ ...row, version: row.version + 1, values: trimmed })
    return row.version + 1
  }

  const note = ({ actor, key, nowMs }: CommandContext, action: string, subject: string, changes: Record<string, [unknown, unknown]> | null): void =>
    audit.insert({ atMs: nowMs, staffId: actor.id, action, subject, changes, commandKey: key })

  function checkRetirement(register: RegisterName, row: RegisterRow): void {
    if (register === 'tanks' || register === 'vessels') {
      const fish = store.fishAt(row.id)
      if (fish > 0) throw new Problem('conflict', `${String(row.values[registers[register].key])} holds ${fish} fish; move them first`)
    }
    if (register === 'tanks') {
      if (store.linesPlannedFor(row.id) > 0) throw new Problem('conflict', `A crate is planned into ${String(row.values.code)}; choose another tank for it first`)
    }
    const tanks = register === 'systems' ? store.tanksInUse(row.id) : 0
    if (tanks > 0) throw new Problem('conflict', `${tanks} of its tanks are still in use; retire them first`)
  }

  function references(register: RegisterName): References {
    const named = registers[register].fields.flatMap((field) => (field.kind === 'reference' ? [field.register] : []))
    return Object.fromEntries(named.map((each) => [each, new Map(store.rows(each).filter((row) => row.retiredAtMs === null).map((row) => [rowKey(each, row.values), row.id]))]))
  }

  /** Names of the entries that the room keeps already. */
  const hereInBook = (): Set<string> => {
    const rows = store.rows('species')
    const names = new Set(rows.map(({ values }) => nameKey(String(values.name))))
    return new Set([...rows.flatMap((row) => entryOf(row)?.name ?? []), ...speciesBook.filter(({ name }) => names.has(nameKey(name))).map(({ name }) => name)])
  }

  return {
    /** Every row of a register, retired ones too. */
    list: (register: RegisterName): { rows: RegisterRow[] } => ({ rows: store.rows(register) }),

    addRow: (register: RegisterName) => (context: CommandContext, { values }: { values: RegisterValues }) => ({ id: insert(context, register, values, 'values.'), version: 1 }),

    editRow: (register: RegisterName) => (context: CommandContext, { version, values }: EditRow) => {
      const row = requireRow(register, context.params.id)
      requireVersion(register, row, version)
      return { version: update(context, register, row, values, 'values.') }
    },

    retireRow: (register: RegisterName) => (context: CommandContext, { version, isRetired }: RetireRow) => {
      const row = requireRow(register, context.params.id)
      requireVersion(register, row, version)
      if (isRetired) checkRetirement(register, row)
      else if (register === 'tanks') checkSpot(row.values, row.id, '')
      store.update(register, row.id, { version: row.version + 1, retiredAtMs: isRetired ? context.nowMs : null })
      note(context, isRetired ? 'retired' : 'brought back', label(register, row.values), null)
      return { version: row.version + 1 }
    },

    /** Takes in what a file adds and changes; one row that no longer fits and nothing is. */
    importRows: (register: RegisterName) => (context: CommandContext, { rows }: ImportRows) => {
      const changed: string[] = []
      const here = keptRows(register)
      rows.forEach(({ id, version, values }, index) => {
        const prefix = `rows[${index}].values.`
        if (id === null) return void changed.push(insert(context, register, values, prefix, here))
        const row = requireRow(register, id)
        requireVersion(register, row, version ?? 0)
        update(context, register, row, values, prefix, here)
        changed.push(id)
      })
      return { rows: changed.length }
    },

    /** Reads a file against what is here and says what taking it in would do. Nothing is kept. */
    async previewCsv(register: RegisterName, bytes: Uint8Array) {
      const reader = createRegisterReader(register, readCsv(bytes), store.rows(register), references(register))
      for (let index = 1; !reader.isDone(index); index += 1) {
        reader.readRow(index)
        if (index % rowsAtOnce === 0) await breath()
      }
      const read = reader.answer()
      if (!read.ok) throw listProblem(read.errors)
      return { rows: read.rows, notices: read.notices }
    },

    /** Gives a register out as a file (RFC 4180); cells that a spreadsheet would take for a formula are neutralised. */
    writeCsv(register: RegisterName): string {
      const keyOf = (other: RegisterName, id: string): string => String(store.row(other, id)?.values[registers[other].key] ?? '')
      return Papa.unparse(writeRegister(register, store.rows(register), keyOf), { newline: '\r\n', escapeFormulae: formulaLike })
    },

    /** The shipped book by name, and which of it is kept here already, under whatever name it had. */
    book(): { species: { name: string; scientificName: string; water: Water; isHere: boolean }[] } {
      const here = hereInBook()
      return { species: speciesBook.map(({ name, scientificName, water }) => ({ name, scientificName, water, isHere: here.has(name) })) }
    },

    /** What the shipped book would change in the species of this room. Nothing is kept. */
    bookChanges: (): { rows: BookChange[] } => ({ rows: bookChanges(store.rows('species')) }),

    /** Takes entries of the shipped species book into the room's own list; those that are there already stay as they are. */
    adoptSpecies(context: CommandContext, { names }: { names: string[] }) {
      const here = hereInBook()
      const fresh = speciesBook.filter((entry) => names.includes(entry.name) && !here.has(entry.name))
      const kept = keptRows('species')
      for (const { name, ...entry } of fresh) insert(context, 'species', { ...entry, name }, '', kept)
      return { adopted: fresh.length }
    },
  }
}
export type SetupService = ReturnType<typeof createSetupService>

type KeptRows = { keep(row: RegisterRow): void; twinOf(values: RegisterValues, id: string | null): RegisterRow | undefined }

/** Columns that follow from others. */
const derived = (register: RegisterName, values: RegisterValues): Record<string, unknown> => (register === 'species' ? { nameKey: nameKey(String(values.name)) } : {})

const tidy = (values: RegisterValues): RegisterValues => Object.fromEntries(Object.entries(values).map(([field, value]) => [field, typeof value === 'string' ? value.trim().replace(/\s+/g, ' ') || null : value]))
