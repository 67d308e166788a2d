import { expect, test } from '@jest/globals'
import { holdGroupsOf } from './holdGroups'

test('what is no fish is an invertebrate, whatever its entry leaves out; what nobody knows is said to be unknown', () => {
  expect(holdGroupsOf([], 'fish')).toEqual(['other'])
  expect(holdGroupsOf(['seahorse or pipefish'], 'fish')).toEqual(['seahorsePipefish'])
  expect(holdGroupsOf([], 'crab')).toEqual(['invertebrate'])
  expect(holdGroupsOf([], 'amphibian')).toEqual(['scaleless'])
  expect(holdGroupsOf([], null)).toEqual([null])
  expect(holdGroupsOf(['invertebrate'], 'shrimp', false)).toEqual([null])
})
