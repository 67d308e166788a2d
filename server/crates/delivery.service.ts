import type { ChooseTank } from '../../core/crates/crates.schema'
import type { ChooseTanks, PrepareStep } from '../../core/crates/delivery.schema'
import type { CrateView } from '../../core/crates/crateView'
import { planPreparation, type PreparationStep, type StepView } from '../../core/crates/preparation'
import type { Limits } from '../../core/limits/houseLimits'
import type { ChoiceView } from '../../core/tankChoice/tankChoice'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { PlacingStore } from '../placing/placing.store'
import type { PlanService } from '../placing/plan.service'
import type { CratesService } from './crates.service'
import type { CratesStore } from './crates.store'
import type { DeliveryStore } from './delivery.store'

interface Collaborators {
  store: DeliveryStore
  crates: Pick<CratesService, 'view'>
  cratesStore: CratesStore
  plans: PlanService
  overrideReason: PlacingStore['overrideReason']
  isTank: (id: string) => boolean
  limits: () => Limits
}

/** Planning a delivery: what has to be ready, and which line goes to which tank. */
export function createDeliveryService({ store, crates, cratesStore, plans, overrideReason, isTank, limits }: Collaborators) {
  function steps(crate: CrateView, nowMs: number): PreparationStep[] {
    const lines = store.lines(crate.id).map((line) => ({ ...line, origin: crate.lines.find(({ id }) => id === line.id)?.origin ?? null, ateBefore: crate.lines.find(({ id }) => id === line.id)?.ateBefore ?? null }))
    const places = store.places().map(({ isAlone, ...place }) => ({ ...place, isAlone: isAlone === 1 }))
    const { supplier, expectedAtMs, packedAtMs } = crate
    const planned = [...new Set(lines.flatMap(({ tankId }) => tankId ?? []))]
    return planPreparation({ supplier, expectedAtMs, packedAtMs, shipping: store.shipping(crate.id), lines, places, foods: store.foods(), tanks: plans.input(crate.id, [], nowMs, planned).tanks, limits: limits() })
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
      const lines = plans.openLines(crateId)
      return { number: crate.number, input: plans.input(crateId, lines, nowMs), now: lines.map(({ lotId, tankId, version }) => ({ lotId, tankId, version, override: tankId === null ? null : overrideReason(lotId, tankId) })) }
    },

    /** Chooses the tank of one line. */
    chooseTank(context: CommandContext, { tankId, version, override }: ChooseTank) {
      const { version: next } = choose(context, [{ lineId: context.params.lineId ?? '', tankId, version, override }], () => '')[0] ?? { version }
      return { version: next }
    },

    /** Plans tanks for lines. A hard rule is broken only by a lead, with a reason that is kept. */
    chooseTanks: (context: CommandContext, { choices }: ChooseTanks) => ({ lines: choose(context, choices, (index) => `choices[${index}].`) }),
  }

  /** Keeps choices that break no rule, all or none; `prefixOf` is where their fields stand in the request. */
  function choose(context: CommandContext, choices: ChooseTanks['choices'], prefixOf: (index: number) => string): { lineId: string; version: number }[] {
    const crate = crates.view(context.params.crateId ?? '')
    if (crate.closedAtMs !== null) throw new Problem('conflict', 'This crate is closed; open it again to change what is in it')
    const lines = store.lines(crate.id)
    for (const [index, { lineId, tankId, version }] of choices.entries()) {
      const line = lines.find(({ id }) => id === lineId)
      if (!line) throw new Problem('not-found', 'There is no such line in this crate')
      if (line.version !== version) throw new Problem('stale', `Somebody else chose a tank for ${line.animal.species} meanwhile`, { current: { lineId, tankId: line.tankId, version: line.version } })
      if (tankId !== null && !isTank(tankId)) throw fieldProblem(`${prefixOf(index)}tankId`, 'There is no such tank')
      if (tankId !== null && line.open === 0) throw new Problem('conflict', `No fish of ${line.animal.species} are in bags any more: they are on the bench or in a tank, and are moved from there`)
      cratesStore.setLineTank(lineId, tankId, version + 1)
    }
    plans.require(context, crate.id, choices.map(({ lineId, override }, index) => ({ lineId, path: `${prefixOf(index)}tankId`, override })))
    return choices.map(({ lineId, version }) => ({ lineId, version: version + 1 }))
  }
}
export type DeliveryService = ReturnType<typeof createDeliveryService>
