import { countLot, isPressing, plainStep, releaseStep, triageBag, type Triage } from '../../core/crates/triage'
import type { CrateView, LineView } from '../../core/crates/crateView'
import { hasInvertebrate } from '../../core/bench/fishRules'
import { nowMs } from '../api/clock'
import { useHouseLimits, useLimits } from '../api/sharedReads'
import { Button } from '../ui/Button'
import type { BagDraft } from './bagDraft'
import { capital } from '../../core/words/capital'

/** What the fish of the bag in hand need first; deaths count over the bags of their lot. Null until the limits are read. */
export function useTriage(crate: CrateView, line: LineView | undefined, draft: BagDraft): Triage | null {
  const limits = useLimits()
  const isRead = useHouseLimits().limits !== undefined
  const { packedAtMs } = crate
  const opened = crate.bags.flatMap(({ id, lineId, record }) => (record && lineId === line?.id && id !== draft.bagId ? [record] : []))
  return isRead ? triageBag({ findings: draft, hoursInBag: packedAtMs === null ? null : (nowMs() - packedAtMs) / 3_600_000, poisons: line?.handling.poisons ?? null, isInvertebrate: hasInvertebrate(line ? [line] : []), lot: countLot([...opened, draft]) }, limits) : null
}

/** Above the thumb's buttons: the first step in words, and the one touch for fish that cannot wait. */
export function FirstStep({ triage, onRelease }: { triage: Triage | null; onRelease: () => void }) {
  return (
    <>
      <TriageLine triage={triage} />
      {triage?.step === releaseStep && (
        <Button look="act" size="hand" className="release-now" onClick={onRelease}>
          <strong>Release this bag now</strong>
          <small>records it; the quickest way comes next</small>
        </Button>
      )}
    </>
  )
}

/** The first step in words, with reasons; quiet while nothing speaks against the plan. */
function TriageLine({ triage }: { triage: Triage | null }) {
  if (!triage || triage.step === plainStep) return null
  return (
    <section className={isPressing(triage.step) ? 'triage is-pressing' : 'triage'} aria-label="First step" aria-live="polite">
      <p>
        <strong>{capital(triage.step)}.</strong> {triage.reasons.join(', ')}.
      </p>
      {triage.cautions.map((caution) => (
        <p key={caution} className="caution">
          {caution}
        </p>
      ))}
    </section>
  )
}
