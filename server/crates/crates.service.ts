import type { RecordBox } from '../../core/crates/box.schema'
import { unidentified, type AddBag, type CloseCrate, type CreateCrate, type EditCrate, type EditLine, type IdentifyLine, type ListLine, type RecordBags, type RemoveLine, type ReopenCrate, type UndoBags } from '../../core/crates/crates.schema'
import { headingKey, type ListMapping } from '../../core/crates/listMapping'
import { splitIntoBags } from '../../core/crates/splitIntoBags'
import { closedPage, plainFindings, totalBags, type BagFindings, type CrateList, type CrateView } from '../../core/crates/crateView'
import { bounds } from '../../core/fields/fields.schema'
import { outsidePlaceId } from '../../core/ledger/movement'
import { nameKey } from '../../core/words/nameKey'
import { changesBetween, type AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import type { LedgerStore } from '../ledger/ledger.store'
import { newId } from '../newId'
import type { PlanService } from '../placing/plan.service'
import type { SpeciesStore } from '../species/species.store'
import { crateGuards } from './crateGuards'
import type { CratesStore, OpenedBag } from './crates.store'

interface Collaborators {
  store: CratesStore
  ledger: LedgerService
  ledgerStore: LedgerStore
  species: SpeciesStore
  isTank: (id: string) => boolean
  plans: Pick<PlanService, 'require'>
  audit: AuditStore
}

/** Crates from the packing list to the last fish out of its bag. */
export function createCratesService({ store, ledger, ledgerStore, species, isTank, plans, audit }: Collaborators) {
  const { requireCrate, requireOpen } = crateGuards(store)

  function requireBag(crateId: string, bagId: string, index: number): OpenedBag {
    const bag = store.bagOfCrate(crateId, bagId)
    if (!bag) throw fieldProblem(`bagIds[${index}]`, 'This bag is not part of this crate')
    return bag
  }

  function recordBag(context: CommandContext, bag: OpenedBag, input: RecordBags): void {
    const known = store.standingRecord(bag.id)
    if (known) throw new Problem('conflict', `Bag ${bag.number} was recorded already (${known.alive} alive, ${known.dead} dead, by ${known.staffName})`, { current: { alive: known.alive, dead: known.dead } })
    const { bagIds: _, happenedAtMs, ...found } = input
    const { actor, key, nowMs } = context
    store.insertRecord({ id: newId(), bagId: bag.id, ...findingsOf(found), happenedAtMs, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
    const { alive, dead } = input
    const entry = { lotId: bag.lotId, happenedAtMs }
    if (alive + dead > 0) ledger.write(context, { ...entry, kind: 'arrive', fromPlaceId: outsidePlaceId, toPlaceId: bag.id, quantity: alive + dead })
    if (dead > 0) ledger.write(context, { ...entry, kind: 'dead-in-bag', fromPlaceId: bag.id, toPlaceId: outsidePlaceId, quantity: dead })
  }

  function undoBag(context: CommandContext, bag: OpenedBag, happenedAtMs: number): void {
    const record = store.standingRecord(bag.id)
    if (!record) throw new Problem('conflict', `Bag ${bag.number} has no record to undo`)
    for (const movement of ledgerStore.standingOfCommand(record.commandKey, bag.id)) ledger.reverse(context, movement, happenedAtMs, 'bag undone')
    store.markUndone(record.id, { undoneById: context.actor.id, undoneAtMs: context.nowMs, undoneCommandKey: context.key })
  }

  /** Writes a line with its lot and bags; `prefix` is where its fields stand in the request. */
  function insertLine(crate: { id: string; number: number; supplier: string }, input: ListLine, position: number, prefix: string, nowMs: number): string {
    if (input.tankId !== null && !isTank(input.tankId)) throw fieldProblem(`${prefix}tankId`, 'There is no such tank')
    const [lotId, lineId] = [newId(), newId()]
    const code = `${crate.number}-${String(position).padStart(2, '0')}`
    ledgerStore.insertLot({ id: lotId, code, speciesId: species.named(input.species, nowMs, `${prefix}species`), origin: crate.supplier, createdAtMs: nowMs })
    store.insertLine({ id: lineId, crateId: crate.id, position, count: input.count, lotId, tankId: input.tankId, version: 1, ...detailsOf(input), told: input.told ?? null })
    insertBags(crate.id, lineId, input, prefix)
    return lineId
  }

  function beginCrate({ nowMs }: CommandContext, supplier: { id: string; name: string }, input: CreateCrate): { id: string; number: number; supplier: string } {
    const crate = { id: newId(), number: store.nextNumber(), supplier: supplier.name }
    const { tempC, salinityPpt, ph, alkalinityMeqL } = input.told?.water ?? {}
    const told = { shippingTempC: tempC ?? null, shippingSalinityPpt: salinityPpt ?? null, shippingPh: ph ?? null, shippingAlkalinityMeqL: alkalinityMeqL ?? null, method: input.told?.method ?? null }
    store.insertCrate({ id: crate.id, number: crate.number, supplierId: supplier.id, expectedAtMs: input.expectedAtMs, packedAtMs: input.packedAtMs, carrier: input.carrier ?? null, hasList: input.hasList === false ? 0 : 1, note: input.note ?? null, ...told, createdAtMs: nowMs })
    return crate
  }

  /** Numbers new bags with the lowest numbers that are free. */
  function insertBags(crateId: string, lineId: string, input: Pick<ListLine, 'count' | 'bags' | 'perBag'>, prefix: string): void {
    const split = splitIntoBags(input.count, input.bags, input.perBag)
    if (!split.ok) throw fieldProblem(`${prefix}perBag`, split.reason)
    const taken = new Set(store.bagNumbers(crateId))
    if (taken.size + split.fish.length > bounds.bagsInCrate) throw fieldProblem(`${prefix}bags`, `A crate may have at most ${bounds.bagsInCrate} bags`)
    let number = 0
    for (const listed of split.fish) {
      do number += 1
      while (taken.has(number))
      const id = newId()
      ledgerStore.insertPlace(id, 'bag')
      store.insertBag({ id, lineId, crateId, number, listed })
    }
  }

  /** A line for fish that no list speaks of. */
  function addUnlisted({ nowMs }: CommandContext, crate: CrateView, name: string | null): { id: string; lotId: string } {
    const [lotId, id] = [newId(), newId()]
    const position = store.lastPosition(crate.id) + 1
    ledgerStore.insertLot({ id: lotId, code: `${crate.number}-${String(position).padStart(2, '0')}`, speciesId: species.named(name ?? unidentified, nowMs), origin: crate.supplier, createdAtMs: nowMs })
    store.insertLine({ id, crateId: crate.id, position, count: 0, lotId, tankId: null, version: 1, ...detailsOf({ identity: name === null ? 'doubtful' : 'likely' }) })
    return { id, lotId }
  }

  /** Only bags of a line that was counted in can become more. */
  function requireUnlisted(crate: CrateView, lineId: string): { id: string; lotId: string } {
    const line = crate.lines.find(({ id }) => id === lineId)
    if (!line || line.count > 0) throw fieldProblem('lineId', 'Only a line that was counted in here takes more bags')
    return line
  }

  function requireVersion(crateId: string, version: number): CrateView {
    const crate = store.view(crateId) as CrateView
    if (crate.version !== version) throw new Problem('stale', 'Somebody else changed this crate meanwhile', { current: { version: crate.version, closedAtMs: crate.closedAtMs } })
    return crate
  }

  function requireLine(crateId: string, lineId: string | undefined, version: number) {
    const line = store.view(crateId)?.lines.find((each) => each.id === lineId)
    if (!line) throw new Problem('not-found', 'There is no such line in this crate')
    if (line.version !== version) throw new Problem('stale', 'Somebody else changed this line meanwhile', { current: line })
    return line
  }

  /** A lot that is called something else stands with others from then on: what is booked of it is what there is. */
  function settleBefore(context: CommandContext, line: { lotId: string; species: string; strain: string | null }, next: { species: string; strain?: string | null | undefined }): void {
    if (line.species !== next.species || (line.strain ?? '') !== (next.strain ?? '')) ledger.settle(context, line.lotId)
  }

  const log = ({ actor, key, nowMs }: CommandContext, action: string, subject: string, before: object, after: object): void =>
    audit.insert({ atMs: nowMs, staffId: actor.id, action, subject, changes: changesBetween(before as Record<string, unknown>, after as Record<string, unknown>), commandKey: key })

  return {
    /** Crates, newest first: every open one, and as many closed ones as asked for. */
    list(closed: number): CrateList {
      const most = Math.max(closedPage, closed)
      const crates = store.openAndNewest(most + 1)
      const ended = crates.filter(({ closedAtMs }) => closedAtMs !== null).sort((a, b) => (b.closedAtMs ?? 0) - (a.closedAtMs ?? 0))
      return { crates: crates.filter((crate) => crate !== ended[most]), hasOlder: ended.length > most }
    },

    /** One crate with its lines and bags. */
    view(id: string): CrateView {
      const view = store.view(id)
      if (!view) throw new Problem('not-found', 'There is no such crate')
      return view
    },

    /** Takes a crate in: its lines become lots, its bags places, all at once or not at all. A further part of a list adds its lines to the crate it belongs to. */
    createCrate(context: CommandContext, input: CreateCrate) {
      const bagCount = input.lines.reduce((sum, line) => sum + line.bags, 0)
      if (bagCount > bounds.bagsInCrate) throw fieldProblem('lines', `A crate may have at most ${bounds.bagsInCrate} bags; this list has ${bagCount}`)
      const supplier = store.supplierNamed(input.supplier)
      const known = input.told?.part && input.packedAtMs !== null ? store.openPackedAt(supplier.id, input.packedAtMs) : null
      const crate = known ? { ...known, supplier: supplier.name } : beginCrate(context, supplier, input)
      const before = known ? store.lastPosition(crate.id) : 0
      if (known && isThere(store.view(crate.id), input.lines)) throw new Problem('conflict', `This part of the list is in crate ${crate.number} already`)
      const lineIds = input.lines.map((line, index) => insertLine(crate, line, before + index + 1, `lines[${index}].`, context.nowMs))
      plans.require(context, crate.id, lineIds.map((lineId, index) => ({ lineId, path: `lines[${index}].tankId`, override: input.lines[index]?.override })))
      if (input.listMapping) store.rememberMapping(supplier.id, headingKey(input.listMapping.heading.map((cell) => cell ?? '')), input.listMapping.mapping as ListMapping)
      return { id: crate.id, number: crate.number }
    },

    /** Changes what is known of a crate as a whole. Lots that are in the books already keep the supplier they came under. */
    editCrate(context: CommandContext, { version, ...input }: EditCrate) {
      const crate = store.view(requireCrate(context.params.crateId)) as CrateView
      const { supplier, expectedAtMs, packedAtMs, carrier, note } = crate
      if (crate.version !== version) throw new Problem('stale', 'Somebody else changed this crate meanwhile', { current: { supplier, expectedAtMs, packedAtMs, carrier, note, version: crate.version } })
      const named = store.supplierNamed(input.supplier)
      store.updateCrate(crate.id, { supplierId: named.id, expectedAtMs: input.expectedAtMs, packedAtMs: input.packedAtMs, carrier: input.carrier ?? null, note: input.note, version: version + 1 })
      if (named.name !== supplier) for (const line of crate.lines) store.updateLot(line.lotId, { origin: named.name })
      log(context, 'edited', `crate ${crate.number}`, { supplier, expectedAtMs, packedAtMs, carrier, note }, { ...input, supplier: named.name })
      return { version: version + 1 }
    },

    /** Adds a line to a crate that is in the books already. */
    addLine(context: CommandContext, input: ListLine) {
      const crate = store.view(requireOpen(context.params.crateId)) as CrateView
      const id = insertLine(crate, input, store.lastPosition(crate.id) + 1, '', context.nowMs)
      plans.require(context, crate.id, [{ lineId: id, path: 'tankId', override: input.override }])
      log(context, 'added', `line ${input.species} of crate ${crate.number}`, {}, input)
      return { id, version: 1 }
    },

    /** Changes a line. A new name changes what the lot is called, not what was counted; the old name stands in the audit. */
    editLine(context: CommandContext, { version, tankId, override, ...input }: EditLine) {
      const crateId = requireOpen(context.params.crateId)
      const line = requireLine(crateId, context.params.lineId, version)
      const bags = store.bagsOfLine(line.id)
      const split = splitIntoBags(input.count, input.bags, input.perBag)
      if (!split.ok) throw fieldProblem('perBag', split.reason)
      const isRepacked = split.fish.join() !== bags.map((bag) => bag.listed).join()
      const trace = isRepacked ? store.traceOf(line.id) : null
      if (trace) throw fieldProblem('count', `${traces[trace]}; fish and bags of the list stay as they are`)
      if (isRepacked) {
        store.deleteBags(line.id)
        insertBags(crateId, line.id, input, '')
      }
      if (tankId && !isTank(tankId)) throw fieldProblem('tankId', 'There is no such tank')
      settleBefore(context, line, input)
      store.updateLine(line.id, { count: input.count, ...detailsOf(input), ...(tankId === undefined ? {} : { tankId }), version: version + 1 })
      store.updateLot(line.lotId, { speciesId: species.named(input.species, context.nowMs, 'species') })
      plans.require(context, crateId, [{ lineId: line.id, path: 'tankId', override }])
      log(context, 'edited', `line ${line.lotCode}`, { ...line, bags: bags.length, perBag: null, tank: null, version: null, id: null, lotId: null, lotCode: null, position: null }, { ...input, perBag: null })
      return { version: version + 1 }
    },

    /** Takes a line off the list, while it is on the list alone. */
    removeLine(context: CommandContext, { version }: RemoveLine) {
      const crateId = requireOpen(context.params.crateId)
      const line = requireLine(crateId, context.params.lineId, version)
      const trace = store.traceOf(line.id)
      if (trace) throw new Problem('conflict', `${traces[trace]}, so the line stays`)
      if (store.isInBooks(line.lotId)) throw new Problem('conflict', 'Fish of this line are in the books already, so the line stays')
      if (store.countLines(crateId) === 1) throw new Problem('conflict', 'A crate keeps at least one line')
      store.deleteBags(line.id)
      store.deleteLine(line.id, line.lotId)
      log(context, 'removed', `line ${line.lotCode} ${line.species}`, { species: line.species, count: line.count }, {})
      return {}
    },

    /** Records what was found in bags: the fish then stand in the bag, the dead leave it at once. */
    recordBags(context: CommandContext, input: RecordBags) {
      const crateId = requireOpen(context.params.crateId)
      input.bagIds.forEach((bagId, index) => recordBag(context, requireBag(crateId, bagId, index), input))
      return {}
    },

    /** Records bags that no line speaks of, opened at once: of a line and a lot of their own, or of a line that was counted in before. */
    addBag(context: CommandContext, { species: name, lineId: known = null, bagIds = [newId()], ...found }: AddBag) {
      const crate = store.view(requireOpen(context.params.crateId)) as CrateView
      const taken = store.bagNumbers(crate.id)
      if (taken.length + bagIds.length > bounds.bagsInCrate) throw new Problem('conflict', `A crate may have at most ${bounds.bagsInCrate} bags`)
      const line = known === null ? addUnlisted(context, crate, name) : requireUnlisted(crate, known)
      const first = Math.max(0, ...taken) + 1
      bagIds.forEach((id, index) => {
        if (ledgerStore.isPlace(id)) throw fieldProblem(`bagIds[${index}]`, 'There is such a bag already')
        ledgerStore.insertPlace(id, 'bag')
        store.insertBag({ id, lineId: line.id, crateId: crate.id, number: first + index, listed: 0 })
        recordBag(context, { id, crateId: crate.id, lotId: line.lotId, number: first + index }, { ...plainFindings, ...found, bagIds: [id] })
      })
      return { bagId: bagIds[0] ?? '', lineId: line.id, number: first }
    },

    /** Says what a lot is. What was counted stays; the old name stands in the audit. */
    identifyLine(context: CommandContext, { species: name, identity, strain, version }: IdentifyLine) {
      const line = requireLine(requireCrate(context.params.crateId), context.params.lineId, version)
      settleBefore(context, line, { species: name, strain })
      const before = ledgerStore.lotNamed(line.lotId)
      store.updateLine(line.id, { identity, strain, version: version + 1 })
      store.updateLot(line.lotId, { speciesId: species.named(name, context.nowMs, 'species') })
      if (before) ledger.keepName(context, line.lotId, before, null)
      log(context, 'identified', `line ${line.lotCode}`, { species: line.species, identity: line.identity, strain: line.strain }, { species: name, identity, strain })
      return { version: version + 1 }
    },

    /** Records what was seen of the box itself. */
    recordBox(context: CommandContext, { box, version }: RecordBox) {
      const crate = store.view(requireOpen(context.params.crateId)) as CrateView
      if (crate.boxVersion !== version) throw new Problem('stale', 'Somebody else described the box meanwhile', { current: { box: crate.box, version: crate.boxVersion } })
      store.updateCrate(crate.id, { box, boxVersion: version + 1 })
      return { version: version + 1 }
    },

    /** Closes a crate whose fish are all accounted for; otherwise only with a reason. */
    closeCrate(context: CommandContext, { because, version }: CloseCrate) {
      const crate = requireVersion(requireOpen(context.params.crateId), version)
      const { bags, opened, inBags } = totalBags(crate.bags)
      const left = [inBags > 0 ? `${inBags} fish still stand in bags` : '', opened < bags ? `${bags - opened} bags are still shut` : ''].filter(Boolean).join(' and ')
      if (left && !because?.trim()) throw fieldProblem('because', `${left.charAt(0).toUpperCase()}${left.slice(1)}: place and open them, or say why the crate is closed so`)
      store.updateCrate(crate.id, { closedAtMs: context.nowMs, closedById: context.actor.id, closedBecause: left ? because : null, version: version + 1 })
      log(context, 'closed', `crate ${crate.number}`, {}, left ? { left, because } : {})
      return { version: version + 1 }
    },

    /** Opens a closed crate again. */
    reopenCrate(context: CommandContext, { version }: ReopenCrate) {
      const crate = requireVersion(requireCrate(context.params.crateId), version)
      if (crate.closedAtMs === null) throw new Problem('conflict', 'This crate is open')
      store.updateCrate(crate.id, { closedAtMs: null, closedById: null, closedBecause: null, version: version + 1 })
      log(context, 'opened again', `crate ${crate.number}`, {}, {})
      return { version: version + 1 }
    },

    /** Takes back what was recorded for bags, while their fish are still in them. */
    undoBags(context: CommandContext, { bagIds, happenedAtMs }: UndoBags) {
      const crateId = requireOpen(context.params.crateId)
      bagIds.forEach((bagId, index) => undoBag(context, requireBag(crateId, bagId, index), happenedAtMs))
      return {}
    },
  }
}

/** Why the bags of a line stay as they are. */
const traces = { opened: 'A bag of this line was opened already', pictured: 'A picture of a bag of this line was taken already' }

type Details = Partial<Pick<ListLine, 'origin' | 'strain' | 'identity' | 'promisedTo' | 'billed' | 'sizeCm' | 'priceEach' | 'capture' | 'ateBefore' | 'note'>>
const detailsOf = ({ origin = null, strain = null, identity = null, promisedTo = null, billed = null, sizeCm = null, priceEach = null, capture = null, ateBefore = null, note = null }: Details) => ({
  ...{ origin, strain, identity, promisedTo, billed, sizeCm, priceEach, capture, ateBefore, note },
})

/** Findings as the table keeps them; what an older device does not know of counts as not asked. */
const findingsOf = ({ ph = null, salinityBy = null, phBy = null, ammoniaMgL = null, hasBinder = null, behaviour = null, mishap = null, ...found }: BagFindings) => ({
  ...found,
  ...{ ph, salinityBy, phBy, ammoniaMgL, behaviour, mishap, hasBinder: hasBinder === null ? null : Number(hasBinder) },
})

export type CratesService = ReturnType<typeof createCratesService>

/** Whether all lines of a part are on the list of a crate already: a code that was read twice. */
const isThere = (crate: CrateView | null, lines: readonly ListLine[]): boolean => lines.length > 0 && lines.every(({ species, count }) => crate?.lines.some((line) => nameKey(line.species) === nameKey(species) && line.count === count))
