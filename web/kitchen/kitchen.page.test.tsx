/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { allSent, appInRoom, choose, press, type } from '../testing/appInRoom'

const app = appInRoom()
const noFood = { thawMinutes: null, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, note: null }

async function furnish(quantity: number): Promise<{ foodId: string; tankId: string }> {
  const room = app.room()
  const { id: foodId } = await room.post<{ id: string }>('/api/setup/foods', { values: { ...noFood, name: 'Larvae', kind: 'frozen', servesAs: ['mosquito larvae'] } })
  const { tanks } = await room.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks.find(({ code }) => code === 'R1-01')?.id ?? ''
  if (quantity > 0) await room.post(`/api/tanks/${tankId}/additions`, { species: 'Cherry barb', quantity, how: 'brought-in', note: null, happenedAtMs: Date.now() - 30 * 86_400_000 })
  return { foodId, tankId }
}

test('an empty room feeds nobody, and says what is missing', async () => {
  await furnish(0)
  await app.open('/kitchen')
  await screen.findByText('No fish are fed: none stand in a tank, or nothing that suits them is in the house.')
  expect(screen.queryByText(/is fed$/)).toBeNull()
})

test('food that runs out leaves fish out loudly; counted again, they are fed', async () => {
  const { foodId } = await furnish(20)
  await app.room().post(`/api/foods/${foodId}/stock`, { why: 'counted', pieces: 0 })
  await app.open('/kitchen')
  await screen.findByText('Left out: nothing suits them')
  await screen.findByText('small mouths')
  await app.open('/kitchen/larder')
  await press(/^Larvae/)
  await type('How many cubes of Larvae', 'four')
  await press('came in')
  await screen.findByText('How many? A whole number')
  await type('How many cubes of Larvae', '4')
  await press('came in')
  await screen.findByText('4 cubes')
  await waitFor(allSent)
  await app.open('/kitchen')
  await screen.findByText('1 cube')
  expect(screen.queryByText('Left out: nothing suits them')).toBeNull()
})

test('feeds that come to more or less than a day’s food say so: else fish would go short without a word', async () => {
  await furnish(6)
  const feed = (name: string, dayPercent: number) => app.room().post('/api/setup/feeds', { values: { name, hour: 9, minute: null, dayPercent } })
  await feed('morning', 60)
  await app.open('/kitchen')
  await screen.findByText(/^The feeds of the day come to 60 % of its food/)
  await feed('evening', 40)
  await app.open('/kitchen')
  await screen.findByRole('link', { name: 'evening' })
  expect(screen.queryByText(/^The feeds of the day come to/)).toBeNull()
})

test('conditioned fish stand with their small meals; the words of an order are refused beside their field and stay', async () => {
  const { tankId } = await furnish(6)
  await app.open('/kitchen/otherwise?tank=R1-01')
  const lot = (await screen.findByLabelText('Lot')) as HTMLSelectElement
  await waitFor(() => expect(lot.options).toHaveLength(2))
  await press('Feed so from today')
  await screen.findByText('Say which lot: conditioning is said of a lot')
  await choose('Lot', lot.options[1]?.value ?? '')
  await type(/^Note/, 'thin behind the head')
  await press('Feed so from today')
  await screen.findByText(/until somebody ends it/)
  await app.open('/kitchen')
  await screen.findByText('In small meals')
  await screen.findByText('5 small meals')
  expect(tankId).not.toBe('')
})
