import Papa from 'papaparse'
import { claimSheet, type ClaimLine, type ClaimStanding, type ClaimView } from '../../core/crates/claim'
import type { EditClaim } from '../../core/crates/claim.schema'
import type { CrateView } from '../../core/crates/crateView'
import { formulaLike } from '../../core/setup/registerCsv'
import { changesBetween, type AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import type { ClaimStore } from './claim.store'
import type { CratesService } from './crates.service'

interface Collaborators {
  store: ClaimStore
  crates: Pick<CratesService, 'view'>
  audit: AuditStore
}

/** What a supplier is asked to make good: the sheet is computed from the bags, only its standing is kept. */
export function createClaimService({ store, crates, audit }: Collaborators) {
  function standingOf(crateId: string): ClaimStanding {
    const { state = 'draft', note = null, sentAtMs = null, settledAtMs = null, settledAmount = null, version = 0 } = store.claimOf(crateId) ?? {}
    return { state, note, sentAtMs, settledAtMs, settledAmount, version }
  }

  return {
    /** The claim of a crate as it stands. */
    view(crateId: string): ClaimView {
      const crate = crates.view(crateId)
      return { ...standingOf(crateId), rules: store.rulesOf(crateId), sheet: claimSheet(crate) }
    },

    /** Moves a claim on: draft, sent, settled with its amount; or back, when it was a slip. */
    editClaim({ params, actor, key, nowMs }: CommandContext, { state, note, settledAmount, atMs, version }: EditClaim) {
      const crate = crates.view(params.crateId ?? '')
      const before = standingOf(crate.id)
      if (before.version !== version) throw new Problem('stale', 'Somebody else changed this claim meanwhile', { current: before })
      const moment = atMs ?? nowMs
      const after: ClaimStanding = {
        ...{ state, note, version: version + 1 },
        sentAtMs: state === 'draft' ? null : (before.sentAtMs ?? moment),
        settledAtMs: state === 'settled' ? (before.settledAtMs ?? moment) : null,
        settledAmount: state === 'settled' ? settledAmount : null,
      }
      store.keep({ crateId: crate.id, ...after })
      audit.insert({ atMs: nowMs, staffId: actor.id, action: `claim ${state}`, subject: `crate ${crate.number}`, changes: changesBetween({ ...before, version: null }, { ...after, version: null }), commandKey: key })
      return { version: after.version }
    },

    /** The sheet as a file (RFC 4180): a row for every bag of which something is claimed. */
    writeCsv(crateId: string): string {
      const crate = crates.view(crateId)
      const rows = claimSheet(crate).lines.flatMap((line) => line.bags.map((bag) => csvRow(crate, line, bag)))
      return Papa.unparse({ fields: csvColumns, data: rows }, { newline: '\r\n', escapeFormulae: formulaLike })
    },
  }
}
export type ClaimService = ReturnType<typeof createClaimService>

const csvColumns = ['crate', 'supplier', 'line', 'species', 'bag', 'listed', 'alive', 'dead', 'missing', 'mishap', 'price each', 'opened at', 'opened by', 'readings', 'note', 'pictures']

const csvRow = ({ number, supplier }: CrateView, { lotCode, species, priceEach }: ClaimLine, bag: ClaimLine['bags'][number]): (string | number)[] => [
  ...[number, supplier, lotCode, species, bag.number, bag.listed, bag.alive, bag.dead, bag.missing, bag.mishap ?? '', priceEach ?? ''],
  ...[new Date(bag.happenedAtMs).toISOString(), bag.staffName, bag.readings.join('; '), bag.note ?? '', bag.photoIds.length],
]
