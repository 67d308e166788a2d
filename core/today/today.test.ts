import { expect, test } from '@jest/globals'
import { firstSteps, nextStep } from './todayView'

test('the first steps come in order, and end with the first crate', () => {
  const counts = { tanks: 0, suppliers: 0, species: 0, crates: 0 }
  for (const step of firstSteps) {
    expect(nextStep(counts)).toBe(step)
    counts[step] = 1
  }
  expect(nextStep(counts)).toBeNull()
  expect(nextStep({ tanks: 0, suppliers: 1, species: 3, crates: 1 })).toBeNull()
})
