import { useState } from 'react'
import type { IntroductionView } from '../../core/moves/introductionView'
import { useVessels } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'

interface SheetProps {
  introduction: IntroductionView
  isOpen: boolean
  onClose: () => void
}

/** What somebody saw, and by whom. */
export function LookSheet({ introduction: { residents }, isOpen, onClose, onSay }: SheetProps & { onSay: (level: 'quiet' | 'chased' | 'hurt', who: string | null) => void }) {
  const [level, setLevel] = useState<'chased' | 'hurt' | null>(null)
  const say = (seen: 'quiet' | 'chased' | 'hurt', who: string | null): void => {
    setLevel(null)
    onSay(seen, who)
  }
  return (
    <Sheet title={level === null ? 'What is seen?' : 'By whom?'} isOpen={isOpen} onClose={() => (setLevel(null), onClose())}>
      <div className="introduction-more">
        {level === null ? (
          <>
            <Button size="hand" onClick={() => say('quiet', null)}>
              quiet
            </Button>
            <Button size="hand" onClick={() => setLevel('chased')}>
              chased
            </Button>
            <Button size="hand" onClick={() => setLevel('hurt')}>
              hurt
            </Button>
          </>
        ) : (
          <>
            {residents.map(({ name }) => (
              <Button key={name} size="hand" onClick={() => say(level, name)}>
                {name}
              </Button>
            ))}
            <Button size="hand" onClick={() => say(level, null)}>
              nobody saw by whom
            </Button>
          </>
        )}
      </div>
    </Sheet>
  )
}

/** Who goes into a box, and into which. */
export function BoxSheet({ introduction: { residents, newcomers }, isOpen, onClose, onBox }: SheetProps & { onBox: (who: string, vesselId: string) => void }) {
  const { vessels = [] } = useVessels()
  const [who, setWho] = useState<string | null>(null)
  const free = vessels.filter(({ kind, fish }) => kind === 'box' && fish.length === 0)
  const bullies = [...residents, ...newcomers].map(({ name }) => name)
  return (
    <Sheet title={who === null ? 'Who goes into a box?' : `${who}: into which box?`} isOpen={isOpen} onClose={() => (setWho(null), onClose())}>
      <div className="introduction-more">
        {who === null
          ? bullies.map((name) => (
              <Button key={name} size="hand" onClick={() => setWho(name)}>
                {name}
              </Button>
            ))
          : free.map(({ id, name }) => (
              <Button key={id} size="hand" onClick={() => (setWho(null), onBox(who, id))}>
                {name}
              </Button>
            ))}
        {who !== null && free.length === 0 && <p>No box is free. A lead enters them under Setup, Buckets and boxes.</p>}
      </div>
    </Sheet>
  )
}

/** Which newcomer died. */
export function DeadSheet({ introduction: { newcomers }, isOpen, onClose, onSay }: SheetProps & { onSay: (who: string) => void }) {
  return (
    <Sheet title="Which newcomer died?" isOpen={isOpen} onClose={onClose}>
      <div className="introduction-more">
        {newcomers.map(({ name }) => (
          <Button key={name} size="hand" onClick={() => onSay(name)}>
            {name}
          </Button>
        ))}
      </div>
    </Sheet>
  )
}
