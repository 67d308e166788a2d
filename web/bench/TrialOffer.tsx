import { useState } from 'react'
import type { Verdict } from '../../core/acclimation/judge'
import { schoolOfTheDay } from '../../core/outcomes/designSchedule'
import type { TrialOfCrate } from '../../core/outcomes/outcomeViews'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import { useTakePart } from './useBench'

interface Props {
  trial: TrialOfCrate
  crateId: string
  crateNumber: number
  verdict: Verdict | null
  hasBinder: boolean
  /** What has to be done with these fish first leaves no choice of a school. */
  isPressing: boolean
  /** Where the school it was given is in hand already. */
  isInHand: boolean
  onSchool: (key: string) => void
}

/** A school in the verdict, whichever way it is done for these bags. */
const named = (verdict: Verdict, name: string) => verdict.schools.find((school) => school.name === name)

/** What a trial says of this crate: the school of the schedule, or why it does not take part. */
export function TrialOffer({ trial, crateId, crateNumber, verdict, hasBinder, isPressing, isInHand, onSchool }: Props) {
  const takePart = useTakePart()
  const [problem, setProblem] = useState<string | null>(null)
  const [a, b] = trial.schools
  const given = verdict && trial.school !== null ? named(verdict, trial.school) : undefined
  if (trial.school !== null) {
    return (
      <section className="trial-offer" aria-label="Trial">
        <p>
          <strong>Trial {trial.number}: {trial.school}.</strong> Crate {crateNumber} was given it by the schedule{given && given.worst >= 1 ? '; for these fish it is over a house limit: take what is recommended' : ''}. A lead may overrule; it counts as it was given.
        </p>
        {given && !isInHand && given.worst < 1 && <Button onClick={() => onSchool(given.key)}>take {trial.school}</Button>}
      </section>
    )
  }
  const [ofA, ofB] = verdict ? [named(verdict, a), named(verdict, b)] : [undefined, undefined]
  const offer = why(trial, { ofA: ofA?.worst, ofB: ofB?.worst, hasBinder, isPressing })
  return (
    <section className="trial-offer" aria-label="Trial">
      <p>
        <strong>Trial {trial.number}, {a} or {b}:</strong> {offer.school === null ? `this crate does not take part, ${offer.why}` : `next is ${offer.school}, ${offer.why}`}.
      </p>
      {offer.school !== null && ofA && ofB && (
        <Button
          size="hand"
          onClick={() =>
            void takePart(trial.trialId, { crateId, worstA: ofA.worst, worstB: ofB.worst, hasBinder }).then(({ school }) => {
              setProblem(null)
              const key = verdict ? named(verdict, school)?.key : undefined
              if (key !== undefined) onSchool(key)
            }, (error: unknown) => setProblem(sentenceOf(error)))
          }
        >
          take part: {offer.school}
        </Button>
      )}
      <Problem>{problem}</Problem>
    </section>
  )
}

function why({ schools, block, next, whyNot }: TrialOfCrate, { ofA, ofB, hasBinder, isPressing }: { ofA: number | undefined; ofB: number | undefined; hasBinder: boolean; isPressing: boolean }): { school: string | null; why: string } {
  if (whyNot !== null || next === null) return { school: null, why: whyNot ?? 'the schedule is used up' }
  if (isPressing) return { school: null, why: 'what its fish need first leaves no choice' }
  if (ofA === undefined || ofB === undefined) return { school: null, why: 'both schools are not on offer for it' }
  return schoolOfTheDay({ schedule: [{ block, order: [next] }], block, used: 0, schools, worst: { [schools[0]]: ofA, [schools[1]]: ofB }, hasBinder })
}
