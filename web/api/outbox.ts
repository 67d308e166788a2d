import { ApiProblem } from './ApiProblem'

/** One write on its way to the server. */
export interface OutboxEntry {
  key: string
  /** Name of the command, e.g. `recordBags`: what screens look for to show a touch before it is answered. */
  command: string
  method: 'POST' | 'PUT'
  path: string
  body: unknown
  staffId: string
  /** What a person did, in a few words. */
  label: string
}

export interface RefusedEntry {
  entry: OutboxEntry
  reason: string
}

export type OutboxState = 'idle' | 'sending' | 'unreachable' | 'signed-out' | 'unidentified'

export interface OutboxSnapshot {
  state: OutboxState
  /** Not yet answered, or answered but not yet on screen, oldest first. */
  pending: readonly OutboxEntry[]
  /** How many of them the server has not answered for, and the first of those. */
  waiting: number
  next: OutboxEntry | null
  refused: readonly RefusedEntry[]
  /** False when this browser keeps nothing, so that a reload would lose what waits. */
  isKept: boolean
}

export interface Push {
  /** A form says a refusal beside its fields; a touch has nowhere to say it, so it goes to the tray. */
  refusals: 'form' | 'tray'
  /** Secrets are held in memory only. */
  isSecret?: boolean
}

interface Options {
  storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>
  send(entry: OutboxEntry): Promise<unknown>
  /** Brings what is on screen up to date; called when the queue has run dry. */
  refresh(): Promise<unknown>
  wait(ms: number): Promise<void>
}

interface Item {
  entry: OutboxEntry
  slot: string
  refusals: Push['refusals']
  isAnswered: boolean
  /** How often nobody answered, and how often the server itself failed. */
  misses: number
  failures: number
  settle?: { resolve(answer: unknown): void; reject(error: unknown): void }
}

const prefix = 'crate.outbox.'
const retryMs = [500, 1000, 2000, 4000, 8000] as const
/** A server that fails this often at one entry will go on failing; the entries behind it must not wait for it. */
const failureLimit = 5

/**
 * The one way out for writes. An entry is kept on the device before anything else happens, sent in order, and kept until
 * the server has answered; after a reload or an outage the same keys go out again, so nothing is lost or doubled.
 */
export function createOutbox({ storage, send, refresh, wait }: Options) {
  const kept = readKept(storage)
  let items: Item[] = kept.map(({ entry, slot }) => ({ entry, slot, refusals: 'tray', isAnswered: false, misses: 0, failures: 0 }))
  let refused: RefusedEntry[] = []
  let state: OutboxState = 'idle'
  let isKept = true
  let isRunning = false
  let wake: (() => void) | null = null
  let nextSlot = kept.reduce((highest, { slot }) => Math.max(highest, Number(slot.slice(prefix.length))), 0) + 1
  let snapshot = take()
  const listeners = new Set<() => void>()

  function nextItem(): Item | undefined {
    return items.find((item) => !item.isAnswered)
  }
  function take(): OutboxSnapshot {
    return { state, pending: items.map((item) => item.entry), waiting: items.filter((item) => !item.isAnswered).length, next: nextItem()?.entry ?? null, refused, isKept }
  }
  function publish(next: OutboxState = state): void {
    state = next
    snapshot = take()
    for (const listener of listeners) listener()
  }
  function keep(item: Item): void {
    try {
      storage.setItem(item.slot, JSON.stringify(item.entry))
    } catch {
      isKept = false
    }
  }

  /** Until somebody calls `wake`: the network is back, a person signed in, another touch came. */
  const woken = (): Promise<void> => new Promise((resolve) => (wake = resolve))

  async function run(): Promise<void> {
    if (isRunning) return
    isRunning = true
    while (items.length > 0) {
      const item = nextItem()
      if (item) publish('sending')
      if (!item) await settleScreen()
      else if ((await attempt(item)) === 'pause') break
    }
    isRunning = false
    if (items.length === 0) publish('idle')
  }

  async function attempt(item: Item): Promise<'next' | 'pause'> {
    try {
      const answer = await send(item.entry)
      item.isAnswered = true
      storage.removeItem(item.slot)
      publish()
      item.settle?.resolve(answer)
    } catch (error) {
      return handle(item, error)
    }
    return 'next'
  }

  async function handle(item: Item, error: unknown): Promise<'next' | 'pause'> {
    if (error instanceof ApiProblem && (error.code === 'signed-out' || error.code === 'unidentified')) {
      publish(error.code)
      return 'pause'
    }
    if (error instanceof ApiProblem && error.status >= 500) item.failures += 1
    const isRefusal = error instanceof ApiProblem && (error.status < 500 || item.failures >= failureLimit)
    if (!isRefusal) {
      publish('unreachable')
      await Promise.race([wait(retryMs[Math.min(item.misses++, retryMs.length - 1)] ?? 8000), woken()])
      return 'next'
    }
    items = items.filter((each) => each !== item)
    storage.removeItem(item.slot)
    if (item.refusals === 'tray') refused = [...refused, { entry: item.entry, reason: error.message }]
    item.settle?.reject(error)
    publish()
    // What was refused did not fit what the server holds, so the screen is behind.
    void refresh().catch(() => undefined)
    return 'next'
  }

  /**
   * Takes answered entries off the screen once it shows what the server made of them, and not before: a screen that
   * could not be read anew would show the touch undone.
   */
  async function settleScreen(): Promise<void> {
    const answered = new Set(items)
    const outcome = await Promise.race([refresh().then(() => 'shown' as const, () => 'failed' as const), woken()])
    if (outcome === 'shown') items = items.filter((item) => !answered.has(item))
    if (outcome === 'failed') await Promise.race([wait(retryMs[1]), woken()])
  }

  return {
    /** Takes a write; resolves with the server's answer, rejects when it is refused. Never rejects for lack of network. */
    push(entry: OutboxEntry, { refusals, isSecret = false }: Push): Promise<unknown> {
      const item: Item = { entry, slot: `${prefix}${String(nextSlot++).padStart(12, '0')}`, refusals, isAnswered: false, misses: 0, failures: 0 }
      const answered = new Promise((resolve, reject) => (item.settle = { resolve, reject }))
      // A touch whose refusal goes to the tray has nobody waiting for the promise.
      if (refusals === 'tray') answered.catch(() => undefined)
      if (!isSecret) keep(item)
      items = [...items, item]
      publish()
      this.resume()
      return answered
    },
    /** Tries again at once: the network is back, or somebody signed in. */
    resume(): void {
      wake?.()
      wake = null
      void run()
    },
    /** Clears the tray entry once somebody has read it. */
    dismiss(key: string): void {
      refused = refused.filter(({ entry }) => entry.key !== key)
      publish()
    },
    subscribe(listener: () => void): () => void {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    snapshot: (): OutboxSnapshot => snapshot,
  }
}
export type Outbox = ReturnType<typeof createOutbox>

function readKept(storage: Options['storage']): { entry: OutboxEntry; slot: string }[] {
  const slots = Array.from({ length: storage.length }, (_, index) => storage.key(index)).filter((slot): slot is string => slot?.startsWith(prefix) ?? false)
  return slots.sort().flatMap((slot) => {
    try {
      return [{ slot, entry: JSON.parse(storage.getItem(slot) ?? '') as OutboxEntry }]
    } catch {
      return []
    }
  })
}
