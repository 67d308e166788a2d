import { useState } from 'react'
import { waters, type Water } from '../../core/room/room.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from './Button'
import { Problem } from './Notice'
import { useSayWater } from './useSayWater'

const words: Record<Water, string> = { fresh: 'fresh', brackish: 'brackish', marine: 'sea water' }

/** Which water fish live in that the book does not know: three buttons, for all of them at once. */
export function SayWater({ of, onSaid = () => undefined }: { of: readonly { lotId: string; species: string }[]; onSaid?: () => void }) {
  const sayWater = useSayWater()
  const [problem, setProblem] = useState<string | null>(null)
  const names = [...new Set(of.map(({ species }) => species))].join(', ')
  const say = (water: Water): void => {
    setProblem(null)
    void sayWater(of.map(({ lotId }) => lotId), water, `${names}: ${words[water]}`).then(onSaid, (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <div className="say-water" role="group" aria-label={`${names} lives in`}>
      <span>{names} lives in</span>
      {waters.map((water) => (
        <Button key={water} size="hand" onClick={() => say(water)}>
          {words[water]}
        </Button>
      ))}
      <Problem>{problem}</Problem>
    </div>
  )
}
