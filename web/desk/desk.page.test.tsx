/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen } from '@testing-library/react'
import { appInRoom, choose, fieldValue, type } from '../testing/appInRoom'

const app = appInRoom()
const answer = async (): Promise<string> => (await screen.findByRole('region', { name: 'Answer' })).textContent ?? ''

test('whoever enters SG 1.017 is asked for the reference pair, sees what it means on each, and why they differ', async () => {
  await app.open('/desk/gravity')
  await type(/^reading/, '1.017')
  for (const [pair, ppt] of [['25/25', '22.6'], ['20/20', '22.4'], ['60F/60F', '22.2'], ['25/60F', '25.3'], ['20/4', '24.8']]) expect(await answer()).toContain(`on a scale of ${pair}${ppt} ppt`)
  expect(await answer()).toContain('Which reference pair does the instrument have?')
  expect(await answer()).toContain('both change with warmth, so the same reading is up to 3.1 ppt apart')
  await choose(/^reference pair printed on the instrument/, '20/20')
  expect(await answer()).toBe('on a scale of 20/2022.4 ppt')
})

test('nonsense gets a sentence beside its field, and what was typed stays, also over a reload', async () => {
  await app.open('/desk/ammonia')
  await type(/^total ammonia/, '8')
  await type(/^pH/, '15')
  await type(/^temperature/, '400')
  expect(await screen.findByText('This must be a number between 5 and 10')).toBeTruthy()
  expect(await screen.findByText('This must be a number between 5.0 °C and 35.0 °C')).toBeTruthy()
  expect(await screen.findByText('Still needed: salinity.')).toBeTruthy()
  await app.open('/desk/ammonia')
  expect(await fieldValue(/^pH/)).toBe('15')
  await type(/^pH/, '6,6')
  await type(/^temperature/, '24')
  await type(/^salinity/, '33')
  expect(await answer()).toContain('un-ionised ammonia0.0124 mg/L as N')
  expect(document.querySelector('main')?.textContent).not.toMatch(/NaN|Infinity/)
})

test('a dose says what it is not', async () => {
  await app.open('/desk/dose')
  expect(await screen.findByText(/Follow the product’s label and a veterinarian; local law decides\. This is arithmetic, no prescription\./)).toBeTruthy()
})
