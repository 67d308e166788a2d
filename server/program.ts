import { fork, type ChildProcess, type Serializable } from 'node:child_process'
import { basename, dirname, join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { Problem } from './http/problem'

const here = import.meta.filename ?? __filename

/**
 * How node runs another program of the server: from source through tsx, or the built one that lies beside this file.
 * @param source - path below `server/`, without its ending, such as `crates/solveMain`.
 */
export const serverProgram = (source: string): { file: string; execArgv: string[] } =>
  here.endsWith('.ts') ? { file: join(dirname(here), `${source}.ts`), execArgv: ['--import', 'tsx'] } : { file: join(dirname(here), `${basename(source)}.js`), execArgv: [] }

/**
 * Starts another program of the server beside this one: what takes long or blocks its thread must not hold up anybody's
 * touch. It hears messages, and what it writes comes through `stdout`.
 */
export function startProgram(source: string, args: string[] = []): ChildProcess {
  const { file, execArgv } = serverProgram(source)
  return fork(file, args, { execArgv, stdio: ['ignore', 'pipe', 'inherit', 'ipc'] })
}

/** How a program ended. */
export const endOf = (child: ChildProcess): Promise<number | null> => new Promise((resolve, reject) => child.once('exit', resolve).once('error', reject))

/**
 * Puts one question to a program and returns all it writes.
 * @param question - a message, for what does not fit into arguments; null for none.
 * @throws Error when it ends in failure.
 */
export async function askProgram(source: string, question: Serializable | null, args: string[] = []): Promise<Buffer> {
  const child = startProgram(source, args)
  if (question !== null) child.send(question)
  const [written, code] = await Promise.all([buffer(child.stdout!), endOf(child)])
  if (code !== 0) throw new Error(`${source} ended with ${String(code)}`)
  return written
}

/**
 * Puts questions to a program, so many at once: each takes a processor.
 * @throws Problem `conflict` in these words where more are asked.
 */
export function programAtMost(source: string, most: number, words: string): (question: Serializable) => Promise<Buffer> {
  let running = 0
  return async (question) => {
    if (running >= most) throw new Problem('conflict', words)
    running += 1
    return askProgram(source, question).finally(() => (running -= 1))
  }
}
