import type { Request, Response } from 'express'
import type { AnswerOf, Api, CommandOf, InputOf, PathParams, PlainOf, QueryOf, ReadOf } from '../../core/commands/declare'
import { mayTakeBack } from '../../core/staff/mayTakeBack'
import type { Role } from '../../core/staff/staff.schema'
import { Problem } from './problem'

/** A person on whose behalf something is read or written. */
export interface Actor {
  id: string
  name: string
  role: Role
  /** Whether the PIN was given a short while ago: what a lead alone may do asks for it again after that. */
  isPinFresh: boolean
  /** The session of the device asking; null for what no device asks, such as the demo's past. */
  sessionId: string | null
}

/** What a lead alone may do is not done on the word of a tablet that was left open. */
export function requireFreshPin({ name, isPinFresh }: Actor): void {
  if (!isPinFresh) throw new Problem('unidentified', `This asks for the PIN of ${name} again: it was given more than ten minutes ago`)
}

/** What a lead alone may do by a command that others use as well. */
export function requireLead(actor: Actor, words: string): void {
  if (actor.role !== 'lead') throw new Problem('not-allowed', words)
  requireFreshPin(actor)
}

/** Whoever wrote it takes it back within a day; later a lead does. */
export function requireMayTakeBack({ actor, nowMs }: Pick<CommandContext, 'actor' | 'nowMs'>, entry: Parameters<typeof mayTakeBack>[1]): void {
  if (!mayTakeBack(actor, entry, nowMs)) throw new Problem('not-allowed', 'A lead takes this back, since a hold hangs on it')
}

/** Room for two hundred bags and a note; whatever needs more says so. */
export const usualBodyBytes = 128 * 1024

export type Params = Readonly<Record<string, string>>

/** What a command may know besides its input. */
export interface CommandContext {
  actor: Actor
  /** Made on the device; also stamped on everything the command writes. */
  key: string
  nowMs: number
  params: Params
}

/** A question as it comes in: the words of its query are read by what it declares. */
export interface Asked {
  params: Params
  query: Record<string, unknown>
  /** Who asks; null where any device may. */
  actor?: Actor | null
  nowMs: number
}

/** A declared question with what answers it. */
export interface Read extends ReadOf {
  read(asked: Asked): unknown
}

/** A declared write with what does it. */
export interface Command extends CommandOf {
  /** Slow work that must not hold the transaction, such as hashing. */
  prepare?(input: unknown): Promise<unknown>
  run(context: CommandContext, input: unknown, prepared: unknown): unknown
}

/** A declared route that handles request and response itself. */
export interface Plain extends PlainOf {
  handle(request: Request, response: Response): Promise<void> | void
}

export type Endpoint = Read | Command | Plain

/** Who asks is known wherever a person must be named. */
type ActorOf<D> = D extends { access: infer Who } ? (Who extends Role ? Actor : null) : null

interface Prepared<Input, Answer> {
  prepare(input: Input): Promise<unknown>
  run(context: CommandContext, input: Input, prepared: never): Answer
}
type CommandHandler<Input, Answer> = ((context: CommandContext, input: Input) => Answer) | Prepared<Input, Answer>

type HandlerOf<D> = D extends { kind: 'command' }
  ? CommandHandler<InputOf<D>, AnswerOf<D>>
  : D extends { kind: 'read' }
    ? (asked: { params: PathParams<D>; query: QueryOf<D>; actor: ActorOf<D>; nowMs: number }) => AnswerOf<D>
    : Plain['handle']

/** What answers each route of a declaration: all of them, and no other. */
export type HandlersOf<A> = { [Name in keyof A]: HandlerOf<A[Name]> }

/** Does slow work first, outside of the transaction, and hands on what came of it. */
export const prepared = <Input, P, Answer>(prepare: (input: Input) => Promise<P>, run: (context: CommandContext, input: Input, prepared: P) => Answer): Prepared<Input, Answer> => ({ prepare, run })

/** Puts what answers them to the declared routes of a feature. There is no other way to a route. */
export function serve<A extends Api>(api: A, handlers: HandlersOf<A>): Endpoint[] {
  return Object.entries(api).map(([name, declared]): Endpoint => {
    const handler = handlers[name] as unknown
    if (declared.kind === 'plain') return { ...declared, handle: handler as Plain['handle'] }
    if (declared.kind === 'command') return { ...declared, ...(typeof handler === 'function' ? { run: handler as Command['run'] } : (handler as Pick<Command, 'prepare' | 'run'>)) }
    const answer = handler as (asked: Asked) => unknown
    return { ...declared, read: (asked) => answer({ ...asked, actor: asked.actor ?? null, query: queryOf(declared, asked.query) }) }
  })
}

/** What a question declares of its query, and nothing else of what stands in the address: that may be called anything. */
function queryOf({ query }: ReadOf, words: Record<string, unknown>): Record<string, unknown> {
  if (!query) return {}
  const asked = Object.fromEntries(Object.keys(query.fields).map((name) => [name, Object.hasOwn(words, name) ? words[name] : undefined]))
  return query.validateSync(asked, { strict: false, abortEarly: true, stripUnknown: true, disableStackTrace: true }) as Record<string, unknown>
}
