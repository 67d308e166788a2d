import { shippedAgents } from '../../core/dosing/agents'
import { reasonWords } from '../../core/dosing/doseReasons'
import type { EndRegimen, RecordContents, RecordDose, RecordFound, RecordStep, RecordWaterChange, RegimenPlan } from '../../core/regimens/regimens.schema'
import { requireLead, requireMayTakeBack, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { HoldBooksStore } from '../holds/holdBooks.store'
import type { FactsService } from '../facts/facts.service'
import type { LadderStand } from '../../core/regimens/offerDose'
import type { RegimensStore } from './regimens.store'
import type { Treating } from './treating'

type Started = { tankId: string; note: string | null; happenedAtMs: number } & RegimenPlan

interface Collaborators {
  store: RegimensStore
  books: Pick<HoldBooksStore, 'insertEntry'>
  treating: Treating
  facts: Pick<FactsService, 'requireTank'>
  /** Adds what was dosed to what was seen and done at tanks; answers its number. */
  observe: (row: { tankId: string; word: string; value: number; staffId: string; commandKey: string; happenedAtMs: number; recordedAtMs: number }) => number
  unobserve: (seq: number, undoneAtMs: number) => void
  standOf: (regimenId: string, nowMs: number) => LadderStand | null
  isFood: (id: string) => boolean
}

/** What people write down of regimens: what stands in a water, what went in and out, what is begun and ended. */
export function createRegimensWrites({ store, books, treating, facts, observe, unobserve, standOf, isFood }: Collaborators) {
  const by = ({ actor, key, nowMs }: CommandContext, happenedAtMs: number) => ({ staffId: actor.id, commandKey: key, happenedAtMs, recordedAtMs: nowMs })

  function requireProduct(id: string): NonNullable<ReturnType<RegimensStore['product']>> & { agent: string } {
    const product = store.product(id)
    if (!product || product.retiredAtMs !== null) throw fieldProblem('productId', 'There is no such agent')
    const { agent } = product
    if (agent === null || !(agent in shippedAgents) || shippedAgents[agent]?.isNoDose) throw fieldProblem('productId', 'Nothing is dosed with this: say under Setup, Agents, what it is of')
    return { ...product, agent }
  }
  function requireRegimen(id: string | null | undefined, path: string) {
    const found = store.regimen(id ?? '')
    if (!found || found.undoneAtMs !== null) throw fieldProblem(path, 'There is no such regimen')
    if (found.endedAtMs !== null) throw new Problem('conflict', 'This regimen has ended')
    return found
  }
  /** Low salinity is no dose, and harms as one would: the table speaks before it begins. */
  function requireBorne({ actor, nowMs }: CommandContext, tankId: string, note: string | null): void {
    const { override, reasons } = treating.ofLowSalinity(treating.water(tankId, nowMs), nowMs)
    const words = reasons.filter(({ answer }) => answer === 'R' || answer === 'X').map((reason) => reasonWords('lowSalinity', reason)).join('; ')
    if (override === 'nobody') throw fieldProblem('tankId', `Not into this water. Low salinity: ${words}. Nobody can override this.`)
    if (override !== 'lead') return
    requireLead(actor, `Low salinity: ${words}. Only a lead goes on where it is refused`)
    if (!note?.trim()) throw fieldProblem('note', `Low salinity: ${words}. A lead may override, with a reason`)
  }
  const tankOf = (context: CommandContext) => facts.requireTank(context.params.tankId ?? '', 'tankId', context.nowMs)

  return {
    recordContents(context: CommandContext, { contents, binderUntilMs }: RecordContents) {
      const { water } = tankOf(context)
      store.insertContents({ waterId: water.id, contents, binderUntilMs, staffId: context.actor.id, commandKey: context.key, atMs: context.nowMs })
      return {}
    },

    /** Agents that nobody here put in: what was there when the water was filled, or came with a tank. */
    recordFound(context: CommandContext, { agent, happenedAtMs }: RecordFound) {
      const { tankId } = tankOf(context)
      const id = newId()
      books.insertEntry({ ...{ id, kind: 'found', placeId: tankId, lotId: null, policyId: null, phase: null, days: null, word: agent, reason: null, shortDays: null, shortGates: null }, ...by(context, happenedAtMs) })
      return { id }
    },

    recordDose(context: CommandContext, { productId, regimenId, given, towardsMgL, ticked, reason, isDone, happenedAtMs }: RecordDose) {
      const { tankId } = tankOf(context)
      const product = requireProduct(productId)
      if (regimenId !== null) requireRegimen(regimenId, 'regimenId')
      const water = treating.water(tankId, context.nowMs)
      const why = reason?.trim() ?? ''
      const { check, isContentsAsked, towardsMgL: offeredTowards } = treating.offer(water, product, { stand: regimenId === null ? null : standOf(regimenId, context.nowMs), nowMs: context.nowMs, leadOverrides: why !== '' })
      const mg = product.strengthMgPerMl !== null ? given * product.strengthMgPerMl : product.activePercent !== null ? given * 10 * product.activePercent : null
      if (mg === null) throw fieldProblem('productId', 'The strength of this product is not written down: Setup, Agents')
      const offered = check.productMl ?? check.productG
      if (!isDone) {
        if (isContentsAsked) throw fieldProblem('contents', 'Say first what stands in this water')
        if (check.answer === 'refuse') throw new Problem('conflict', 'Nothing is offered for this water as it stands now: read why')
        if (offered === null || offered <= 0) throw new Problem('conflict', 'Nothing is to be dosed now')
        // What is said today may be another amount than the screen showed when it was read.
        if (given > offered * (1 + roundedShare)) throw fieldProblem('given', `At most ${Number(offered.toPrecision(3))} now`)
        const unsaid = check.reasons.filter(({ answer, code }) => answer === 'W' && !ticked.includes(code))
        if (unsaid.length > 0) throw fieldProblem('ticked', 'Tick what is said against it, or leave it')
        if (check.reasons.some(({ answer }) => answer === 'R')) requireLead(context.actor, 'Only a lead goes on where it is refused')
      }
      const observationSeq = observe({ tankId, word: product.agent, value: mg, staffId: context.actor.id, commandKey: context.key, happenedAtMs, recordedAtMs: context.nowMs })
      const id = newId()
      store.insertDose({ ...{ id, observationSeq, productId, agent: product.agent, tankId, regimenId, given, mg, offered, towardsMgL: isDone ? towardsMgL : offeredTowards, isCut: Number(!isDone && check.isCut), reasons: check.reasons, ticked, reason: why || null }, ...by(context, happenedAtMs) })
      return { id }
    },
    undoDose(context: CommandContext) {
      const row = store.dose(context.params.doseId ?? '')
      if (!row || row.undoneAtMs !== null) throw new Problem('conflict', 'There is no such dose, or it was taken back already')
      requireMayTakeBack(context, row)
      unobserve(row.observationSeq, context.nowMs)
      store.undoDose(row.id, { undoneById: context.actor.id, undoneAtMs: context.nowMs })
      return {}
    },

    recordWaterChange(context: CommandContext, { litres, productId, mixMgL, salinityPpt, regimenId, happenedAtMs }: RecordWaterChange) {
      const { tankId } = tankOf(context)
      const regimen = regimenId === null ? null : requireRegimen(regimenId, 'regimenId')
      const { volumeL } = treating.water(tankId, context.nowMs)
      if (volumeL !== null && litres > volumeL) throw fieldProblem('litres', `This water has ${Math.round(volumeL)} L`)
      const id = newId()
      // The first step down puts low salinity into the water: fish that come now come into it.
      const isFirst = regimen?.kind === 'low salinity' && !treating.water(tankId, context.nowMs).agents.includes('lowSalinity')
      const observationSeq = isFirst ? observe({ tankId, word: 'lowSalinity', value: 0, staffId: context.actor.id, commandKey: context.key, happenedAtMs, recordedAtMs: context.nowMs }) : null
      store.insertChange({ ...{ id, tankId, litres, agent: productId === null ? null : requireProduct(productId).agent, mixMgL, salinityPpt, regimenId, observationSeq }, ...by(context, happenedAtMs) })
      return { id }
    },
    undoWaterChange(context: CommandContext) {
      const row = store.change(context.params.changeId ?? '')
      if (!row || row.undoneAtMs !== null) throw new Problem('conflict', 'There is no such change, or it was taken back already')
      requireMayTakeBack(context, row)
      if (row.observationSeq !== null) unobserve(row.observationSeq, context.nowMs)
      store.undoChange(row.id, { undoneById: context.actor.id, undoneAtMs: context.nowMs })
      return {}
    },

    start(context: CommandContext, { tankId, note, happenedAtMs, ...plan }: Started) {
      facts.requireTank(tankId, 'tankId', context.nowMs)
      if ('productId' in plan) requireProduct(plan.productId)
      if ('foodId' in plan && !isFood(plan.foodId)) throw fieldProblem('foodId', 'There is no such food')
      if (plan.kind === 'transfer') {
        for (const [index, id] of plan.tankIds.entries()) facts.requireTank(id, `tankIds[${index}]`, context.nowMs)
        if (plan.tankIds[0] !== tankId) throw fieldProblem('tankIds[0]', 'The first tank is the one in which they stand')
      }
      if (plan.kind === 'ladder' && shippedAgents[requireProduct(plan.productId).agent]?.kit === undefined) throw fieldProblem('productId', 'No kit reads this: a ladder goes by readings')
      if (plan.kind === 'low salinity') requireBorne(context, tankId, note)
      const id = newId()
      store.insertRegimen({ ...{ id, kind: plan.kind, tankId, plan, note: note?.trim() || null }, ...by(context, happenedAtMs) })
      return { id }
    },
    endRegimen(context: CommandContext, { reason }: EndRegimen) {
      const { id } = requireRegimen(context.params.regimenId, 'regimenId')
      store.endRegimen(id, { endedAtMs: context.nowMs, endedById: context.actor.id, endReason: reason.trim() })
      return {}
    },
    recordStep(context: CommandContext, { kind, tankId, happenedAtMs }: RecordStep) {
      const { id: regimenId } = requireRegimen(context.params.regimenId, 'regimenId')
      facts.requireTank(tankId, 'tankId', context.nowMs)
      const id = newId()
      books.insertEntry({ ...{ id, kind, regimenId, placeId: tankId, lotId: null, policyId: null, phase: null, days: null, word: null, reason: null, shortDays: null, shortGates: null }, ...by(context, happenedAtMs) })
      return { id }
    },
  }
}
export type RegimensWrites = ReturnType<typeof createRegimensWrites>

/** What is measured out by hand is as much as was offered within this share. */
const roundedShare = 0.02
