import type { ChooseTank } from '../../core/crates/crates.schema'
import type { ChooseTanks, PrepareStep } from '../../core/crates/delivery.schema'
import type { CrateView } from '../../core/crates/crateView'
import { planPreparation, type PreparationStep, type StepView } from '../../core/crates/preparation'
import type { Limits } from '../../core/limits/houseLimits'
import { rulesAgainst } from '../../core/tankChoice/explainChoice'
import { prepareChoice } from '../../core/tankChoice/prepareChoice'
import type { ChoiceInput, ChoiceView } from '../../core/tankChoice/tankChoice'
import type { AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { CratesService } from './crates.service'
import type { CratesStore } from './crates.store'
import type { DeliveryStore, PlannedLine } from './delivery.store'

const dayMs = 86_400_000
/** Quarrels older than this are forgotten. */
const fightMemoryDays = 60

interface Collaborators {
  store: DeliveryStore
  crates: Pick<CratesService, 'view'>
  cratesStore: CratesStore
  audit: AuditStore
  limits: () => Limits
  heldDays: (nowMs: number) => (lotId: string) => number | null
}

/** Planning a delivery: what has to be ready, and which line goes to which tank. */
export function createDeliveryService({ store, crates, cratesStore, audit, limits, heldDays }: Collaborators) {
  function choiceInput(crateId: string, lines: readonly PlannedLine[], nowMs: number): ChoiceInput {
    return { lines: lines.map(({ id, animal, count, supplier }) => ({ id, animal, count, supplier })), tanks: store.tanks(heldDays(nowMs), crateId, nowMs - fightMemoryDays * dayMs, nowMs), shipping: store.shipping(crateId), limits: limits() }
  }

  function steps(crate: CrateView, nowMs: number): PreparationStep[] {
    const lines = store.lines(crate.id).map((line) => ({ ...line, origin: crate.lines.find(({ id }) => id === line.id)?.origin ?? null, ateBefore: crate.lines.find(({ id }) => id === line.id)?.ateBefore ?? null }))
    const places = store.places().map(({ isAlone, ...place }) => ({ ...place, isAlone: isAlone === 1 }))
    const { supplier, expectedAtMs, packedAtMs } = crate
    return planPreparation({ supplier, expectedAtMs, packedAtMs, shipping: store.shipping(crate.id), lines, places, foods: store.foods(), tanks: store.tanks(heldDays(nowMs), crate.id, nowMs - fightMemoryDays * dayMs, nowMs), limits: limits() })
  }

  return {
    /** What has to be ready for a crate, and what is done of it. */
    preparation(crateId: string, nowMs: number): { steps: StepView[] } {
      const crate = crates.view(crateId)
      const done = store.doneSteps(crateId)
      return { steps: steps(crate, nowMs).map((step) => ({ ...step, done: done.get(step.key) ?? null })) }
    },

    /** Marks a step as done by whoever records, or as open again. */
    prepareStep({ params, actor, nowMs }: CommandContext, { step, isDone }: PrepareStep) {
      const crate = crates.view(params.crateId ?? '')
      if (!isDone) store.markOpen(crate.id, step)
      else {
        if (!steps(crate, nowMs).some(({ key }) => key === step)) throw fieldProblem('step', 'This step is not on the list any more')
        store.markDone({ crateId: crate.id, step, staffId: actor.id, doneAtMs: nowMs })
      }
      return {}
    },

    /** What tanks are chosen from. */
    choice(crateId: string, nowMs: number): ChoiceView {
      const crate = crates.view(crateId)
      const lines = store.lines(crateId)
      return { number: crate.number, input: choiceInput(crateId, lines, nowMs), now: lines.map(({ id, tankId, version }) => ({ tankId, version, override: tankId === null ? null : store.overrideReason(id, tankId) })) }
    },

    /** Chooses the tank of one line. */
    chooseTank(context: CommandContext, { tankId, version }: ChooseTank) {
      const { version: next } = plan(context, [{ lineId: context.params.lineId ?? '', tankId, version, override: null }], () => '')[0] ?? { version }
      return { version: next }
    },

    /** Plans tanks for lines. A hard rule is broken only by a lead, with a reason that is kept. */
    chooseTanks: (context: CommandContext, { choices }: ChooseTanks) => ({ lines: plan(context, choices, (index) => `choices[${index}].`) }),
  }

  /** Checks choices against the rules and keeps them, all or none; `prefixOf` is where their fields stand in the request. */
  function plan(context: CommandContext, choices: ChooseTanks['choices'], prefixOf: (index: number) => string): { lineId: string; version: number }[] {
    const crate = crates.view(context.params.crateId ?? '')
    if (crate.closedAtMs !== null) throw new Problem('conflict', 'This crate is closed; open it again to change what is in it')
    const lines = store.lines(crate.id)
    const choiceOf = new Map(choices.map((each, index) => [each.lineId, { ...each, prefix: prefixOf(index) }]))
    for (const { lineId, version } of choiceOf.values()) {
      const line = lines.find(({ id }) => id === lineId)
      if (!line) throw new Problem('not-found', 'There is no such line in this crate')
      if (line.version !== version) throw new Problem('stale', `Somebody else chose a tank for ${line.animal.species} meanwhile`, { current: { lineId, tankId: line.tankId, version: line.version } })
    }
    const input = choiceInput(crate.id, lines, context.nowMs)
    const ready = prepareChoice(input)
    const chosen = lines.map(({ id, tankId }) => {
      const wanted = choiceOf.has(id) ? (choiceOf.get(id)?.tankId ?? null) : tankId
      const tank = input.tanks.findIndex((each) => each.id === wanted)
      if (wanted !== null && tank < 0 && choiceOf.has(id)) throw fieldProblem(`${choiceOf.get(id)?.prefix}tankId`, 'There is no such tank')
      return tank < 0 ? null : tank
    })
    return [...choiceOf.values()].map(({ lineId, tankId, version, override, prefix }) => {
      const index = lines.findIndex(({ id }) => id === lineId)
      const tank = chosen[index] ?? null
      const broken = tank === null ? [] : rulesAgainst(ready, chosen, index, tank)
      if (broken.length > 0) keepOverride(context, { lineId, tankId: tankId ?? '', broken, reason: override, species: lines[index]?.animal.species ?? '', code: input.tanks[tank ?? -1]?.code ?? '', prefix })
      cratesStore.setLineTank(lineId, tankId, version + 1)
      return { lineId, version: version + 1 }
    })
  }

  function keepOverride({ actor, key, nowMs }: CommandContext, { lineId, tankId, broken, reason, species, code, prefix }: { lineId: string; tankId: string; broken: string[]; reason: string | null; species: string; code: string; prefix: string }): void {
    const rules = broken.join('; ')
    if (actor.role !== 'lead') throw fieldProblem(`${prefix}tankId`, `${species} must not go to ${code}: ${rules}. A lead may plan it all the same, with a reason.`)
    if (!reason?.trim()) throw fieldProblem(`${prefix}override`, `${species} in ${code} breaks a rule (${rules}); say under Tanks why it goes there all the same`)
    store.insertOverride({ id: newId(), lineId, tankId, broken: rules, reason: reason.trim(), staffId: actor.id, recordedAtMs: nowMs })
    audit.insert({ atMs: nowMs, staffId: actor.id, action: 'overruled', subject: `${species} to ${code}`, changes: { rule: [rules, reason.trim()] }, commandKey: key })
  }
}
export type DeliveryService = ReturnType<typeof createDeliveryService>
