import { ApiProblem } from './ApiProblem'
import { nextMoment } from './moments'
import type { OutboxEntry, RefusedEntry, Waiting } from './outboxEntry'
import { createOutboxSlots, type Kept, type SlotStorage } from './outboxSlots'

/** `failing`: the server answers, but cannot keep anything now. `ahead`: its clock stands before what waits happened. */
export type OutboxState = 'idle' | 'sending' | 'unreachable' | 'failing' | 'ahead' | 'signed-out' | 'unidentified'

export interface OutboxSnapshot {
  state: OutboxState
  /** Not yet answered, or answered but not yet on screen, oldest first. */
  pending: readonly OutboxEntry[]
  /** The same, with when each was answered; another list only when something of it is another. */
  shown: readonly Waiting[]
  /** How many of them the server has not answered for, and the first of those. */
  waiting: number
  next: OutboxEntry | null
  refused: readonly RefusedEntry[]
  /** What the server said when it could not keep an entry; null while it does. */
  reason: string | null
  /** The server’s clock, when what waits is ahead of it. */
  serverNowMs: number | null
  /** Entries that the server failed at over and over. They are kept and tried again; others go past them. */
  stuck: readonly OutboxEntry[]
  /** Whether everything is answered, and some of what shows it cannot be read anew. */
  isUnread: boolean
  /** False when this browser keeps nothing, so that a reload would lose what waits. */
  isKept: boolean
}

export interface Push {
  /** A form says a refusal beside its fields; a touch has nowhere to say it, so it goes to the tray. */
  refusals: 'form' | 'tray'
  /** Whether the form is still there when the refusal comes; one that was left says nothing, so the tray does. */
  isFormThere?(): boolean
  /** Secrets are held in memory only. */
  isSecret?: boolean
}

/** What is to be read anew: what tells of what was touched (null: everything), and the reads of these names. */
export interface Reread {
  touched: readonly string[] | null
  names?: ReadonlySet<string>
}

interface Options {
  storage: SlotStorage
  send(entry: OutboxEntry): Promise<unknown>
  /**
   * Brings what is on screen up to date; called when the queue has run dry.
   * @returns names of the reads that did not get through.
   */
  refresh(reread: Reread): Promise<ReadonlySet<string>>
  wait(ms: number): Promise<void>
  /** This device's own clock, UTC epoch milliseconds. */
  deviceNowMs?(): number
}

interface Item extends Kept {
  isSecret: boolean
  /** Answers whether a refusal would be read nowhere but in the tray. */
  isForTray(): boolean
  isAnswered: boolean
  answeredAt: number | null
  /** How often it got no answer, or none that settles it. */
  misses: number
  failures: number
  isAhead: boolean
  /** The PIN of whoever recorded it was not given on this device. */
  isUnidentified: boolean
  /** Reads that do not show it yet; null for all. */
  unread: ReadonlySet<string> | null
  settle?: { resolve(answer: unknown): void; reject(error: unknown): void }
}

const retryMs = [500, 1000, 2000, 4000, 8000] as const
const longWaitMs = 8000
/** After so many failures others go past an entry: they must not wait for what the server cannot do. */
const failureLimit = 5
/** A page of this device that keeps an entry so long without sending it is gone. */
const abandonedMs = 15_000
/** Of so many writes a page knows that they were its own. */
const mostOwn = 500

/**
 * The one way out for writes. An entry is kept on the device before anything else happens, sent in order, and kept until
 * the server has answered that it is in the books, or refused it for good; a refusal is kept until somebody has read it.
 * After a reload, an outage or a full disk the same keys go out again, so nothing is lost or doubled.
 */
export function createOutbox({ storage, send, refresh, wait, deviceNowMs = () => Date.now() }: Options) {
  const slots = createOutboxSlots(storage)
  const fresh = { isSecret: false, isForTray: () => true, isAnswered: false, answeredAt: null, misses: 0, failures: 0, isAhead: false, isUnidentified: false, unread: null } as const
  let items: Item[] = slots.waiting().map((kept) => ({ ...kept, ...fresh }))
  let refused: RefusedEntry[] = slots.refused()
  let [state, reason, serverNowMs]: [OutboxState, string | null, number | null] = ['idle', null, null]
  let isKept = true
  let isRunning = false
  let isScreensTurn = false
  let unreadRounds = 0
  let wake: (() => void) | null = null
  let shown: readonly Waiting[] = []
  let snapshot = take()
  const listeners = new Set<() => void>()

  /** The oldest entry that is not answered; those that others may go past come last. */
  function nextItem(): Item | undefined {
    const open = items.filter((item) => !item.isAnswered)
    return open.find((item) => !isPassed(item)) ?? open.sort((a, b) => a.misses - b.misses)[0]
  }
  function isPassed({ failures, isAhead, isUnidentified }: Item): boolean {
    return failures >= failureLimit || isAhead || isUnidentified
  }
  const isAnyOther = (item: Item): boolean => items.some((each) => each !== item && !each.isAnswered && !isPassed(each))
  function take(): OutboxSnapshot {
    const open = items.filter((item) => !item.isAnswered)
    const now = items.map(({ entry, answeredAt }) => ({ entry, answeredAt }))
    if (now.length !== shown.length || now.some(({ entry, answeredAt }, index) => entry !== shown[index]?.entry || answeredAt !== shown[index]?.answeredAt)) shown = now
    return {
      shown,
      ...{ state, pending: items.map((item) => item.entry), waiting: open.length, next: (open.find(({ isUnidentified }) => isUnidentified) ?? nextItem())?.entry ?? null, refused, reason, serverNowMs, isKept },
      stuck: open.filter(({ failures }) => failures >= failureLimit).map(({ entry }) => entry),
      isUnread: unreadRounds > 0,
    }
  }
  function publish(next: OutboxState = state): void {
    state = next
    snapshot = take()
    for (const listener of listeners) listener()
  }
  function keep(item: Item): void {
    if (!item.isSecret && !slots.keep({ entry: item.entry, order: item.order, madeAtMs: item.madeAtMs })) isKept = false
  }
  const drop = (item: Item): void => {
    items = items.filter((each) => each !== item)
    slots.forget(item.entry.key)
  }
  const letGo = (key: string): void => {
    refused = refused.filter(({ entry }) => entry.key !== key)
    slots.forgetRefused(key)
  }
  const nextOrder = (): number => Math.max(deviceNowMs(), ...items.map(({ order }) => order + 1))

  /** Until somebody calls `wake`: the network is back, a person signed in, another touch came. */
  const woken = (): Promise<void> => new Promise((resolve) => (wake = resolve))

  async function run(): Promise<void> {
    if (isRunning) return
    isRunning = true
    while (items.length > 0) {
      const item = nextItem()
      // What others go past takes turns with showing what was answered.
      isScreensTurn = !isScreensTurn && items.some(({ isAnswered }) => isAnswered)
      if (!item || (isPassed(item) && isScreensTurn)) await settleScreen()
      else if ((await attempt(item)) === 'pause') {
        if (items.some(({ isAnswered }) => isAnswered)) await settleScreen()
        break
      }
    }
    isRunning = false
    if (items.length === 0) publish('idle')
  }

  async function attempt(item: Item): Promise<'next' | 'pause'> {
    if (item.misses === 0) publish('sending')
    try {
      const answer = await send(item.entry)
      item.isAnswered = true
      item.answeredAt = nextMoment()
      slots.forget(item.entry.key)
      // It was on its way when it was given up.
      letGo(item.entry.key)
      ;[reason, serverNowMs] = [null, null]
      publish('sending')
      item.settle?.resolve(answer)
    } catch (error) {
      return handle(item, error)
    }
    return 'next'
  }

  async function handle(item: Item, error: unknown): Promise<'next' | 'pause'> {
    const { code = null, status = 0 } = error instanceof ApiProblem ? error : {}
    if (code === 'signed-out' || code === 'unidentified') {
      // What one person recorded does not wait for the PIN of another, who may never come again.
      item.isUnidentified = code === 'unidentified'
      publish(code)
      return item.isUnidentified && isAnyOther(item) ? 'next' : 'pause'
    }
    if (code === 'ahead-of-clock') return retry(item, 'ahead', error as ApiProblem)
    if (code === null || status >= 500) return retry(item, code === null ? 'unreachable' : 'failing', code === null ? null : (error as ApiProblem))
    refuse(item, (error as ApiProblem).message, error)
    // What was refused did not fit what the server holds, so the screen is behind.
    void refresh({ touched: null }).catch(() => undefined)
    return 'next'
  }

  /** What the server cannot take now it can take later: nothing of it is given up. */
  async function retry(item: Item, why: 'unreachable' | 'failing' | 'ahead', problem: ApiProblem | null): Promise<'next'> {
    item.isAhead = why === 'ahead'
    // A full disk fails everybody alike; an entry that the server stumbles over fails alone.
    if (problem?.code === 'internal') item.failures += 1
    reason = problem?.message ?? null
    serverNowMs = why === 'ahead' ? ((problem?.current as { nowMs?: number } | undefined)?.nowMs ?? null) : null
    publish(why)
    const waitMs = why === 'ahead' ? longWaitMs : (retryMs[Math.min(item.misses, retryMs.length - 1)] ?? longWaitMs)
    item.misses += 1
    if (!(isPassed(item) && isAnyOther(item))) await Promise.race([wait(waitMs), woken()])
    return 'next'
  }

  function refuse(item: Item, why: string, error: unknown): void {
    drop(item)
    if (item.isForTray()) {
      const entry = item.isSecret ? { ...item.entry, body: null } : item.entry
      refused = [...refused, { entry, reason: why }]
      slots.keepRefused({ entry, reason: why }, nextOrder())
    }
    item.settle?.reject(error)
    publish()
  }

  /**
   * Takes answered entries off the screen once it shows what the server made of them, and not before: a screen that
   * could not be read anew would show the touch undone. What was read is not read again for what was not.
   */
  async function settleScreen(): Promise<void> {
    const answered = items.filter(({ isAnswered }) => isAnswered)
    const fresh = answered.filter(({ unread }) => unread === null)
    const touched = fresh.some(({ entry }) => !entry.touches) ? null : [...new Set(fresh.flatMap(({ entry }) => entry.touches ?? []))]
    const names = new Set(answered.flatMap(({ unread }) => [...(unread ?? [])]))
    const unread = await Promise.race([refresh({ touched, names }), woken().then(() => null)])
    if (unread === null) return
    for (const item of answered) item.unread = unread
    if (unread.size === 0) items = items.filter((item) => !answered.includes(item))
    unreadRounds = unread.size === 0 ? 0 : unreadRounds + 1
    publish()
    if (unread.size > 0) await Promise.race([wait(retryMs[Math.min(unreadRounds, retryMs.length - 1)] ?? longWaitMs), woken()])
  }

  /** Takes over what other pages of this device left behind, and lets go of what they have sent meanwhile. */
  function share(): void {
    const mine = new Set(items.map(({ entry }) => entry.key))
    const left = slots.waiting().filter(({ entry, madeAtMs }) => !mine.has(entry.key) && Math.abs(deviceNowMs() - madeAtMs) > abandonedMs)
    const gone = items.filter((item) => !item.isAnswered && !item.settle && isKept && !slots.isWaiting(item.entry.key))
    if (isKept) refused = slots.refused()
    items = [...items.filter((item) => !gone.includes(item)), ...left.map((kept) => ({ ...kept, ...fresh }))].sort((a, b) => a.order - b.order)
    publish()
    if (left.length > 0) void run()
  }

  /** Keys that were pushed on this page, the newest of them. */
  const own = new Set<string>()
  const outbox = {
    /** Answers whether a write was made on this page: what it touches is read anew here by itself. */
    isOwn: (key: string): boolean => own.has(key),
    /** Takes a write; resolves with the server's answer, rejects when it is refused. Never rejects for lack of network. */
    push(entry: OutboxEntry, { refusals, isFormThere = () => true, isSecret = false }: Push): Promise<unknown> {
      const item: Item = { ...fresh, entry, order: nextOrder(), madeAtMs: deviceNowMs(), isForTray: () => refusals === 'tray' || !isFormThere(), isSecret }
      const answered = new Promise((resolve, reject) => (item.settle = { resolve, reject }))
      // A touch whose refusal goes to the tray has nobody waiting for the promise.
      if (refusals === 'tray') answered.catch(() => undefined)
      keep(item)
      items = [...items, item]
      own.add(entry.key)
      for (const oldest of own) if (own.size > mostOwn) own.delete(oldest)
      publish()
      outbox.resume()
      return answered
    },
    /** Tries again at once: the network is back, or somebody signed in. */
    resume(): void {
      for (const item of items) item.isUnidentified = false
      wake?.()
      wake = null
      void run()
    },
    share,
    /** Puts what is ahead of the server's clock on that clock, as long ago as this device says it was. */
    putOnServerClock(): void {
      const ahead = items.filter(({ isAhead, isAnswered }) => isAhead && !isAnswered)
      for (const item of ahead) {
        const agoMs = Math.max(0, deviceNowMs() - item.madeAtMs)
        item.entry = { ...item.entry, body: { ...(item.entry.body as object), happenedAtMs: Math.floor((serverNowMs ?? deviceNowMs()) - agoMs) } }
        item.isAhead = false
        keep(item)
      }
      outbox.resume()
    },
    /** Lets go of an entry that the server fails at, on a person's word; it stays in the tray as not recorded. */
    giveUp(key: string): void {
      const item = items.find(({ entry, isAnswered }) => entry.key === key && !isAnswered)
      if (!item) return
      item.isForTray = () => true
      refuse(item, 'Given up here; it was never recorded.', new Error('given up'))
    },
    /** Clears the tray entry once somebody has read it. */
    dismiss(key: string): void {
      letGo(key)
      publish()
    },
    subscribe(listener: () => void): () => void {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    snapshot: (): OutboxSnapshot => snapshot,
  }
  return outbox
}
export type Outbox = ReturnType<typeof createOutbox>
