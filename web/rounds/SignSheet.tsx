import { useState } from 'react'
import type { Mark } from '../../core/facts/facts'
import { markOf, touchSign, withoutSign } from '../../core/rounds/markTouch'
import { signPlaces, type Sign } from '../../core/rounds/rounds.schema'
import type { RoundStop } from '../../core/rounds/roundView'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { useSeenWith } from './useRound'

interface Props {
  stop: RoundStop
  marks: Mark[]
  isOpen: boolean
  onClose: () => void
  onChange: (marks: Mark[]) => void
}

/** What is seen, by where one looks: a touch says it is there, a second that it is clear, a third asks whose it is. */
export function SignSheet({ stop, marks, isOpen, onClose, onChange }: Props) {
  const [whose, setWhose] = useState<Sign | null>(null)
  const lots = stop.stock.filter(({ quantity }) => quantity > 0)
  const press = (sign: Sign): void => {
    const touched = touchSign(marks, sign, lots.length > 1)
    setWhose(touched.asksWhose ? sign : null)
    onChange(touched.marks)
  }
  const decide = (next: Mark[]): void => {
    setWhose(null)
    onChange(next)
  }
  return (
    <Sheet title={`What do you see in ${stop.code}?`} isOpen={isOpen} onClose={onClose}>
      <p className="aside-word">One touch: slight, or one fish. Two: clear, or several.{lots.length > 1 ? ' Three: which lot.' : ''}</p>
      {signPlaces.map(({ place, signs }) => (
        <div key={place} className="sign-place" role="group" aria-label={place}>
          <span>{place}</span>
          <div>
            {signs.map((sign) => (
              <SignButton key={sign} sign={sign} marks={marks} nameOf={(id) => lots.find(({ lotId }) => lotId === id)?.lotCode ?? ''} onPress={() => press(sign)} />
            ))}
          </div>
          {signs.some((sign) => sign === whose) && whose !== null && (
            <div className="whose" role="group" aria-label={`Whose is it: ${whose}`}>
              <Button size="hand" onClick={() => decide(markOf(marks, whose, null))}>
                whole tank
              </Button>
              {lots.map(({ lotId, lotCode, species }) => (
                <Button key={lotId} size="hand" onClick={() => decide(markOf(marks, whose, lotId))}>
                  {species} <small>{lotCode}</small>
                </Button>
              ))}
              <Button size="hand" onClick={() => decide(withoutSign(marks, whose))}>
                not there
              </Button>
            </div>
          )}
        </div>
      ))}
      <SeenWith marks={marks} />
      <Button look="act" size="hand" onClick={onClose}>
        <strong>Back to {stop.code}</strong>
      </Button>
    </Sheet>
  )
}

function SignButton({ sign, marks, nameOf, onPress }: { sign: Sign; marks: readonly Mark[]; nameOf: (lotId: string) => string; onPress: () => void }) {
  const own = marks.filter((mark) => mark.sign === sign)
  const lot = own.flatMap(({ lotId }) => (lotId === null ? [] : [nameOf(lotId)])).join(', ')
  return (
    <Button size="hand" aria-pressed={own.length > 0} onClick={onPress}>
      {sign} {own.length > 0 && <small>{[own.some(({ severity }) => severity > 1) ? 'clear' : 'slight', lot].filter(Boolean).join(', ')}</small>}
    </Button>
  )
}

/** What each sign has been seen with: unranked, and no diagnosis. */
function SeenWith({ marks }: { marks: readonly Mark[] }) {
  const seenWith = useSeenWith()
  const signs = [...new Set(marks.map(({ sign }) => sign))]
  if (signs.length === 0) return null
  return (
    <details className="seen-with">
      <summary>what it has been seen with</summary>
      {signs.map((sign) => (
        <p key={sign}>
          <strong>{sign}</strong>: {(seenWith[sign] ?? []).join(' · ')}
        </p>
      ))}
      <p className="aside-word">Not a diagnosis; several look alike. The label, a veterinarian and the law decide what is done.</p>
    </details>
  )
}
