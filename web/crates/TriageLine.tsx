import { triageBag } from '../../core/crates/triage'
import { nowMs } from '../api/clock'
import { useHouseLimits } from '../api/sharedReads'
import type { BagDraft } from './bagDraft'

/** What the fish of the bag in hand need first, with reasons; quiet while nothing speaks against the plan. */
export function TriageLine({ draft, packedAtMs, poisons }: { draft: BagDraft; packedAtMs: number | null; poisons: string | null }) {
  const longInBagHours = useHouseLimits().limits?.find(({ key }) => key === 'longInBagHours')?.value
  if (longInBagHours === undefined) return null
  const hoursInBag = packedAtMs === null ? null : (nowMs() - packedAtMs) / 3_600_000
  const triage = triageBag({ findings: draft, hoursInBag, poisons }, { longInBagHours })
  if (!triage || triage.step === 'as planned') return null
  const isPressing = triage.step === 'release at once' || triage.step.startsWith('first-response')
  return (
    <section className={isPressing ? 'triage is-pressing' : 'triage'} aria-label="First step" aria-live="polite">
      <p>
        <strong>{triage.step.charAt(0).toUpperCase() + triage.step.slice(1)}.</strong> {triage.reasons.join(', ')}.
      </p>
      {triage.cautions.map((caution) => (
        <p key={caution} className="caution">
          {caution}
        </p>
      ))}
    </section>
  )
}
