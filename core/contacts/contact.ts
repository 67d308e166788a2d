/** Ways in which what lives in one water can come into another; in the order in which they are listed, which says nothing of how likely. */
export const contactKinds = ['move', 'water', 'joined', 'decor', 'tool', 'hose', 'splash', 'hands'] as const
export type ContactKind = (typeof contactKinds)[number]

/** Something touched two waters, or a water and a tool set. Nodes are `water:ID` and `tools:ID`; times are whole epoch minutes. */
export interface Contact {
  id: string
  at: number
  /** Its last minute, where it lasted. */
  until?: number | null
  kind: ContactKind
  from: string
  to: string
  /** Whether it goes both ways. */
  both: boolean
  /** False for a breach, and for a move made against a rule. */
  planned: boolean
}

/** Fish of a lot stood in a water. */
export interface Stay {
  lot: string
  water: string
  from: number
  /** The minute they left; null while they stand there. */
  until: number | null
}

/** An emptied water was sterilised and filled anew, or a tool was through its bath. */
export interface Clear {
  node: string
  at: number
}

/** Answers whether a node is a tool set; the others are waters. */
export const isTool = (node: string): boolean => node.startsWith('tools:')

/** Order by code units, the same on every machine. */
export const byText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

/** The last minute of a contact. */
export const endOf = ({ at, until }: Pick<Contact, 'at' | 'until'>): number => until ?? at

/** Kinds that are written down; those of moves stand in the ledger. */
export type WrittenKind = Exclude<ContactKind, 'move'>

/** Whole epoch minutes of a moment. */
export const minuteOf = (atMs: number): number => Math.floor(atMs / 60_000)
