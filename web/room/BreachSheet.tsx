import { useState } from 'react'
import type { SaidKind } from '../../core/contacts/contacts.schema'
import type { TankView } from '../../core/room/roomView'
import { sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import { Sheet } from '../ui/Sheet'

interface Props {
  tank: TankView
  isOpen: boolean
  onClose: () => void
  onSay: (kind: SaidKind, toTankId: string, words: string) => Promise<unknown>
}

const kindWords: Record<SaidKind, string> = { splash: 'splash', hose: 'hose', hands: 'wet hands', water: 'water went there', decor: 'decor went there', joined: 'joined' }

/** Water, decor or hands that got from this tank into another: what it was, and the tank records it. */
export function BreachSheet({ tank, isOpen, onClose, onSay }: Props) {
  return (
    <Sheet title={`From ${tank.code} to which tank?`} isOpen={isOpen} onClose={onClose}>
      <WhatWhere tank={tank} onClose={onClose} onSay={onSay} />
    </Sheet>
  )
}

/** Read only once the sheet is open: the page below needs nothing of the other tanks. */
function WhatWhere({ tank, onClose, onSay }: Omit<Props, 'isOpen'>) {
  const { room } = useRoomView()
  const [kind, setKind] = useState<SaidKind>('splash')
  const [problem, setProblem] = useState<unknown>(null)
  // Next door comes first: water splashes no further.
  const all = (room?.tanks ?? []).filter(({ id }) => id !== tank.id)
  const here = room?.tanks.find(({ id }) => id === tank.id)
  const isNear = ({ rack }: { rack: string }): boolean => rack === here?.rack
  const others = [...all.filter(isNear), ...all.filter((each) => !isNear(each))]
  const say = (toTankId: string, code: string): void => void onSay(kind, toTankId, `${kindWords[kind]}: ${tank.code} and ${code}`).then(onClose, setProblem)
  return (
    <>
      <div className="sell-reasons" role="group" aria-label="It was">
        {order.map((each) => (
          <Button key={each} aria-pressed={kind === each} onClick={() => setKind(each)}>
            {kindWords[each]}
          </Button>
        ))}
      </div>
      <div className="number-pad" role="group" aria-label="Tanks">
        {others.map(({ id, code }) => (
          <Button key={id} size="hand" onClick={() => say(id, code)}>
            {code}
          </Button>
        ))}
      </div>
      {problem !== null && <Problem>{sentenceOf(problem)}</Problem>}
    </>
  )
}

const order: readonly SaidKind[] = ['splash', 'hose', 'hands', 'water', 'decor', 'joined']
