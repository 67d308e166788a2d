import { useState } from 'react'
import { Link } from 'react-router'
import type { AskedKind } from '../../core/chores/chores.schema'
import type { ActProposal } from '../../core/rounds/actProposals'
import type { JudgedStop } from '../../core/rounds/roundView'
import { useActWrites, type ActWrites } from '../api/actWrites'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from './Button'
import { DecideSheet } from './DecideSheet'
import { InUnits } from './InUnits'
import { Problem } from './Notice'
import { useFormat } from './useFormat'

/** Where a proposal is carried out. What is told to somebody has no place. */
const placeOf: Partial<Record<ActProposal, (code: string) => string>> = {
  'separate the fighters': (code) => `/room/${code}/move`,
  'hospital tank': (code) => `/room/${code}/move`,
  'close the water': (code) => `/room/${code}/contacts`,
  'tell who took fish': (code) => `/room/${code}/contacts`,
}
/** What is asked for in one touch, so that it waits with its time. */
const askedAs: Partial<Record<ActProposal, AskedKind>> = { 'look again within 1 h': 'look', 'take readings': 'readings', 'part change': 'part change' }

interface Props {
  tankId: string
  code: string
  judged: JudgedStop
}

/** What is proposed at a tank, each done in a touch; what was asked for; and signs that somebody decides about. */
export function JudgedActs({ tankId, code, judged }: Props) {
  const writes = useActWrites(tankId, code)
  const [problem, setProblem] = useState<string | null>(null)
  const [isDeciding, setDeciding] = useState(false)
  const { recorder } = useSession()
  const attempt = (write: Promise<unknown>): void => void write.then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  const { act, chores, routine, signs } = judged
  // What was asked for stands below, with its time.
  const proposed = act.filter(({ proposal }) => !chores.some(({ kind }) => kind === askedAs[proposal]))
  const undecided = signs.filter(({ asksHold, decision }) => asksHold && decision === null)
  // What begins no hold again is a lead's to decide.
  const mayDecide = undecided.length > 0 || recorder.role === 'lead'
  const said = undecided.length > 0 ? `In a hold: ${undecided.map(({ words }) => words).join('; ')}.` : decidedWords(signs)
  if (act.length + chores.length + routine.length + signs.length === 0) return null
  return (
    <>
      {proposed.length > 0 && (
        <ul className="judged-act" aria-label="What is proposed">
          {proposed.map(({ proposal, words }) => (
            <li key={proposal}>
              <Proposal {...{ proposal, words, code, judged, writes }} onAttempt={attempt} onDecide={() => setDeciding(true)} />
            </li>
          ))}
        </ul>
      )}
      <Asked chores={chores} writes={writes} onAttempt={attempt} />
      {routine.length > 0 && (
        <ul className="judged-asked" aria-label="Chores here">
          {routine.map(({ choreId, placeId, words }) => (
            <li key={placeId}>
              <span>
                <InUnits>{words}</InUnits>
              </span>
              <Button look="quiet" aria-label={`done: ${words}`} onClick={() => attempt(writes.doChore(choreId, placeId))}>
                done
              </Button>
            </li>
          ))}
        </ul>
      )}
      {(said !== '' || (mayDecide && signs.length > 0)) && (
        <p className="judged-signs">
          {said}{' '}
          {mayDecide && (
            <Button look="quiet" onClick={() => setDeciding(true)}>
              {undecided.length > 0 ? 'does the hold begin again?' : 'decide about a sign'}
            </Button>
          )}
        </p>
      )}
      <Problem>{problem}</Problem>
      <DecideSheet code={code} signs={signs} writes={writes} isOpen={isDeciding} onClose={() => setDeciding(false)} />
    </>
  )
}

const decidedAs = { confirmed: 'hold began again', dismissed: 'none', known: 'known' } as const
const decidedWords = (signs: JudgedStop['signs']): string => signs.flatMap(({ words, decision }) => (decision ? [`${words}: ${decidedAs[decision.as]}`] : [])).join('; ')

interface ProposalProps extends Omit<Props, 'tankId'> {
  proposal: ActProposal
  words: string
  writes: ActWrites
  onAttempt: (write: Promise<unknown>) => void
  onDecide: () => void
}

/** One proposal: a touch that does it, a way to where it is done, or the words. */
function Proposal({ proposal, words, code, judged, writes, onAttempt, onDecide }: ProposalProps) {
  const kind = askedAs[proposal]
  if (kind) {
    return (
      <Button look="quiet" onClick={() => onAttempt(writes.ask(kind, judged.change))}>
        <InUnits>{words}</InUnits>
      </Button>
    )
  }
  if (proposal === 'hospital tank' && judged.hospital) {
    const { hospital } = judged
    return (
      <Button look="quiet" onClick={() => onAttempt(writes.keepHospital(hospital))}>
        hospital tank: keep {hospital.code} for {hospital.fish.reduce((sum, { quantity }) => sum + quantity, 0)} fish
      </Button>
    )
  }
  if (proposal === 'restart the hold after confirmation' && judged.signs.length > 0)
    return (
      <Button look="quiet" onClick={onDecide}>
        {words}
      </Button>
    )
  const to = placeOf[proposal]?.(code)
  return to ? <Link to={to}>{words}</Link> : <>{words}</>
}

/** What was asked for here and waits. A look and readings end themselves. */
function Asked({ chores, writes, onAttempt }: { chores: JudgedStop['chores']; writes: ActWrites; onAttempt: (write: Promise<unknown>) => void }) {
  const format = useFormat()
  if (chores.length === 0) return null
  return (
    <ul className="judged-asked" aria-label="Asked for">
      {chores.map(({ id, words, byMs, askedBy }) => (
        <li key={id}>
          <span>
            <strong>
              <InUnits>{words}</InUnits>
            </strong>{' '}
            by {format.time(byMs)}, asked by {askedBy}
          </span>
          <Button look="quiet" aria-label={`done: ${words}`} onClick={() => onAttempt(writes.endChore(id, 'done'))}>
            done
          </Button>
          <Button look="quiet" aria-label={`not needed: ${words}`} onClick={() => onAttempt(writes.endChore(id, 'dropped'))}>
            not needed
          </Button>
        </li>
      ))}
    </ul>
  )
}
