import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { isQuiet, type RoundStop, type RoundView } from '../../core/rounds/roundView'
import { dayInZone } from '../../core/time/dayInZone'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { formatSpan, plural } from '../ui/format'
import { HandScreen } from '../ui/HandScreen'
import { kindWords } from '../ui/kindWords'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { CheckCard } from './CheckCard'
import { PartDone, Shared, ShareOut } from './Parts'
import { usePart } from './usePart'
import { useRound, useRoundWrites } from './useRound'
import './rounds.css'

/** The walk past all tanks, one card each. It begins at the first unchecked tank, whoever checked the others. */
export function RoundPage() {
  const [id, setId] = useState<string | null>(null)
  const { round, problem } = useRound(id)
  if (!round) return problem ? <Trouble problem={problem} /> : <Waiting what="the round" />
  if (round.stops.length === 0) return <Nothing>No tank holds fish, so there is nothing to walk past. <Link to="/crates">Crates</Link></Nothing>
  return <Round key={round.id} round={round} onAgain={() => setId(round.nextId)} />
}

function Round({ round, onAgain }: { round: RoundView; onAgain: () => void }) {
  const [search] = useSearchParams()
  // Whose label was scanned stands first; null follows the walk.
  const [returnedTo, setReturnedTo] = useState<string | null>(() => round.stops.find(({ code }) => code === search.get('tank'))?.tankId ?? null)
  const { part, take: keepPart } = usePart(round)
  const isMine = (stop: RoundStop): boolean => part === null || stop.part === part
  const walking = round.stops.findIndex((stop) => stop.check === null && isMine(stop))
  const returned = round.stops.findIndex((stop) => stop.tankId === returnedTo)
  // The tank in hand stays until it is recorded, whatever becomes of the order meanwhile: a death on its card moves it to the end of the walk, and a card must not change under a thumb.
  const [inHand, setInHand] = useState<string | null>(null)
  const held = round.stops.findIndex((stop) => stop.tankId === inHand && stop.check === null)
  const index = returned >= 0 ? returned : held >= 0 ? held : walking
  const stop = round.stops[index]
  if ((stop?.tankId ?? null) !== inHand) setInHand(stop?.tankId ?? null)
  const take = (mine: number): void => {
    setInHand(null)
    keepPart(mine)
  }
  const checked = round.stops.filter((each) => each.check !== null).length
  // What was recorded stands first, in the order in which it was.
  const previous = stop?.check ? round.stops[index - 1] : round.stops.findLast((each) => each.check !== null)
  const goBack = previous && (() => setReturnedTo(previous.tankId))
  const { leaveRound, closeRound } = useRoundWrites()
  const isUnderWay = checked > 0 && checked < round.stops.length && round.closed === null
  return (
    <HandScreen
      className="round"
      title={round.number === 1 ? 'Round' : `Round ${round.number} today`}
      aside={
        <>
          <span>
            {checked} of {round.stops.length} checked
          </span>
          <Link to="/scan?for=round">scan</Link>
          {isUnderWay && (
            <Button look="quiet" onClick={() => closeRound(round.id, true)}>
              close
            </Button>
          )}
        </>
      }
      back={{ to: '/room', label: 'to the room', onGo: () => isUnderWay && leaveRound(round.id) }}
      entersFromLines
    >
      <RoundProgress round={round} current={stop ?? null} />
      <WhoWalks round={round} />
      <WhyThisOrder round={round} />
      <Shared round={round} part={part} onTake={take} />
      <JustActed round={round} current={stop ?? null} />
      {stop && (round.closed === null || returned >= 0) ? (
        <CheckCard key={stop.tankId} stop={stop} round={round} next={nextAfter(round.stops, index, isMine)} onBack={goBack} onRecorded={() => setReturnedTo(null)} />
      ) : part !== null && round.closed === null && checked < round.stops.length ? (
        <PartDone round={round} part={part} onTake={take} onBack={goBack} />
      ) : (
        <RoundDone round={round} onAgain={onAgain} onBack={goBack} onOpen={() => closeRound(round.id, false)} />
      )}
    </HandScreen>
  )
}

/** How long after somebody's check they are taken to be at it still. */
const justNowMs = 15 * 60_000

/** Who left this round, or walks it too: whoever takes it up sees that they do not begin anew. */
function WhoWalks({ round: { left, last, on, closed } }: { round: RoundView }) {
  const { recorder, timeZone } = useSession()
  const now = nowMs()
  const words = [
    closed || on === dayInZone(now, timeZone) ? '' : `The round of ${on} goes on.`,
    closed ? '' : left ? `Left by ${left.staffName} ${formatSpan(now - left.atMs)} ago; it goes on with the next check.` : last && last.staffId !== recorder.id && now - last.atMs < justNowMs ? `${last.staffName} is walking it too.` : '',
  ].filter(Boolean)
  // Its line is there from the start: what comes late moves no button away from a finger.
  return <p className="aside-word who-walks">{words.join(' ')}</p>
}

/** Why the walk goes this way: one touch away. */
function WhyThisOrder({ round }: { round: RoundView }) {
  const { why } = round
  if (why === '') return null
  return (
    <details className="why-order">
      <summary>why this order</summary>
      <p>{why}</p>
      <ShareOut round={round} />
    </details>
  )
}

/** A tank of this round that somebody has to act on: it was recorded, and the walk has gone on. */
function JustActed({ round, current }: { round: RoundView; current: RoundStop | null }) {
  const acts = round.stops.filter((stop) => stop.check !== null && stop !== current && stop.judged.level === 'act')
  if (acts.length === 0) return null
  return (
    <ul className="just-acted" aria-label="Act now">
      {acts.map(({ tankId, code, judged }) => (
        <li key={tankId}>
          <Link to={`/room/${code}`}>{code}</Link> <strong>act: now</strong> {judged.reasons[0]}
        </li>
      ))}
    </ul>
  )
}

/** The stop the walk goes on to: the next unchecked one, wrapping round to any left out earlier. */
function nextAfter(stops: readonly RoundStop[], index: number, isMine: (stop: RoundStop) => boolean): RoundStop | null {
  const isOpen = (stop: RoundStop, at: number): boolean => stop.check === null && at !== index && isMine(stop)
  return stops.find((stop, at) => at > index && isOpen(stop, at)) ?? stops.find(isOpen) ?? null
}

function RoundProgress({ round, current }: { round: RoundView; current: RoundStop | null }) {
  return (
    <div className="round-progress" role="img" aria-label={`${round.stops.filter((stop) => stop.check).length} of ${round.stops.length} tanks checked`}>
      {round.stops.map((stop) => (
        <span key={stop.tankId} className={stop === current ? 'is-current' : !stop.check ? '' : isQuiet(stop.check) ? 'is-quiet' : 'is-remarked'} />
      ))}
    </div>
  )
}

function RoundDone({ round, onAgain, onBack, onOpen }: { round: RoundView; onAgain: () => void; onBack?: () => void; onOpen: () => void }) {
  const open = round.stops.filter((stop) => stop.check === null).length
  const remarked = round.stops.filter((stop) => stop.check && !isQuiet(stop.check))
  return (
    <div className="round-done">
      <h2>{open === 0 ? 'Every stocked tank is checked.' : `Closed ${round.closed ? `by ${round.closed.staffName}` : ''}: ${plural(open, 'tank')} not checked.`}</h2>
      {open > 0 ? null : remarked.length === 0 ? (
        <p>All well, all ate, in {plural(round.stops.length, 'tank')}.</p>
      ) : (
        <>
          <p>{plural(remarked.length, 'tank')} with something to remember:</p>
          <ul>
            {remarked.map((stop) => (
              <li key={stop.tankId}>
                <Link to={`/room/${stop.code}`}>{stop.code}</Link> {stop.check && [stop.check.signs.join(', '), stop.check.ate === 'all' ? '' : `ate: ${stop.check.ate}`, ...kindWords(stop.check, stop.stock), stop.check.note].filter(Boolean).join(' · ')}
              </li>
            ))}
          </ul>
        </>
      )}
      {round.emptyTanks.length > 0 && <p className="aside-word">Empty, not walked: {round.emptyTanks.join(', ')}.</p>}
      {open > 0 && (
        <Button size="hand" onClick={onOpen}>
          go on with this round
        </Button>
      )}
      <div className="thumb-bar">
        <Button size="hand" className="undo" onClick={onBack}>
          back
        </Button>
        <ButtonLink look="act" size="hand" to="/room">
          <strong>To the room</strong>
        </ButtonLink>
        <Button size="hand" className="same" onClick={onAgain}>
          walk again
        </Button>
      </div>
    </div>
  )
}
