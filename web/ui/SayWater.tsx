import { useState } from 'react'
import { ledgerApi } from '../../core/ledger/ledger.api'
import { waters, type Water } from '../../core/room/room.schema'
import { sentenceOf } from '../api/ApiProblem'
import { useWrite } from '../api/useOutbox'

const words: Record<Water, string> = { fresh: 'fresh', brackish: 'brackish', marine: 'sea water' }

/** Which water fish live in that the book does not know: three buttons, for all of them at once. */
export function SayWater({ of, onSaid = () => undefined }: { of: readonly { lotId: string; species: string }[]; onSaid?: () => void }) {
  const write = useWrite()
  const [problem, setProblem] = useState<string | null>(null)
  const names = [...new Set(of.map(({ species }) => species))].join(', ')
  const say = (water: Water): void => {
    setProblem(null)
    void write(ledgerApi.sayWater, { label: `${names}: ${words[water]}`, body: { lotIds: of.map(({ lotId }) => lotId), water } }, { refusals: 'form' }).then(onSaid, (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <div className="say-water" role="group" aria-label={`${names} lives in`}>
      <span>{names} lives in</span>
      {waters.map((water) => (
        <button key={water} type="button" className="hand-button" onClick={() => say(water)}>
          {words[water]}
        </button>
      ))}
      {problem && <p role="alert" className="form-problem">{problem}</p>}
    </div>
  )
}
