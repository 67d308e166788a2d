import { Link } from 'react-router'
import type { ActProposal } from '../../core/rounds/actProposals'
import type { JudgedStop } from '../../core/rounds/roundView'
import './JudgedWords.css'

/** Where a proposal is carried out. What is told to somebody has no place. */
const placeOf: Partial<Record<ActProposal, (code: string) => string>> = {
  'part change': () => '/desk/change',
  'separate the fighters': (code) => `/room/${code}/move`,
  'hospital tank': (code) => `/room/${code}/move`,
  'close the water': (code) => `/room/${code}/contacts`,
  'tell who took fish': (code) => `/room/${code}/contacts`,
}

const levelWords: Readonly<Record<JudgedStop['level'], string>> = { quiet: 'quiet', watch: 'watch: look again today', act: 'act: now' }

/** What the looks at a tank mean: its level with reasons, what is proposed, what is asked today, what is still usual. */
export function JudgedWords({ code, judged }: { code: string; judged: JudgedStop }) {
  const { level, reasons, act, usual, asks, unseen, hungry } = judged
  return (
    <div className="judged">
      {level !== 'quiet' && (
        <p className={`judged-level is-${level}`}>
          <strong>{levelWords[level]}</strong> {reasons.slice(0, 4).join(' · ')}
        </p>
      )}
      {act.length > 0 && (
        <ul className="judged-act" aria-label="What is proposed">
          {act.map(({ proposal, words }) => {
            const to = placeOf[proposal]?.(code)
            return <li key={proposal}>{to ? <Link to={to}>{words}</Link> : words}</li>
          })}
        </ul>
      )}
      {[...asks, ...unseen, ...hungry].map((words) => (
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
