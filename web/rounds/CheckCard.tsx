import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import { cardAnswers, cardSigns, type Ate, type RecordCheck, type Sign } from '../../core/rounds/rounds.schema'
import { isQuiet, pendingCheckId, type RoundStop, type RoundView } from '../../core/rounds/roundView'
import { dangerOf } from '../../core/species/handling'
import { countFish } from '../../core/ledger/stockView'
import { kindName, poolsOf } from '../../core/pools/poolsOf'
import { nowMs } from '../api/clock'
import { Button } from '../ui/Button'
import { ateWords } from '../ui/ateWords'
import { TextField } from '../ui/Field'
import { formatSpan } from '../ui/format'
import { Sheet } from '../ui/Sheet'
import { Stepper } from '../ui/Stepper'
import { TankGlyph } from '../ui/TankGlyph'
import { useKept } from '../ui/useKept'
import { useSession } from '../api/session'
import { JustDone, type Done } from '../ui/JustDone'
import { lotsWords } from '../ui/poolWords'
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
  const { recordCheck, recordLoss, takeBack } = useRoundWrites()
  const [done, setDone] = useState<Done[]>([])
  const { timeZone } = useSession()
  const [kept, keep] = useKept<Found>(`crate.check.${stop.tankId}.${round.id}`)
  const [sheet, setSheet] = useState<'sign' | 'loss' | null>(null)
  const found = kept ?? (stop.check ? pick(stop.check) : well)
  const [fish, pools] = [countFish(stop.stock), poolsOf(stop.stock)]
  const lose = (loss: Omit<RecordLoss, 'happenedAtMs'>, words: string): void =>
    void recordLoss(stop.tankId, loss, `${words} in ${stop.code}`).then(({ movementIds }) => setDone((all) => [...all, { words, movementId: movementIds[0] ?? '' }]), () => undefined)
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
        {pools.map((pool) => (
          <li key={pool.key}>
            <span>
              <strong>
                {pool.quantity} {kindName(pool)}
              </strong>{' '}
              {dangerOf(pool.lots[0].handling) && <span className="danger-word">{dangerOf(pool.lots[0].handling)} </span>}
              <small>{lotsWords(pool, timeZone)}</small>
            </span>
            <Button size="hand" aria-label={`1 died: ${kindName(pool)}`} onClick={() => lose({ speciesId: pool.speciesId, strain: pool.strain, quantity: 1, cause: 'found dead', note: null }, `1 ${kindName(pool)} died`)}>
              1 died
            </Button>
          </li>
        ))}
      </ul>
      <JustDone done={done} onBack={(last) => takeBack(last.movementId).then(() => setDone((all) => all.filter((each) => each !== last)))} />
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
          other loss
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
      <LossSheet stop={stop} isOpen={sheet === 'loss'} onClose={() => setSheet(null)} onLoss={lose} />
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
