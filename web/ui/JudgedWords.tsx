import type { JudgedStop } from '../../core/rounds/roundView'
import { JudgedActs } from './JudgedActs'
import './JudgedWords.css'

const levelWords: Readonly<Record<JudgedStop['level'], string>> = { quiet: 'quiet', watch: 'watch: look again today', act: 'act: now' }

/** What the looks at a tank mean: its level with reasons, what is proposed, what is asked today, what is still usual. */
export function JudgedWords({ tankId, code, judged }: { tankId: string; code: string; judged: JudgedStop }) {
  const { level, reasons, rechecks, usual, asks, unseen, hungry } = judged
  return (
    <div className="judged">
      {level !== 'quiet' && (
        <p className={`judged-level is-${level}`}>
          <strong>{levelWords[level]}</strong> {reasons.slice(0, 4).join(' · ')}
        </p>
      )}
      <JudgedActs tankId={tankId} code={code} judged={judged} />
      {[...rechecks, ...asks, ...unseen, ...hungry].map((words) => (
        <p key={words} className="judged-ask">
          {words}
        </p>
      ))}
      {usual.length > 0 && (
        <details>
          <summary>still usual here</summary>
          <ul>
            {usual.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  )
}
