import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import { ateAnswers } from '../../core/rounds/rounds.schema'
import { isQuiet, type RoundStop, type RoundView } from '../../core/rounds/roundView'
import { dangerOf } from '../../core/species/handling'
import { countFish } from '../../core/ledger/stockView'
import { kindName, poolsOf } from '../../core/pools/poolsOf'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { ateWords } from '../ui/ateWords'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { formatSpan } from '../ui/format'
import { JudgedWords } from '../ui/JudgedWords'
import { JustDone, type Done } from '../ui/JustDone'
import { kindWords } from '../ui/kindWords'
import { lotsWords } from '../ui/poolWords'
import { Stepper } from '../ui/Stepper'
import { TankGlyph } from '../ui/TankGlyph'
import { useDictation } from '../ui/useDictation'
import { useDoneElsewhere } from '../ui/useDoneElsewhere'
import { useSwipe } from '../ui/useSwipe'
import { KindSheet } from './KindSheet'
import { LossSheet } from './LossSheet'
import { MoreSheet } from './MoreSheet'
import { SignSheet } from './SignSheet'
import { recorded, signsOf, useCheck, type Found } from './useCheck'
import { useRoundWrites } from './useRound'

interface Props {
  stop: RoundStop
  round: Pick<RoundView, 'id' | 'number'>
  next: RoundStop | null
  onBack?: () => void
  onRecorded: () => void
}
type OpenSheet = 'sign' | 'kinds' | 'loss' | 'more' | null

/** One tank of the round: one touch when all is well, or what is not. */
export function CheckCard({ stop, round, next, onBack, onRecorded }: Props) {
  const { recordCheck, recordLoss, takeBack } = useRoundWrites()
  const elsewhere = useDoneElsewhere()
  const [done, setDone] = useState<Done[]>(elsewhere)
  const { found, change, forget } = useCheck(stop, round.id)
  const [sheet, setSheet] = useState<OpenSheet>(null)
  const close = (): void => setSheet(null)
  const lose = (loss: Omit<RecordLoss, 'happenedAtMs'>, words: string): void =>
    void recordLoss(stop.tankId, loss, `${words} in ${stop.code}`).then(({ movementIds }) => setDone((all) => [...all, { words, movementId: movementIds[0] ?? '' }]), () => undefined)
  const record = (): void => {
    recordCheck({ tankId: stop.tankId, roundId: round.id, roundNumber: round.number, ...recorded(found), replacesId: stop.check?.id ?? null }, `check of ${stop.code}`)
    forget()
    onRecorded()
  }
  useHotkeys('backspace', () => onBack?.(), { enabled: sheet === null })
  const swipes = useSwipe({ onLeft: sheet === null ? record : undefined, onRight: sheet === null ? onBack : undefined })
  const dictation = useDictation((words) => change({ note: [found.note, words].filter(Boolean).join(' ') }))

  return (
    <div className="check-card" {...swipes}>
      <CardHead stop={stop} />
      <Stock stop={stop} onLoss={lose} />
      <JustDone done={done} onBack={(last) => takeBack(last.movementId, last.isWhole).then(() => setDone((all) => all.filter((each) => each !== last)))} />
      <Exceptions stop={stop} found={found} onChange={change} onOpen={setSheet} />
      {found.ate !== 'all' && found.ate !== 'not fed' && (
        <Button size="hand" className="leftovers" aria-pressed={hasLeftovers(found.note)} onClick={() => change({ note: withLeftovers(found.note) })}>
          leftovers out
        </Button>
      )}
      <FoundWords stop={stop} found={found} onChange={change} />
      <div className="note-row">
        <TextField label="note" size="hand" className="note-line" maxLength={500} value={found.note ?? ''} onChange={(note) => change({ note: note || null })} />
        {dictation.isOffered && (
          <Button size="hand" aria-pressed={dictation.isListening} onClick={dictation.toggle}>
            say it
          </Button>
        )}
      </div>
      <div className="thumb-bar">
        <Button size="hand" className="undo" disabled={!onBack} onClick={onBack}>
          back
        </Button>
        <Button look="act" size="hand" autoFocus onClick={record}>
          <strong>{isQuiet({ ...found, signs: signsOf(found) }) ? 'All well, all ate' : 'Record and go on'}</strong>
          <small>{next ? `next: ${next.code}${next.before ? ', wash first' : ` ${next.stock[0]?.species ?? ''}`}` : 'the last one'}</small>
        </Button>
      </div>
      <SignSheet stop={stop} marks={found.marks} isOpen={sheet === 'sign'} onClose={close} onChange={(marks) => change({ marks })} />
      <KindSheet stop={stop} found={found} isOpen={sheet === 'kinds'} onClose={close} onChange={change} />
      <LossSheet stop={stop} isOpen={sheet === 'loss'} onClose={close} onLoss={lose} />
      <MoreSheet stop={stop} isOpen={sheet === 'more'} onClose={close} />
    </div>
  )
}

const leftovers = 'leftovers out'
const hasLeftovers = (note: string | null): boolean => note?.startsWith(leftovers) === true
/** Says in the note that what was left was taken out, or takes that word back. */
const withLeftovers = (note: string | null): string | null => (hasLeftovers(note) ? (note?.slice(leftovers.length).replace(/^, /, '') ?? '') || null : [leftovers, note].filter(Boolean).join(', '))

/** Which tank it is, what is done before it, and what is known of it. */
function CardHead({ stop }: { stop: RoundStop }) {
  const { judged } = stop
  return (
    <>
      {stop.before && <p className="before-tank">{stop.before}</p>}
      <div className="check-head">
        <TankGlyph kind={stop.kind} fish={countFish(stop.stock)} isUnchecked={stop.check === null} flag={stop.flag} />
        <div>
          <h2>{stop.code}</h2>
          <p>{stop.systemName}</p>
          <LastTime stop={stop} />
          {judged.pins.map((words) => (
            <p key={words} className="pinned">
              {words}
            </p>
          ))}
        </div>
      </div>
      <JudgedWords tankId={stop.tankId} code={stop.code} judged={judged} />
    </>
  )
}

function LastTime({ stop: { lastCheck, stock } }: { stop: RoundStop }) {
  if (!lastCheck) return <p className="aside-word">first check</p>
  const words = [lastCheck.signs.join(', '), lastCheck.ate === 'all' ? '' : ateWords[lastCheck.ate], ...kindWords(lastCheck, stock), lastCheck.note ?? ''].filter(Boolean).join(' · ')
  return <p className={words ? 'remembered' : 'aside-word'}>{words ? `last time: ${words}` : `all well ${formatSpan(nowMs() - lastCheck.happenedAtMs)} ago`}</p>
}

function Stock({ stop, onLoss }: { stop: RoundStop; onLoss: (loss: Omit<RecordLoss, 'happenedAtMs'>, words: string) => void }) {
  const { timeZone } = useSession()
  return (
    <ul className="check-stock">
      {poolsOf(stop.stock).map((pool) => (
        <li key={pool.key}>
          <span>
            <strong>
              {pool.quantity} {kindName(pool)}
            </strong>{' '}
            {dangerOf(pool.lots[0].handling) && <span className="danger-word">{dangerOf(pool.lots[0].handling)} </span>}
            <small>{lotsWords(pool, timeZone)}</small>
          </span>
          <Button size="hand" aria-label={`1 died: ${kindName(pool)}`} onClick={() => onLoss({ speciesId: pool.speciesId, strain: pool.strain, quantity: 1, cause: 'found dead', note: null }, `1 ${kindName(pool)} died`)}>
            1 died
          </Button>
        </li>
      ))}
    </ul>
  )
}

interface Changing {
  stop: RoundStop
  found: Found
  onChange: (part: Partial<Found>) => void
}

/** Whatever is not well: how they ate in a row, then what is seen. */
function Exceptions({ stop, found, onChange, onOpen }: Changing & { onOpen: (sheet: OpenSheet) => void }) {
  const hasKinds = poolsOf(stop.stock).length > 1
  const isCounted = found.seen !== null || found.counts.length > 0
  return (
    <div className="exceptions">
      {ateAnswers
        .filter((ate) => ate !== 'all')
        .map((ate) => (
          <Button key={ate} size="hand" aria-pressed={found.ate === ate} onClick={() => onChange({ ate: found.ate === ate ? 'all' : ate })}>
            {ateWords[ate]}
          </Button>
        ))}
      <Button size="hand" aria-pressed={found.marks.length > 0} onClick={() => onOpen('sign')}>
        a sign
      </Button>
      {hasKinds ? (
        <Button size="hand" aria-pressed={isCounted || found.answers.length > 0} onClick={() => onOpen('kinds')}>
          by kind
        </Button>
      ) : (
        <Button size="hand" aria-pressed={isCounted} onClick={() => onChange({ seen: found.seen === null ? countFish(stop.stock) : null })}>
          count
        </Button>
      )}
      <Button size="hand" onClick={() => onOpen('loss')}>
        other loss
      </Button>
      <Button size="hand" onClick={() => onOpen('more')}>
        more
      </Button>
    </div>
  )
}

/** What was entered so far, in words. */
function FoundWords({ stop, found, onChange }: Changing) {
  const nameOf = (lotId: string): string => stop.stock.find((lot) => lot.lotId === lotId)?.species ?? 'a lot that left'
  const signs = found.marks.map(({ sign, severity, lotId }) => [sign, ...(severity > 1 ? ['clear'] : []), ...(lotId === null ? [] : [`on ${nameOf(lotId)}`])].join(' '))
  const kinds = kindWords(found, stop.stock)
  return (
    <>
      {found.seen !== null && (
        <div className="seen-line">
          <Stepper label="seen" value={found.seen} max={20_000} onChange={(seen) => onChange({ seen })} />
          <p>seen of {countFish(stop.stock)} in the books. Not seen is not missing: the books stay as they are.</p>
        </div>
      )}
      {kinds.length > 0 && <p className="signs-line">{kinds.join(', ')}</p>}
      {signs.length > 0 && <p className="signs-line">Signs: {signs.join(', ')}</p>}
    </>
  )
}
