import type { RunPlan, RunStep } from './runPlan'

export const runEventKinds = ['step', 'count', 'reading', 'flow', 'air', 'binder', 'snooze', 'note'] as const
export type RunEventKind = (typeof runEventKinds)[number]

/** What happened on a run, in the order of time. Taken back by leaving it out, never changed. */
export interface RunEvent {
  id: string
  kind: RunEventKind
  atMs: number
  /** The step in hand when it happened. */
  stepIndex: number
  staffName: string
  tempC: number | null
  salinityPpt: number | null
  ph: number | null
  /** Total ammonia as nitrogen. */
  tanMgL: number | null
  /** Read off the simulated meter. */
  isSimulated: boolean
  mlPerMin: number | null
  alarm: string | null
  untilMs: number | null
  isOn: boolean | null
  note: string | null
}

/** A run as far as its clocks need it. */
export interface RunRecord {
  id: string
  startedAtMs: number
  plan: RunPlan
  events: readonly RunEvent[]
  /** Fish that stand in its vessel now; left out where nobody asks. */
  inVessel?: number
}

/** When each step that was begun began; the last entry is the step in hand, or the end of the run. */
export const stepStarts = ({ startedAtMs, events }: Pick<RunRecord, 'startedAtMs' | 'events'>): number[] => [startedAtMs, ...events.filter(({ kind }) => kind === 'step').map(({ atMs }) => atMs)]
export const stepIndexOf = (run: Pick<RunRecord, 'startedAtMs' | 'events'>): number => stepStarts(run).length - 1
/** The step in hand at a moment, for what is recorded later than it happened. */
export const stepIndexAt = ({ events }: Pick<RunRecord, 'events'>, atMs: number): number => events.filter((event) => event.kind === 'step' && event.atMs <= atMs).length
export const stepInHand = (run: RunRecord): RunStep | null => run.plan.steps[stepIndexOf(run)] ?? null
/** Litres in the vessel when a step begins. */
export const litresBefore = ({ plan }: Pick<RunRecord, 'plan'>, index: number): number => plan.steps[index - 1]?.endL ?? plan.startL
/** Whether a binder is at work, said at the start or since. */
export const hasBinder = ({ plan, events }: Pick<RunRecord, 'plan' | 'events'>): boolean => events.findLast(({ kind }) => kind === 'binder')?.isOn ?? plan.hasBinder
/** Whether air bubbles through the water: as planned for the step in hand, or as somebody said since. */
export const hasAir = (run: RunRecord): boolean => run.events.findLast(({ kind }) => kind === 'air')?.isOn ?? stepInHand(run)?.water.some((deed) => 'handling' in deed && deed.handling === 'air') ?? false
/** Where the fish are. */
export const fishAre = (run: RunRecord): RunStep['fish'] => run.plan.steps[stepIndexOf(run) - 1]?.fish ?? 'bag'

/** Answers whether the last salinity read in the step in hand lies where its gate wants it. */
export function isGateOpen(run: Pick<RunRecord, 'startedAtMs' | 'events'>, { salinityPpt, withinPpt }: NonNullable<RunStep['gate']>): boolean {
  const read = run.events.findLast(({ kind, stepIndex, salinityPpt: ppt }) => kind === 'reading' && stepIndex === stepIndexOf(run) && ppt !== null)
  return read !== undefined && Math.abs((read.salinityPpt ?? NaN) - salinityPpt) <= withinPpt + 1e-9
}
