import { expect, test } from '@jest/globals'
import { mayTakeBack } from './mayTakeBack'

test('whoever wrote it takes it back within a day, a lead at any time, nobody else', () => {
  const [nowMs, hourMs] = [1_000_000_000_000, 3_600_000]
  const may = (id: string, role: 'lead' | 'keeper', hoursAgo: number) => mayTakeBack({ id, role }, { staffId: 'oona', recordedAtMs: nowMs - hoursAgo * hourMs }, nowMs)
  expect([may('oona', 'keeper', 24), may('oona', 'keeper', 25), may('teodor', 'keeper', 1), may('imre', 'lead', 200)]).toEqual([true, false, false, true])
})
