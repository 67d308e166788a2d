import type { ChoresView } from '../core/chores/choreView'
import type { SaveChore } from '../core/chores/chores.schema'
import { addDays } from '../core/time/daysBetween'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

const [hourMs, dayMs] = [3_600_000, 86_400_000]

interface Scene extends Furnished {
  commander: Commander
}

/** Chores of the house: filter bags, water changes in quarantine, salt, a lamp, a visit to the customer's tank today. */
export async function doRegularly({ commander, people, tanks }: Scene, nowMs: number): Promise<void> {
  const { systems } = commander.room(nowMs)
  const { on: today } = commander.ask<ChoresView>('/api/chores', {}, nowMs)
  const before = (days: number): string => addDays(today, -days) ?? today
  const place = (id: string, where: Partial<SaveChore['places'][number]>, uses: SaveChore['places'][number]['uses'] = []): SaveChore['places'][number] => ({ id, tankId: null, systemId: null, label: null, uses, litres: null, fromTankId: null, fish: [], ...where })
  const systemOf = (name: string): string => systems.find((each) => each.name === name)?.id ?? ''
  const rule = (of: Partial<SaveChore['rule']> & Pick<SaveChore['rule'], 'kind'>): SaveChore['rule'] => ({ days: null, weekdays: [], fish: null, earlyDays: 0, ...of })
  const add = async (chore: Omit<SaveChore, 'version' | 'note'> & { note?: string }): Promise<string> => (await commander.run<{ id: string }>('addChore', {}, { note: null, version: 0, ...chore }, people.lead, nowMs - 9 * dayMs)).id
  const [visiting] = ['M1-04', 'M1-03', 'M1-09'].flatMap((code) => commander.tank(code, nowMs).stock.slice(0, 1).map(({ speciesId }) => ({ fromTankId: tanks.get(code) ?? '', speciesId, quantity: 1 })))

  const bags = await add({ name: 'Filter bags', kind: 'filter bags', rule: rule({ kind: 'every', days: 3 }), startOn: before(6), places: [['Fresh sale rack, hard', 2], ['Fresh sale rack, mixed', 2], ['Marine sale rack', 3], ['Brackish rack', 1]].map(([name, count], index) => place(`bags-${index}`, { systemId: systemOf(String(name)) }, [{ item: 'felt bag', count: Number(count) }, ...(name === 'Marine sale rack' ? [{ item: 'mesh bag', count: 1 }] : [])])) })
  const changes = await add({ name: 'Water change, quarantine', kind: 'water change', rule: rule({ kind: 'every', days: 4 }), startOn: before(8), places: ['Q1-04', 'Q1-06'].map((code) => place(`change-${code}`, { tankId: tanks.get(code) ?? null, litres: 12 })) })
  await add({ name: 'Salt for the mixer', kind: 'other', rule: rule({ kind: 'arrivals', fish: 400 }), startOn: before(8), places: [place('mixer', { label: 'store room' }, [{ item: 'salt bag', count: 1 }])] })
  await add({ name: 'Lamps wiped', kind: 'lamp', rule: rule({ kind: 'fixed', days: 14 }), startOn: today, places: [place('lamp-d1', { tankId: tanks.get('D1-01') ?? null })] })
  await add({
    ...{ name: 'Visit to the harbour café', kind: 'visit', rule: rule({ kind: 'once' }), startOn: today, note: 'in by the back door, after ten' },
    places: [place('cafe', { tankId: tanks.get('C1-01') ?? null, fish: visiting ? [visiting] : [] }, [{ item: 'pump impeller', count: 1 }, { item: 'felt bag', count: 2 }])],
  })
  const keeper = people.keepers[1] ?? people.lead
  for (const [item, pieces] of [['felt bag', 7], ['mesh bag', 6], ['salt bag', 2], ['pump impeller', 1]] as const) await commander.run('changeSupplies', {}, { item, why: 'counted', pieces }, people.lead, nowMs - 9 * dayMs + hourMs)
  for (const [placeId, daysAgo] of [['bags-0', 1], ['bags-1', 3], ['bags-2', 4], ['bags-3', 3]] as const) await commander.run('doChore', { choreId: bags }, { placeId, happenedAtMs: nowMs - daysAgo * dayMs }, keeper, nowMs - daysAgo * dayMs)
  for (const code of ['Q1-04', 'Q1-06']) await commander.run('doChore', { choreId: changes }, { placeId: `change-${code}`, happenedAtMs: nowMs - 4 * dayMs }, keeper, nowMs - 4 * dayMs)
  await commander.run('changeSupplies', {}, { item: 'felt bag', why: 'counted', pieces: 7 }, people.lead, nowMs - hourMs)
  const { due } = commander.ask<ChoresView>('/api/chores', {}, nowMs)
  const done = due.find(({ placeId }) => placeId === 'bags-3')
  if (done) await commander.run('doChore', { choreId: bags }, { placeId: done.placeId, happenedAtMs: nowMs - 30 * 60_000 }, keeper, nowMs - 30 * 60_000)
}
