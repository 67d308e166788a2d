import type { HoldWhatIfView } from '../../core/holds/holdsView'
import type { WhatIf } from '../../core/holds/holdWhatIf'
import { whatIfWords } from '../../core/holds/holdWords'
import type { FactsService } from '../facts/facts.service'
import { fieldProblem } from '../http/problem'
import { newLot, type HoldsService } from './holds.service'
import type { HoldTelling } from './holdTelling'

interface Collaborators {
  holds: HoldsService
  facts: Pick<FactsService, 'requireTank'>
  tellingAt: (nowMs: number) => HoldTelling
}
export interface WhatIfAsked {
  what: string | null
  tank: string | null
  lot: string | null
  from: string | null
}

/** What would happen to clocks, before anybody does it. */
export function createHoldSupposing({ holds, facts, tellingAt }: Collaborators) {
  return {
    asked({ what, tank: tankId, lot, from }: WhatIfAsked, nowMs: number): HoldWhatIfView {
      const tank = facts.requireTank(tankId ?? '', 'tank', nowMs)
      const telling = tellingAt(nowMs)
      const lotName = (id: string): string => (id === newLot ? 'the new fish' : telling.lotName(id))
      const told = ({ rows, unprotected }: WhatIf, words: string): HoldWhatIfView => {
        const others = { rows: rows.filter((row) => row.lot !== newLot), unprotected }
        return { words: whatIfWords(others, lotName, words), isHarmless: others.rows.every(({ before, after }) => before === after || before === null || after === null) && unprotected.length === 0 }
      }
      if (what === 'sign') return told(holds.suppose([{ kind: 'sign', tank: tank.tankId, word: 'spots', decision: 'confirmed' }], nowMs), `A sign in ${tank.code}`)
      if (what === 'fish' && lot === null) return told(holds.supposeCome(tank.tankId, nowMs), `New fish into ${tank.code}`)
      if (what === 'fish' && lot !== null && from !== null) return told(holds.supposeMoved([{ lotId: lot, quantity: null }], from, tank.tankId, nowMs), `${telling.lotName(lot)} into ${tank.code}`)
      throw fieldProblem('what', 'Say what is supposed: fish, or a sign')
    },
  }
}
export type HoldSupposing = ReturnType<typeof createHoldSupposing>
