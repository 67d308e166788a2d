import { minuteOf } from '../../core/contacts/contact'
import { groupOf } from '../../core/holds/holdRoom'
import type { HoldWhatIfView } from '../../core/holds/holdsView'
import { whatIf, type Supposed, type WhatIf } from '../../core/holds/holdWhatIf'
import { whatIfWords } from '../../core/holds/holdWords'
import { usualPolicy } from '../../core/holds/policyFor'
import type { FactsService } from '../facts/facts.service'
import { fieldProblem } from '../http/problem'
import type { HoldsService } from './holds.service'
import type { HoldTelling } from './holdTelling'

interface Collaborators {
  holds: HoldsService
  facts: Pick<FactsService, 'requireTank' | 'tank'>
  tellingAt: (nowMs: number) => HoldTelling
}
export interface WhatIfAsked {
  what: string | null
  tank: string | null
  lot: string | null
  from: string | null
}
/** Fish that are not here yet. */
const newLot = 'new fish'

/** What would happen to clocks, before anybody does it. */
export function createHoldSupposing({ holds, facts, tellingAt }: Collaborators) {
  const suppose = (events: readonly Supposed[], nowMs: number): WhatIf => whatIf(holds.rooms.at(nowMs), events, minuteOf(nowMs))
  const placeOf = (id: string, nowMs: number): string => (facts.tank(id, nowMs) ? id : `vessel:${id}`)

  /** Fish of lots that stand in a place would go into a tank. */
  function moving(lotIds: readonly string[], fromId: string, toTankId: string, nowMs: number): WhatIf {
    const [room, from] = [holds.rooms.at(nowMs), placeOf(fromId, nowMs)]
    return suppose(lotIds.flatMap((lot): Supposed[] => {
      const group = groupOf(room, lot, from)
      return group ? [{ kind: 'move', lot, from, to: placeOf(toTankId, nowMs), n: group.millionths / 1e6 }] : []
    }), nowMs)
  }
  /** New fish would come into a tank, under the hold that most begin. */
  const coming = (tankId: string, nowMs: number): WhatIf => suppose([{ kind: 'arrive', lot: newLot, tank: tankId, n: 1, policy: usualPolicy }], nowMs)

  return {
    moving,
    coming,
    asked({ what, tank: tankId, lot, from }: WhatIfAsked, nowMs: number): HoldWhatIfView {
      const tank = facts.requireTank(tankId ?? '', 'tank', nowMs)
      const telling = tellingAt(nowMs)
      const lotName = (id: string): string => (id === newLot ? 'the new fish' : telling.lotName(id))
      const told = ({ rows, unprotected }: WhatIf, words: string): HoldWhatIfView => {
        const others = { rows: rows.filter((row) => row.lot !== newLot), unprotected }
        return { words: whatIfWords(others, lotName, words), isHarmless: others.rows.every(({ before, after }) => before === after || before === null || after === null) && unprotected.length === 0 }
      }
      if (what === 'sign') return told(suppose([{ kind: 'sign', tank: tank.tankId, word: 'spots', decision: 'confirmed' }], nowMs), `A sign in ${tank.code}`)
      if (what === 'fish' && lot === null) return told(coming(tank.tankId, nowMs), `New fish into ${tank.code}`)
      if (what === 'fish' && lot !== null && from !== null) return told(moving([lot], from, tank.tankId, nowMs), `${telling.lotName(lot)} into ${tank.code}`)
      throw fieldProblem('what', 'Say what is supposed: fish, or a sign')
    },
  }
}
export type HoldSupposing = ReturnType<typeof createHoldSupposing>
