/** One write on its way to the server. */
export interface OutboxEntry {
  key: string
  /** Name of the command, e.g. `recordBags`: what screens look for to show a touch before it is answered. */
  command: string
  method: 'POST' | 'PUT'
  path: string
  /** What its address names, e.g. the crate; not with entries of earlier versions. */
  params?: Readonly<Record<string, string>>
  /** What of the books it may change; everything, with entries of earlier versions. */
  touches?: readonly string[]
  /** Nobody waits for it: it shows at once, and its refusal goes to the tray. */
  isTouch?: boolean
  body: unknown
  staffId: string
  /** What a person did, in a few words. */
  label: string
}

/** An entry that screens show. */
export interface Waiting {
  entry: OutboxEntry
  /** The moment of this page when the server's answer came; null before. */
  answeredAt: number | null
}

export interface RefusedEntry {
  entry: OutboxEntry
  reason: string
}
