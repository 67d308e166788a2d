import { memo } from 'react'
import type { JudgedSchool, Verdict } from '../../core/acclimation/judge'
import type { SpeciesLimits } from '../../core/acclimation/figures'
import { figureAndLimit } from '../../core/acclimation/sentences'
import { Button } from '../ui/Button'
import { useUnits } from '../ui/useUnits'
import { inOrder } from './SchoolTable'

const most = 2
const share = (ratio: number): string => `${(100 * Math.min(most, Math.max(0, ratio))) / most}%`

interface Props {
  verdict: Verdict
  limits: SpeciesLimits
  /** The one that is advised; fish that fail go another way than others. */
  advised: string | null
  chosen: string
  onChoose: (key: string) => void
}

/** Every school on one scale, its worst figure as a share of its limit: a dot for the likely bag, a bar for eight of ten. */
export const SchoolRanking = memo(function SchoolRanking({ verdict, limits, advised, chosen, onChoose }: Props) {
  return (
    <section className="ranking" aria-label="Schools compared">
      <h2>
        Worst figure of each school, as a share of its limit <small>dot: likely bag, bar: eight of ten bags</small>
      </h2>
      <div role="radiogroup" aria-label="School">
        {inOrder(verdict, advised).map((school) => (
          <RankingRow key={school.key} school={school} limits={limits} isChosen={school.key === chosen} isRecommended={school.key === advised} onChoose={() => onChoose(school.key)} />
        ))}
      </div>
      <p className="ranking-scale" aria-hidden="true">
        <span>limit</span>
      </p>
    </section>
  )
})

interface RowProps {
  school: JudgedSchool
  limits: SpeciesLimits
  isChosen: boolean
  isRecommended: boolean
  onChoose: () => void
}

function RankingRow({ school, limits, isChosen, isRecommended, onChoose }: RowProps) {
  const { figure, value, limit } = figureAndLimit(school, limits, useUnits().display)
  const isUnder = school.worst < 1
  return (
    <Button look="bare" role="radio" aria-checked={isChosen} className={`ranking-row ${isUnder ? '' : 'is-over'}`} onClick={onChoose}>
      <span className="ranking-name">
        {school.name}
        {isRecommended && <small> recommended</small>}
      </span>
      <span className="ranking-bar" aria-hidden="true">
        <span className="band" style={{ left: share(school.worstLow), width: `calc(${share(school.worst)} - ${share(school.worstLow)})` }} />
        <span className={isUnder ? 'dot' : 'dot is-cross'} style={{ left: share(school.worstLikely) }} />
      </span>
      {/* What is said of the one in hand stands in the recommendation. */}
      <span className={isChosen ? 'ranking-words is-said' : 'ranking-words'}>
        {isUnder ? 'under' : 'over'}: {figure} {value}, limit {limit.replace(/ \(.*/, '')}
      </span>
    </Button>
  )
}
