import { readPolicy } from '../../core/holds/readPolicy.schema'
import { shippedPolicies } from '../../core/holds/shippedHolds'
import type { Database } from '../db/open'

/** What keeps the holds of a room from being played, in words: policies that cannot be read, or that are in no list. One of them would stop every clock. */
export function unplayableHolds({ raw }: Pick<Database, 'raw'>): string[] {
  const own = raw.prepare('SELECT id, policy FROM hold_policy').all() as { id: string; policy: string }[]
  const unread = own.flatMap(({ id, policy }) => {
    const read = readPolicy(JSON.parse(policy))
    return read.ok ? [] : [`the hold policy ${id} cannot be followed: ${read.problems.join(', ')}`]
  })
  const known = new Set([...shippedPolicies, ...own].map(({ id }) => id))
  const asked = raw.prepare('SELECT policy_id AS id FROM hold_begin UNION SELECT policy_id FROM hold_entry UNION SELECT policy_id FROM hold_carried').all() as { id: string | null }[]
  return [...unread, ...asked.flatMap(({ id }) => (id === null || known.has(id) ? [] : [`there is no hold policy ${id}`]))]
}
