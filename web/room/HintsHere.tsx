import type { HintsView } from '../../core/outcomes/outcomeViews'
import { useLossHints } from '../api/sharedReads'
import { LossHints } from '../ui/LossHints'

/** What the losses of two weeks in a tank look like; nothing where none were lost. */
export default function HintsHere({ code }: { code: string }) {
  const hints: HintsView | undefined = useLossHints(code)
  if (!hints || hints.lost === 0) return null
  return (
    <section className="row-section" aria-label="What the losses look like">
      <h2>What the losses look like</h2>
      <LossHints hints={hints} />
    </section>
  )
}
