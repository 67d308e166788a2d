import type { MoveCheckView } from '../../core/moves/moveView'
import { CheckLines } from '../ui/CheckLines'
import { Notice } from '../ui/Notice'

const verdicts: Record<MoveCheckView['verdict'], { words: string; level?: 'watch' | 'harm' | 'done' }> = {
  allow: { words: 'Nothing speaks against it.', level: 'done' },
  warn: { words: 'Mind this first:', level: 'watch' },
  lead: { words: 'A lead decides this:', level: 'harm' },
  impossible: { words: 'It cannot be:', level: 'harm' },
}
const openLines = 3

/** What speaks against a move, said before anything is netted: three lines, the others one touch away. */
export function MoveCheckLines({ check: { verdict, lines } }: { check: MoveCheckView }) {
  const { words, level } = verdicts[verdict]
  const [open, folded] = [lines.slice(0, openLines), lines.slice(openLines)]
  return (
    <section className="move-check" aria-label="Before the net">
      <Notice role="status" {...(level ? { level } : {})}>
        {words}
      </Notice>
      <CheckLines lines={open} />
      {folded.length > 0 && (
        <details>
          <summary>{folded.length} more</summary>
          <CheckLines lines={folded} />
        </details>
      )}
    </section>
  )
}
