/** A write that waits on a device, whether or not the server has answered for it. */
export interface Pending {
  command: string
  params: Readonly<Record<string, string>>
  key: string
  staffId: string
  /** Nobody waits for it: it shows at once, and its refusal goes to the tray. */
  isTouch: boolean
  input: unknown
  /** When the server answered, in the order of this device's moments; null while it did not. */
  answeredAt: number | null
}

/**
 * The overlay of every screen: shows an answer as it will be once what waits has been sent.
 * @param askedAt - when the answer was asked for, in the same order. What the server had answered by then is in it.
 */
export function shownWith<Answer>({ withPending }: { withPending?(answer: Answer, pending: readonly Pending[], params: object): Answer }, answer: Answer, askedAt: number, pending: readonly Pending[], params: Readonly<Record<string, string>>): Answer {
  const waiting = pending.filter(({ answeredAt }) => answeredAt === null || answeredAt > askedAt)
  return withPending && waiting.length > 0 ? withPending(answer, waiting, params) : answer
}
