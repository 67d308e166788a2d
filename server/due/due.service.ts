import type { RecheckView, RunView } from '../../core/bench/benchView'
import type { AskedChore } from '../../core/chores/askedChore'
import type { ChoresView } from '../../core/chores/choreView'
import { meets } from '../../core/commands/things'
import { eachApart } from '../../core/collections/eachApart'
import { summaryStage, type CrateSummary } from '../../core/crates/crateSummary'
import type { StepView } from '../../core/crates/preparation'
import { byUrgency, choreDue, claimDue, crateDue, introductionDue, planDue, preparationDue, recheckDue, routineDue, runDue, runNow, vesselDue, type DueItem, type FollowedRun } from '../../core/due/due'
import { dueSources } from '../../core/due/dueSources'
import type { Limits } from '../../core/limits/houseLimits'
import type { VesselView } from '../../core/moves/moveView'
import type { IntroductionView } from '../../core/moves/introductionView'
import type { PlanView } from '../../core/plans/planView'
import type { DisplayUnits } from '../../core/units/units'
import type { Change } from '../events/changes'

interface Collaborators {
  /** Names what the books hold. */
  version: () => string
  runs: () => RunView[]
  rechecks: (nowMs: number) => RecheckView[]
  /** Crates that are not done, and those whose claim may still be made. */
  crates: (nowMs: number) => CrateSummary[]
  preparation: (crateId: string, nowMs: number) => { steps: StepView[] }
  vessels: (nowMs: number) => { vessels: VesselView[] }
  introductions: (nowMs: number) => { introductions: IntroductionView[] }
  plans: (nowMs: number) => { plans: PlanView[] }
  chores: (nowMs: number) => readonly AskedChore[]
  /** Work that comes round. */
  routine: (nowMs: number) => ChoresView
  /** Probes that have failed. */
  probes: (nowMs: number) => readonly DueItem[]
  /** What holds wait for. */
  holds: (nowMs: number) => readonly DueItem[]
  /** What regimens ask for. */
  regimens: (nowMs: number) => readonly DueItem[]
  /** What the feeds of today ask for next. */
  feeds: (nowMs: number) => readonly DueItem[]
  limits: () => Limits
  units: () => DisplayUnits
}

export interface DueView {
  /** The most urgent first. */
  items: DueItem[]
  /** Open runs, each followed once for whoever asks. */
  runs: FollowedRun[]
  /** What could not be worked out, by name; everything else could. */
  broken: string[]
}

/** For so long no step comes near enough to matter. */
const keptMs = 5000

/** All work that waits, from wherever it comes, in one shape. */
export function createDueService({ version, runs, rechecks, crates, preparation, vessels, introductions, plans, chores, routine, feeds, probes, holds, regimens, limits, units }: Collaborators) {
  let known: { version: string; atMs: number; view: DueView } | null = null

  function reckon(nowMs: number): DueView {
    const broken: string[] = []
    const apart = <Row>(rows: readonly Row[], dueOf: (row: Row) => readonly DueItem[], nameOf: (row: Row) => string): DueItem[] => eachApart(rows, dueOf, (row) => (broken.push(nameOf(row)), [])).flat()
    const all = crates(nowMs)
    const [inForce, shownIn] = [limits(), units()]
    const followed = eachApart(runs(), (run): FollowedRun => ({ run, now: runNow(run, inForce, nowMs, shownIn) }), (run) => ({ run, now: null }))
    const items = [
      ...followed.flatMap((run) => runDue(run, nowMs)),
      ...rechecks(nowMs).map((recheck) => recheckDue(recheck, nowMs)),
      ...apart(all, (crate) => [...crateDue(crate, nowMs), ...claimDue(crate, nowMs)], ({ number }) => `what is due of crate ${number}`),
      ...apart(vessels(nowMs).vessels, (vessel) => vesselDue(vessel, nowMs), ({ name }) => `how long ${name} bears its fish`),
      ...apart(introductions(nowMs).introductions, (each) => introductionDue(each, nowMs), ({ number }) => `what is due of introduction ${number}`),
      ...chores(nowMs).map((chore) => choreDue(chore, nowMs)),
      ...apart([nowMs], (now) => routineDue(routine(now)), () => 'the chores'),
      ...apart([nowMs], feeds, () => 'the next feed'),
      ...apart([nowMs], probes, () => 'the probes'),
      ...apart([nowMs], holds, () => 'what holds wait for'),
      ...apart([nowMs], regimens, () => 'what regimens ask for'),
      ...apart(plans(nowMs).plans, planDue, ({ number }) => `how plan ${number} stands`),
      ...apart(all.filter((crate) => summaryStage(crate) === 'due'), (crate) => preparation(crate.id, nowMs).steps.map((step) => preparationDue(crate, step, nowMs)), ({ number }) => `the preparation for crate ${number}`),
    ]
    return { items: items.sort(byUrgency), runs: followed, broken }
  }

  return {
    /** What touches nothing that work comes from leaves it as it stands. */
    listen({ touched, written }: Pick<Change, 'touched' | 'written'>): void {
      if (known && written && known.version === written.before && !meets(touched, dueSources)) known = { ...known, version: written.after }
    },
    /** What is due; many devices ask, so it is reckoned once for all of them. */
    view(nowMs: number): DueView {
      const isFresh = known !== null && known.version === version() && nowMs >= known.atMs && nowMs - known.atMs < keptMs
      if (!known || !isFresh) known = { version: version(), atMs: nowMs, view: reckon(nowMs) }
      return known.view
    },
  }
}
export type DueService = ReturnType<typeof createDueService>
