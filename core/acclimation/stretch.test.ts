import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { minutesOf, schools, type School } from './schools'
import { stretched } from './stretch'

const school = (key: string): School => schools.find((each) => each.key === key) as School

/** What is missing after every moment of a school, the step into the tank included. */
function lefts({ steps }: School, gapPpt: number): { atMin: number; left: number }[] {
  let [atMin, left, litres] = [0, gapPpt, 1]
  const seen = [{ atMin, left }]
  const go = (all: School['steps']): void => {
    for (const step of all) {
      if (step.step === 'repeat') for (let nth = 0; nth < step.times; nth += 1) go(step.steps)
      if (step.step === 'dump') litres *= 1 - step.share
      if (step.step === 'add') left *= litres / (litres += step.times)
      if (step.step === 'fill') {
        const [more, from] = [step.toTimes > 1 ? step.toTimes - 1 : step.toTimes, litres]
        for (let minute = 1; minute <= step.minutes; minute += 1) {
          const next = from + (more * minute) / step.minutes
          left *= litres / next
          litres = next
          seen.push({ atMin: (atMin += 1), left })
        }
      }
      if (step.step === 'wait') atMin += step.minutes
      if (step.step === 'transfer') left = 0
      seen.push({ atMin, left })
    }
  }
  go(steps)
  return seen
}
const steepest = (seen: { atMin: number; left: number }[], windowMin: number): number => Math.max(...seen.map(({ atMin, left }, index) => left - Math.min(...seen.slice(index).filter((each) => each.atMin - atMin <= windowMin).map((each) => each.left))))

test('whatever the gap and the limit, a stretched school keeps hour and minutes, and takes six hours at most', () => {
  fc.assert(
    fc.property(fc.constantFrom('drip', 'dripAir', 'step'), fc.double({ min: 6, max: 8, noNaN: true }), fc.double({ min: 0.5, max: 8, noNaN: true }), (key, gapPpt, perHourPpt) => {
      const stretchedSchool = stretched(school(key), { gapPpt, perHourPpt, perFiveMinPpt: 2.5 })
      if (!stretchedSchool) return
      const seen = lefts(stretchedSchool, gapPpt)
      expect(steepest(seen, 60)).toBeLessThanOrEqual(perHourPpt + 1e-9)
      expect(steepest(seen, 5)).toBeLessThanOrEqual(2.5 + 1e-9)
      expect(minutesOf(stretchedSchool.steps)).toBeLessThanOrEqual(360)
      expect(stretchedSchool).toMatchObject({ key, variant: 'stretched' })
    }),
    { numRuns: tries(500, 200) },
  )
})

test('nothing is stretched that keeps its hour as it is, that cannot, or that is no drip and no exchange', () => {
  expect(stretched(school('drip'), { gapPpt: 6, perHourPpt: 8, perFiveMinPpt: 2.5 })).toBeNull()
  expect(stretched(school('drip'), { gapPpt: 8, perHourPpt: 2, perFiveMinPpt: 2.5 })).toBeNull()
  expect(stretched(school('netOver'), { gapPpt: 7, perHourPpt: 5, perFiveMinPpt: 2.5 })).toBeNull()
  expect(stretched(school('drip'), { gapPpt: 7, perHourPpt: Infinity, perFiveMinPpt: 2.5 })).toBeNull()
})
