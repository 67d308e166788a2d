import { guessMapping, headingKey, type ListMapping } from '../../core/crates/listMapping'
import { readPackingListJson, writePackingList } from '../../core/crates/packingListFile'
import { readPackingList, type ReadLine } from '../../core/crates/readPackingList'
import { namesNear } from '../../core/species/nearestName'
import { Problem } from '../http/problem'
import type { SpeciesStore } from '../species/species.store'
import type { CratesStore } from './crates.store'
import { listProblem, readCsv } from './readCsv'

/** How a list is to be read: for whom, and which column holds what (null: as remembered, or as its heading says). */
export interface ReadOptions {
  supplier: string
  mapping: ListMapping | null
}

/** Packing lists as files: read without keeping anything, and given out. */
export function createPackingListsService(store: Pick<CratesStore, 'mappingOf' | 'tankCodes' | 'view'>, species: Pick<SpeciesStore, 'names' | 'isKnown'>) {
  const withNames = (lines: ReadLine[]) => {
    const names = species.names()
    return lines.map((line) => {
      const isNewSpecies = !species.isKnown(line.species)
      return { ...line, isNewSpecies, couldBe: isNewSpecies ? namesNear(line.species, names) : [] }
    })
  }

  return {
    /** Reads a packing list, CSV or JSON, without keeping anything of it. How its columns were read goes with the answer, and with a refusal. */
    readList(bytes: Uint8Array, { supplier, mapping }: ReadOptions) {
      if (isJson(bytes)) {
        const list = readPackingListJson(new TextDecoder().decode(bytes))
        if (!list.ok) throw listProblem(list.errors.slice(0, 200))
        return { lines: withNames(list.lines), notices: list.notices, head: list.head ?? null, columns: null }
      }
      const rows = readCsv(bytes)
      const heading = rows[0] ?? []
      const remembered = mapping === null && supplier ? store.mappingOf(supplier, headingKey(heading)) : null
      const used = mapping ?? remembered
      const columns = { heading, sample: rows.slice(1, 4), mapping: used ?? guessMapping(heading), isRemembered: remembered !== null }
      const list = readPackingList(rows, store.tankCodes(), used)
      if (!list.ok) throw listProblem(list.errors.slice(0, 200), { columns })
      return { lines: withNames(list.lines), notices: list.notices, head: null, columns }
    },

    /** A crate's list in the format that `readList` reads. */
    writeList(id: string) {
      const crate = store.view(id)
      if (!crate) throw new Problem('not-found', 'There is no such crate')
      return writePackingList(crate)
    },
  }
}
export type PackingListsService = ReturnType<typeof createPackingListsService>

const isJson = (bytes: Uint8Array): boolean => new TextDecoder().decode(bytes.subarray(0, 64)).trimStart().startsWith('{')
