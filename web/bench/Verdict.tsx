import { memo } from 'react'
import type { AcclimationQuestion } from '../../core/acclimation/question'
import { nameOfSchool, type School } from '../../core/acclimation/schools'
import { figureAndLimit, verdictCaveat } from '../../core/acclimation/sentences'
import type { BenchSubject } from '../../core/bench/benchView'
import { probeWords, saltWords } from '../../core/bench/adviseDelivery'
import { mayBePooled, staysUnderWater } from '../../core/bench/fishRules'
import { planRun } from '../../core/bench/planRun'
import { adviseRun } from '../../core/bench/runAdvice'
import type { Limits } from '../../core/limits/houseLimits'
import { useUnits } from '../ui/useUnits'
import { Notice } from '../ui/Notice'
import type { JudgeAnswer } from './answerQuestion'

interface Props {
  answer: JudgeAnswer
  subject: BenchSubject
  question: AcclimationQuestion
  /** The school in hand: the recommended one, or another that somebody chose. */
  chosen: School | null
  limits: Limits
}

/** The recommendation in words, its figures, and what would change it. */
export const Verdict = memo(function Verdict({ answer, subject, question, chosen, limits }: Props) {
  const { verdict, sentence, why, advice: delivery, turning, reading } = answer
  const { display: units } = useUnits()
  const isOwn = chosen !== null && chosen.key !== (delivery.first === 'release now' ? delivery.schoolKey : verdict.recommended)
  const judged = verdict.schools.find(({ key }) => key === chosen?.key)
  const scene = { question, limits, to: subject.tank?.code ?? 'their water', tankL: subject.tank?.netVolumeL ?? null, isPooled: question.bags > 1 && mayBePooled(subject.kinds), dropsPerMl: 20, isUnderWater: staysUnderWater(subject.kinds), units }
  const advice = chosen ? adviseRun(planRun(chosen, scene), scene, subject.temperament, subject.kinds) : []
  const nearest = judged && figureAndLimit(judged, answer.limits, units)
  return (
    <section className="verdict-box" aria-label="Recommendation" aria-live="polite">
      {isOwn && judged && nearest ? (
        <>
          <h2>{nameOfSchool(chosen)}</h2>
          <p>
            Your choice. Nearest limit: {nearest.figure} {nearest.value}, limit {nearest.limit}. Recommended is {verdict.schools.find(({ key }) => key === verdict.recommended)?.name}.
          </p>
        </>
      ) : (
        <>
          <h2>{delivery.first === 'release now' && chosen ? nameOfSchool(chosen) : verdict.schools.find(({ key }) => key === verdict.recommended)?.name}</h2>
          {/* The first action stands above already; it is not said twice. */}
          <p>{delivery.first === 'release now' ? releaseWords(delivery.sentence) : delivery.first === 'bath' ? `Without a bath: ${sentence}` : sentence}</p>
          {delivery.asks.includes('salinity') && <Notice level="watch">{saltWords}</Notice>}
          {delivery.asks.includes('temperature') && <Notice level="watch">{probeWords}</Notice>}
        </>
      )}
      <dl className="advice">
        {advice.map(({ label, value }) => (
          <div key={label}>
            <dt>{label}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {!isOwn && why && delivery.first !== 'release now' && (
        <details className="why">
          <summary>why</summary>
          <p>{why}</p>
        </details>
      )}
      <p className="aside-word">
        {reading === null ? `A first answer, from ${verdict.draws} bags; it is being firmed up. ` : ''}
        {turning && `What would change it: ${turning} `}
        {verdictCaveat}
      </p>
    </section>
  )
})

/** The sentence of a release without its first action. */
const releaseWords = (sentence: string): string => sentence.replace(/^First: .*?\)\. /, '')
