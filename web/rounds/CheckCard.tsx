import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { cardAnswers, cardSigns, type Ate, type RecordCheck, type Sign } from '../../core/rounds/rounds.schema'
import { isQuiet, pendingCheckId, type RoundStop, type RoundView } from '../../core/rounds/roundView'
import { dangerOf } from '../../core/species/handling'
import { countFish } from '../../core/ledger/stockView'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { ateWords } from '../ui/ateWords'
import { TextField } from '../ui/Field'
import { formatSpan } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { Stepper } from '../ui/Stepper'
import { TankGlyph } from '../ui/TankGlyph'
import { useKept } from '../ui/useKept'
import { LossSheet } from './LossSheet'
import { useRoundWrites } from './useRound'

interface Props {
  stop: RoundStop
  round: Pick<RoundView, 'id' | 'number'>
  next: RoundStop | null
  onBack?: () => void
  onRecorded: () => void
}

type Found = Pick<RecordCheck, 'ate' | 'signs' | 'seen' | 'note'>
const well: Found = { ate: 'all', signs: [], seen: null, note: null }

/** One tank of the round: one touch when all is well, or what is not. */
export function CheckCard({ stop, round, next, onBack, onRecorded }: Props) {
  const { recordCheck, recordLoss } = useRoundWrites()
  const [kept, keep] = useKept<Found>(`crate.check.${stop.tankId}.${round.id}`)
  const [sheet, setSheet] = useState<'sign' | 'loss' | null>(null)
  const found = kept ?? (stop.check ? pick(stop.check) : well)
  const fish = countFish(stop.stock)
  const change = (part: Partial<Found>): void => keep({ ...found, ...part })
  const toggleSign = (sign: Sign): void => change({ signs: found.signs.includes(sign) ? found.signs.filter((each) => each !== sign) : [...found.signs, sign] })
  const record = (): void => {
    const replacesId = stop.check && stop.check.id !== pendingCheckId ? stop.check.id : null
    recordCheck({ tankId: stop.tankId, roundId: round.id, roundNumber: round.number, ...found, replacesId }, `check of ${stop.code}`)
    keep(null)
    onRecorded()
  }
  useHotkeys('backspace', () => onBack?.(), { enabled: sheet === null })

  return (
    <div className="check-card">
      <div className="check-head">
        <TankGlyph kind={stop.kind} fish={fish} isUnchecked={stop.check === null} flag={stop.flag} />
        <div>
          <h2>{stop.code}</h2>
          <p>{stop.systemName}</p>
          <LastTime stop={stop} />
        </div>
      </div>
      <ul className="check-stock">
        {stop.stock.map((lot) => (
          <li key={lot.lotId}>
            <strong>
              {lot.quantity} {lot.species}
            </strong>{' '}
            {dangerOf(lot.handling) && <span className="danger-word">{dangerOf(lot.handling)} </span>}
            <small>
              lot {lot.lotCode}, {lot.origin}, {formatSpan(nowMs() - lot.sinceMs)} here
            </small>
          </li>
        ))}
      </ul>
      <div className="exceptions">
        {(cardAnswers.filter((ate) => ate !== 'all') as Ate[]).map((ate) => (
          <Button key={ate} size="hand" aria-pressed={found.ate === ate} onClick={() => change({ ate: found.ate === ate ? 'all' : ate })}>
            {ateWords[ate]}
          </Button>
        ))}
        <Button size="hand" aria-pressed={found.seen !== null} onClick={() => change({ seen: found.seen === null ? fish : null })}>
          count
        </Button>
        <Button size="hand" aria-pressed={found.signs.length > 0} onClick={() => setSheet('sign')}>
          a sign
        </Button>
        <Button size="hand" onClick={() => setSheet('loss')}>
          a death
        </Button>
      </div>
      {found.seen !== null && (
        <div className="seen-line">
          <Stepper label="seen" value={found.seen} max={20_000} onChange={(seen) => change({ seen })} />
          <p>seen of {fish} in the books. Not seen is not missing: the books stay as they are.</p>
        </div>
      )}
      {found.signs.length > 0 && <p className="signs-line">Signs: {found.signs.join(', ')}</p>}
      <TextField label="note" size="hand" className="note-line" maxLength={500} value={found.note ?? ''} onChange={(note) => change({ note: note || null })} />
      <div className="thumb-bar">
        <Button size="hand" className="undo" disabled={!onBack} onClick={onBack}>
          back
        </Button>
        <Button look="act" size="hand" autoFocus onClick={record}>
          <strong>{isQuiet(found) ? 'All well, all ate' : 'Record and go on'}</strong>
          <small>{next ? `next: ${next.code} ${next.stock[0]?.species ?? ''}` : 'the last one'}</small>
        </Button>
      </div>
      <Sheet title={`What do you see in ${stop.code}?`} isOpen={sheet === 'sign'} onClose={() => setSheet(null)}>
        <div className="sign-choice">
          {cardSigns.map((sign) => (
            <Button key={sign} size="hand" aria-pressed={found.signs.includes(sign)} onClick={() => toggleSign(sign)}>
              {sign}
            </Button>
          ))}
        </div>
        <Button look="act" size="hand" onClick={() => setSheet(null)}>
          <strong>Back to {stop.code}</strong>
        </Button>
      </Sheet>
      <LossSheet stop={stop} isOpen={sheet === 'loss'} onClose={() => setSheet(null)} onLoss={(loss, label) => recordLoss(stop.tankId, loss, label)} />
    </div>
  )
}

const pick = ({ ate, signs: seenSigns, seen, note }: Found): Found => ({ ate, signs: seenSigns, seen, note })

function LastTime({ stop }: { stop: RoundStop }) {
  const { lastCheck } = stop
  if (!lastCheck) return <p className="aside-word">first check</p>
  const words = [lastCheck.signs.join(', '), lastCheck.ate === 'all' ? '' : ateWords[lastCheck.ate], lastCheck.note ?? ''].filter(Boolean).join(' · ')
  return <p className={words ? 'remembered' : 'aside-word'}>{words ? `last time: ${words}` : `all well ${formatSpan(nowMs() - lastCheck.happenedAtMs)} ago`}</p>
}
