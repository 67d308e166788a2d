import { expect, test } from '@jest/globals'
import { ValidationError } from 'yup'
import { createRandom } from '../../attack/random'
import { mutated } from '../../attack/mutate'
import { validBody } from '../../attack/validBody'
import { validated } from '../../core/fields/validated'
import { tries } from '../../core/testing/tries'
import { createServices } from '../services'
import { openDatabase } from '../db/open'

const { endpoints } = createServices({ db: openDatabase(':memory:'), now: Date.now })
const commands = endpoints.flatMap((endpoint) => (endpoint.kind === 'command' ? [endpoint] : []))

test('whatever is sent to a command is taken or refused with its faults: no schema stumbles over it', () => {
  const random = createRandom(5)
  const stumbled = new Set<string>()
  for (const { name, schema } of commands) {
    for (let nth = tries(1000, 60); nth > 0; nth -= 1) {
      const body: unknown = JSON.parse(JSON.stringify(mutated(validBody(schema, random, {}), random)) ?? 'null')
      try {
        validated(schema, body)
      } catch (error) {
        if (!ValidationError.isError(error)) stumbled.add(`${name}: ${String(error)}`)
      }
    }
  }
  expect([...stumbled]).toEqual([])
  expect(commands.length).toBeGreaterThan(80)
})
