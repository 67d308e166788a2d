import type { Schema } from '../fields/validated'
import type { Role } from '../staff/staff.schema'
import type { Pending } from './pending'
import type { Thing } from './things'

// What can be asked of the server and written there is declared once, beside its feature (`*.api.ts`): the server mounts
// these and nothing else, screens ask and write through them, and docs/api.md is made of them.

/** Who may call: anybody, any device with an open session, or somebody recording with at least this role. */
export type Access = 'public' | 'device' | Role

type NameIn<Part extends string> = Part extends `:${infer Name}.${string}` ? Name : Part extends `:${infer Name}` ? Name : never
type NamesIn<Path extends string> = Path extends `${infer Part}/${infer Rest}` ? NameIn<Part> | NamesIn<Rest> : NameIn<Path>
/** What an address leaves open, by name: `/api/tanks/:tankId/moves` needs a `tankId`. */
export type ParamsOf<Path extends string> = { readonly [Name in NamesIn<Path>]: string }

interface Declared<Path extends string> {
  /** By this it is known in the books, in events and on devices: its key in the declaration. */
  name: string
  path: Path
  access: Access
}

/** A write: one transaction, one key, answered once. */
export interface CommandOf<Path extends string = string, Input = unknown, Answer = unknown> extends Declared<Path> {
  kind: 'command'
  method: 'post' | 'put'
  access: Role
  schema: Schema<Input>
  /** Fields that must not leave a trace, not even as a hash. */
  secrets?: readonly string[]
  /** Longest body, bytes; that of the server unless a command needs more. */
  mostBytes?: number
  /** What of the books it may change: whoever shows that reads it anew. */
  touches(params: ParamsOf<Path>, input: Input): readonly Thing[]
  /** Only its type is used. */
  answer?: Answer
}

/** A question; it changes nothing. */
export interface ReadOf<Path extends string = string, Query = unknown, Answer = unknown, Who extends Access = Access> extends Declared<Path> {
  kind: 'read'
  method: 'get'
  access: Who
  /** What may be asked beside the address; what is not named here is not read. */
  query?: QuerySchema<Query>
  /** What of the books it tells of. An answer that is at hand may say more closely. */
  about(params: ParamsOf<Path>, answer?: Answer): readonly Thing[]
  /**
   * For how long an answer stands while nothing is written, milliseconds: its figures go with the clock. Infinity where
   * they do not; 0 for what does not come from the books alone, and is read anew each time.
   */
  staysMs: number
  /** Shows an answer as it will be once what waits on a device has been sent, so that a touch is on screen at once. */
  withPending?(answer: Answer, pending: readonly Pending[], params: ParamsOf<Path>): Answer
  answer?: Answer
}

/** Signing in and out, files and streams: the few routes that handle request and response themselves. */
export interface PlainOf<Path extends string = string> extends Declared<Path> {
  kind: 'plain'
  method: 'get' | 'post' | 'delete'
  /** Longest body, bytes, for what takes files. */
  mostBytes?: number
  /** Gives away so much that a lead's PIN is asked for again. */
  asksPin?: boolean
}

/** Reads a query out of the words of an address. */
export interface QuerySchema<Query> {
  fields: object
  validateSync(value: unknown, options: { strict: boolean; abortEarly: boolean; stripUnknown: boolean; disableStackTrace: boolean }): Query
}

export type AnyDeclared = CommandOf | ReadOf | PlainOf
export type Api = Readonly<Record<string, AnyDeclared>>

/** What the address of a declaration leaves open. */
export type PathParams<D> = D extends { path: infer Path extends string } ? ParamsOf<Path> : never
/** In a call: what an address leaves open is said; where it leaves nothing open, nothing is. */
export type Opening<D> = keyof PathParams<D> extends never ? { params?: undefined } : { params: PathParams<D> }
export type InputOf<C> = C extends { schema: Schema<infer Input> } ? Input : never
export type QueryOf<R> = R extends { query?: QuerySchema<infer Query> } ? Query : unknown
export type AnswerOf<D> = D extends { answer?: infer Answer } ? Exclude<Answer, undefined> : unknown

/** Names the type of an answer; there is nothing in it. */
export const answers = <Answer>(): Answer | undefined => undefined

type Unnamed<D> = Omit<D, 'name' | 'kind'>
/** Declares a write. */
export const command = <const Path extends string, Input, Answer = object>(declared: Unnamed<CommandOf<Path, Input, Answer>> & { secrets?: readonly (keyof Input & string)[] }): CommandOf<Path, Input, Answer> => ({ kind: 'command', name: '', ...declared })
/** Declares a question. */
export const read = <const Path extends string, const Who extends Access, Answer, Query = object>(declared: Omit<Unnamed<ReadOf<Path, Query, Answer, Who>>, 'method'>): ReadOf<Path, Query, Answer, Who> => ({ kind: 'read', method: 'get', name: '', ...declared })
/** Declares a route that handles request and response itself. */
export const plain = <const Path extends string>(declared: Unnamed<PlainOf<Path>>): PlainOf<Path> => ({ kind: 'plain', name: '', ...declared })

/** Gives each declaration the name it stands under. */
export const named = <A extends Api>(api: A): A => Object.fromEntries(Object.entries(api).map(([name, declared]) => [name, { ...declared, name }])) as unknown as A

type QueryValue = string | number | boolean | null | undefined | readonly string[]

/**
 * Writes the address of a call.
 * @example addressOf({ path: '/api/tanks/:code' }, { code: 'R1-01' }, { entries: 40 }) // '/api/tanks/R1-01?entries=40'
 */
export function addressOf<D extends { path: string }>(declared: D, params: ParamsOf<D['path']>, query: object = {}): string {
  const path = declared.path.replace(/:([A-Za-z]+)/g, (_, name: string) => encodeURIComponent((params as Readonly<Record<string, string>>)[name] ?? ''))
  const asked = Object.entries(query as Record<string, QueryValue>).flatMap(([name, value]) => [value ?? []].flat().map((each) => [name, String(each)] as [string, string]))
  return asked.length === 0 ? path : `${path}?${new URLSearchParams(asked)}`
}
