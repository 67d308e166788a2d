import { useState } from 'react'
import type { CourseNow } from '../../core/regimens/courseNow'
import { shownDay } from '../../core/time/shownDay'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Notice, Problem } from '../ui/Notice'

interface Props {
  course: CourseNow
  /** The food of a course that is fed; null for one that is dosed. */
  feed: { food: string } | null
  isOpen: boolean
  give: () => Promise<unknown>
}

/** Spans of days, with what is missing of them. */
export function CourseDays({ course: { windows, isToday, isGiven, missed }, feed, isOpen, give }: Props) {
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <section className="course" aria-label="Days of it">
      <ol className="course-windows">
        {windows.map(({ from, to, why, isTooLong }) => (
          <li key={from}>
            {from === to ? shownDay(from) : `${shownDay(from)} to ${shownDay(to)}`}
            {why === 'sign' && ', begun on a sign'}
            {isTooLong && <strong> longer at a stretch than its label says</strong>}
          </li>
        ))}
      </ol>
      {missed.length > 0 && <Notice level="watch">Nothing was given on {missed.slice(-5).map(shownDay).join(', ')}.</Notice>}
      {isOpen && feed && isToday && !isGiven && (
        <>
          <p className="aside-word">The kitchen feeds {feed.food} alone on these days, and ticks it off with the rack.</p>
          <Button size="hand" onClick={() => void give().catch((error: unknown) => setProblem(sentenceOf(error)))}>
            {feed.food} given by hand today
          </Button>
        </>
      )}
      <Problem>{problem}</Problem>
    </section>
  )
}
