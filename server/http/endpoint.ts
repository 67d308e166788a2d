import type { Request, Response } from 'express'
import type { Role } from '../../core/staff/staff.schema'
import type { Schema } from '../../core/fields/validated'
import { Problem } from './problem'

/** Who may call: anybody, any device with an open session, or somebody recording with at least this role. */
export type Access = 'public' | 'device' | Role

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

/** Room for two hundred bags and a note; whatever needs more says so. */
export const usualBodyBytes = 128 * 1024

export type Params = Record<string, string>

/** What a command may know besides its input. */
export interface CommandContext {
  actor: Actor
  /** Made on the device; also stamped on everything the command writes. */
  key: string
  nowMs: number
  params: Params
}

/** Answers a question; changes nothing. */
export interface Read {
  kind: 'read'
  method: 'get'
  path: string
  access: Access
  read(context: { params: Params; query: Record<string, unknown>; nowMs: number }): unknown
}

/** Writes: one transaction, one key, answered once. */
export interface Command<T = unknown, P = undefined> {
  kind: 'command'
  method: 'post' | 'put'
  path: string
  access: Role
  /** Stands in the books beside the key, e.g. `recordBags`. */
  name: string
  schema: Schema<T>
  /** Fields that must not leave a trace, not even as a hash. */
  secrets?: (keyof T & string)[]
  /** Longest body, bytes; `usualBodyBytes` unless a command needs more. */
  mostBytes?: number
  /** Slow work that must not hold the transaction, such as hashing. */
  prepare?(input: T): Promise<P>
  run(context: CommandContext, input: T, prepared: P): unknown
}

/** Signing in and out, and reading files: the few routes that handle request and response themselves. */
export interface Plain {
  kind: 'plain'
  method: 'get' | 'post' | 'delete'
  path: string
  access: Access
  /** Longest body, bytes; `usualBodyBytes` unless it takes files. */
  mostBytes?: number
  /** Gives away so much that a lead's PIN is asked for again. */
  asksPin?: boolean
  handle(request: Request, response: Response): Promise<void> | void
}

export type Endpoint = Read | Command | Plain

/** Declares a command with its input type; the table of endpoints holds them without it. */
export const command = <T, P = undefined>(declared: Omit<Command<T, P>, 'kind'>): Command => ({ kind: 'command', ...declared }) as unknown as Command
/** Declares a question. */
export const read = (declared: Omit<Read, 'kind' | 'method'>): Read => ({ kind: 'read', method: 'get', ...declared })
/** Declares a route that handles request and response itself. */
export const plain = (declared: Omit<Plain, 'kind'>): Plain => ({ kind: 'plain', ...declared })
