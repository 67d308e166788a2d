import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync } from 'node:fs'
import { join, parse } from 'node:path'
import { Problem } from '../http/problem'

/** A packing list that a supplier sent. */
export interface Letter {
  id: string
  name: string
  bytes: number
  atMs: number
}

/** Larger than any list; whatever is larger is no list. */
const mostBytes = 2_000_000

/**
 * The suppliers' mailbox as a folder: a stand-in for a real one, behind what a real one would offer. Lists are files in
 * CSV or JSON; what was taken in moves to the folder `taken`.
 */
export function createMailbox(folder: string) {
  // A later list of the same name is another letter: what one device read is not what the next one would put away.
  function idOf(name: string): string {
    const { size, mtimeMs } = statSync(join(folder, name))
    return createHash('sha256').update(`${name} ${size} ${mtimeMs}`).digest('base64url').slice(0, 16)
  }
  const names = (): string[] => (existsSync(folder) ? readdirSync(folder, { withFileTypes: true }).filter((entry) => entry.isFile() && /\.(csv|json)$/i.test(entry.name)).map(({ name }) => name) : [])

  function requireName(id: string): string {
    const name = names().find((each) => idOf(each) === id)
    if (name === undefined) throw new Problem('not-found', 'This letter is not in the mailbox any more')
    return name
  }

  return {
    letters: (): Letter[] =>
      names()
        .map((name) => {
          const { size, mtimeMs } = statSync(join(folder, name))
          return { id: idOf(name), name, bytes: size, atMs: Math.round(mtimeMs) }
        })
        .sort((a, b) => b.atMs - a.atMs || a.name.localeCompare(b.name)),

    read(id: string): Buffer {
      const file = join(folder, requireName(id))
      if (statSync(file).size > mostBytes) throw new Problem('invalid-input', 'This letter is larger than any packing list (2 MB); ask the supplier for the list alone')
      return readFileSync(file)
    },

    /** Puts a letter away. One that was put away already stays so. */
    file(id: string): void {
      const name = names().find((each) => idOf(each) === id)
      if (name === undefined) return
      mkdirSync(join(folder, 'taken'), { recursive: true })
      renameSync(join(folder, name), freeName(join(folder, 'taken'), name))
    },
  }
}
/** Suppliers call every list by the same name; none of them takes the place of another. */
function freeName(folder: string, name: string): string {
  const { name: stem, ext } = parse(name)
  for (let nth = 1; ; nth += 1) {
    const file = join(folder, nth === 1 ? name : `${stem} (${nth})${ext}`)
    if (!existsSync(file)) return file
  }
}

export type Mailbox = ReturnType<typeof createMailbox>
