import { identities, origins } from '../setup/words'

/** What a packing list can say about a line; see docs/formats.md. `fish` counts all fish of the line. */
export const listFields = ['species', 'count', 'bags', 'per bag', 'tank', 'origin', 'strain', 'identity', 'promised to', 'billed', 'size cm', 'price', 'capture', 'seen eating', 'note'] as const
export type ListField = (typeof listFields)[number]

/** Which column (by number from 0) holds which field; a field that is left out is not in the list. */
export type ListMapping = Partial<Record<ListField, number>>

const otherNames: Record<ListField, readonly string[]> = {
  species: ['fish', 'name', 'common name', 'description', 'item', 'scientific name', 'latin name', 'latin'],
  count: ['quantity', 'qty', 'number', 'pcs', 'pieces', 'total', 'fish count'],
  bags: ['bag', 'no of bags', 'number of bags', 'boxes'],
  'per bag': ['pcs per bag', 'fish per bag', 'in bag', 'pcs/bag'],
  tank: ['to tank', 'place'],
  origin: ['source', 'wild or bred'],
  strain: ['variety', 'colour', 'form'],
  identity: ['certainty', 'certainty of identity'],
  'promised to': ['reserved for', 'customer', 'promised'],
  billed: ['invoiced', 'on the invoice', 'charged'],
  'size cm': ['size', 'length', 'length cm', 'cm'],
  price: ['price each', 'unit price', 'each', 'price per fish'],
  capture: ['caught', 'how caught', 'collected'],
  'seen eating': ['eats', 'ate', 'fed with', 'food'],
  note: ['remark', 'remarks', 'notes', 'comment'],
}

/** A heading as it is compared: case, spaces, dashes and underscores do not matter. */
export const normaliseHeading = (cell: string): string => cell.trim().toLowerCase().replace(/[\s_-]+/g, ' ')

/** A whole heading as it is remembered. */
export const headingKey = (heading: readonly string[]): string => heading.map(normaliseHeading).join('|').slice(0, 2000)

/** Guesses which column holds which field from the words in the heading; each column is used once, the likeliest word first. */
export function guessMapping(heading: readonly string[]): ListMapping {
  const words = heading.map(normaliseHeading)
  const mapping: ListMapping = {}
  for (const names of [(field: ListField): readonly string[] => [field], (field: ListField) => otherNames[field]]) {
    for (const field of listFields) {
      const free = (name: string): number => words.findIndex((word, index) => word === name && !Object.values(mapping).includes(index))
      const column = names(field).map(free).find((index) => index >= 0)
      if (mapping[field] === undefined && column !== undefined) mapping[field] = column
    }
  }
  return mapping
}

/** Says what a mapping still lacks before a list can be read by it; null when it is enough. */
export function mappingProblem(mapping: ListMapping, columns: number): string | null {
  const used = Object.values(mapping)
  if (used.some((column) => !Number.isInteger(column) || column < 0 || column >= columns)) return 'The list has fewer columns than were named'
  if (new Set(used).size !== used.length) return 'One column cannot hold two things; choose another one'
  if (mapping.species === undefined) return 'Say which column names the species'
  if (mapping.bags === undefined && mapping.count === undefined) return 'Say which column counts the bags, or the fish'
  return null
}

/** Words that a list may use for the origin of a fish. */
export const originOf = (cell: string): (typeof origins)[number] | undefined => {
  const word = normaliseHeading(cell)
  const others: Record<string, (typeof origins)[number]> = { w: 'wild', 'wild caught': 'wild', cb: 'captive bred', bred: 'captive bred', 'tank bred': 'captive bred', farmed: 'pond raised', pond: 'pond raised', '?': 'unknown' }
  return origins.find((origin) => origin === word) ?? others[word]
}

export const identityOf = (cell: string): (typeof identities)[number] | undefined => identities.find((identity) => identity === normaliseHeading(cell))
