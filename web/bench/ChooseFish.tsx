import type { BenchSubject } from '../../core/bench/benchView'
import { Button } from '../ui/Button'
import { Stepper } from '../ui/Stepper'

export interface ChosenFish {
  /** Bags that stay where they are for now. */
  left: readonly string[]
  /** How many fish of a lot in a tank; null for all of them. */
  quantity: number | null
}
export const allFish: ChosenFish = { left: [], quantity: null }

/** The subject with only the fish that were chosen; how many bags go is then known, and need not be typed. */
export function withChosen(subject: BenchSubject, { left, quantity }: ChosenFish): BenchSubject {
  const bags = subject.sources.filter(({ placeId }) => !left.includes(placeId))
  if (subject.lineIds.length === 0) {
    const sources = subject.sources.map((source) => ({ ...source, quantity: Math.min(source.quantity, quantity ?? source.quantity) }))
    const [source] = sources
    return { ...subject, title: source ? `${source.quantity} ${source.species} from ${source.from}` : subject.title, sources, figures: { ...subject.figures, fish: { value: source?.quantity ?? 1, from: 'list' } } }
  }
  if (left.length === 0 || bags.length === 0) return subject
  const fish = bags.reduce((sum, source) => sum + source.quantity, 0)
  return { ...subject, sources: bags, figures: { ...subject.figures, bags: { value: bags.length, from: 'list' }, fish: { value: Math.max(1, Math.round(fish / bags.length)), from: 'list' } } }
}

interface Props {
  subject: BenchSubject
  chosen: ChosenFish
  onChange: (chosen: ChosenFish) => void
}

/** Which bags of a line, or how many fish of a tank, go on the bench. */
export function ChooseFish({ subject, chosen, onChange }: Props) {
  if (subject.lineIds.length === 0) {
    const most = subject.sources[0]?.quantity ?? 1
    return <Stepper label="fish to the bench" value={chosen.quantity ?? most} max={most} onChange={(quantity) => onChange({ ...chosen, quantity: Math.max(1, quantity) })} />
  }
  if (subject.sources.length < 2) return null
  return (
    <div className="choose-bags" role="group" aria-label="Bags to the bench">
      {subject.sources.map(({ placeId, from, quantity, species }) => {
        const isIn = !chosen.left.includes(placeId)
        const isLast = isIn && subject.sources.length - chosen.left.length === 1
        return (
          <Button key={placeId} aria-pressed={isIn} disabled={isLast} onClick={() => onChange({ ...chosen, left: isIn ? [...chosen.left, placeId] : chosen.left.filter((each) => each !== placeId) })}>
            {from}, {quantity}{subject.lineIds.length > 1 ? ` ${species}` : ''}
          </Button>
        )
      })}
    </div>
  )
}
