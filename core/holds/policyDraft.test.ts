import { expect, test } from '@jest/globals'
import { draftOf, policyIdFor, policyOfDraft } from './policyDraft'
import { policyWords } from './policyWords'
import { readPolicy } from './readPolicy.schema'
import { shippedPolicies } from './shippedHolds'

const [shop] = shippedPolicies.filter(({ id }) => id === 'shopHold')

test('every shipped policy comes out of a form as it went in', () => {
  for (const policy of shippedPolicies) {
    const read = readPolicy(JSON.parse(JSON.stringify(policyOfDraft(draftOf(policy), policy.id))))
    if (policy.phases.length === 0) continue
    expect(read.ok ? policyWords(read.policy) : read.problems).toEqual(policyWords(policy))
  }
})

test('a policy that never ends, or is none, is refused with why', () => {
  const problemsOf = (value: unknown): string => {
    const read = readPolicy(value)
    return read.ok ? '' : read.problems.join('; ')
  }
  const draft = draftOf(shop!)
  const first = draft.phases[0]!
  expect(problemsOf(policyOfDraft({ ...draft, signBack: 'nowhere' }, 'a'))).toBe('goes back to no phase')
  expect(problemsOf(policyOfDraft({ ...draft, phases: [{ ...first, days: 'many' }] }, 'a'))).toBe('Days must be a number of days')
  expect(problemsOf(policyOfDraft({ ...draft, phases: [first, first] }, 'a'))).toBe('phase named twice')
  expect(problemsOf(policyOfDraft({ ...draft, phases: [{ ...first, days: '0', ticks: [] }] }, 'a'))).toBe('phase without days or gates')
  expect(problemsOf({ ...policyOfDraft(draft, 'a'), release: [{ gate: 'magic' }] })).toBe('There is no such gate')
  expect(problemsOf({ ...policyOfDraft(draft, 'a'), surprise: 1 })).toMatch(/surprise/)
  for (const odd of [null, [], 'text', 7, { phases: null }, { phases: [null] }, { phases: [{ gates: [null] }] }, { release: [[]] }]) expect(problemsOf(odd)).not.toBe('')
})

test('an id is made of the name, whatever letters it is written in', () => {
  const taken = new Set(['four-weeks', 'house'])
  expect([policyIdFor('Four weeks!', taken), policyIdFor('Été long', taken), policyIdFor('四週間', taken), policyIdFor('4 weeks', new Set())]).toEqual(['four-weeks-2', 'e-te-long', 'house-2', 'weeks'])
})
