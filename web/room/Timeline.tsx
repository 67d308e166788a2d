import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { groupTimeline, type TimelineGroup } from '../../core/room/groupTimeline'
import type { StockView } from '../../core/ledger/stockView'
import { storyKinds, type MovementView, type StoryKind, type TimelineEntry } from '../../core/room/roomView'
import { isQuiet, type CheckView } from '../../core/rounds/roundView'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import { ateWords } from '../ui/ateWords'
import { kindWords } from '../ui/kindWords'
import { signed } from '../ui/format'
import { useFormat } from '../ui/useFormat'
import { withParam } from '../ui/withParam'

interface Props {
  entries: TimelineEntry[]
  /** Who stands there now, to name the kinds that a look told apart. */
  stock: readonly StockView[]
  hasOlder: boolean
  /** Which entries are shown. */
  only: StoryKind
  onOnly: (only: StoryKind) => void
  onOlder: () => void
  onReverse: (movementId: string, reason: string | null) => Promise<unknown>
}

/** The story of a tank, newest first. Each entry opens what is behind it; which one is open stands in the address. */
export function Timeline({ entries, stock, hasOlder, only, onOnly, onOlder, onReverse }: Props) {
  const [search, setSearch] = useSearchParams()
  const open = search.get('entry')
  const show = (id: string | null): void => setSearch((before) => withParam(before, 'entry', id), { replace: true })
  return (
    <section className="timeline" aria-label="What happened">
      <h2>
        What happened
        <span className="filters" role="group" aria-label="Which entries">
          {storyKinds.map((kind) => (
            <Button key={kind} aria-pressed={only === kind} onClick={() => onOnly(kind)}>
              {kind}
            </Button>
          ))}
        </span>
      </h2>
      <ol>
        {groupTimeline(entries).map((group) =>
          group.entries.length === 1 ? <Entry key={group.id} entry={group.entries[0]} stock={stock} open={open} onShow={show} onReverse={onReverse} /> : <Group key={group.id} group={group} stock={stock} open={open} onShow={show} onReverse={onReverse} />,
        )}
      </ol>
      {entries.length === 0 && <p className="page-state">{only === 'all' ? 'Nothing is recorded for this tank yet.' : 'Nothing of this kind is recorded for this tank.'}</p>}
      {hasOlder && (
        <Button onClick={onOlder}>
          older entries
        </Button>
      )}
    </section>
  )
}

interface Opening {
  /** Id of the entry that is open, from the address. */
  open: string | null
  onShow: (id: string | null) => void
  onReverse: Props['onReverse']
  stock: Props['stock']
}

function Entry({ entry, stock, open, onShow, onReverse }: { entry: TimelineEntry } & Opening) {
  const isOpen = open === entry.id
  return (
    <li className={`entry ${entry.type}${isVoid(entry) ? ' is-void' : ''}`}>
      <EntryLine entry={entry} change={entry.type === 'movement' ? entry.change : null} words={wordsOf(entry, stock)} isOpen={isOpen} onToggle={() => onShow(isOpen ? null : entry.id)} />
      {isOpen && (entry.type === 'movement' ? <MovementDetail movement={entry} onReverse={onReverse} /> : <CheckDetail check={entry} stock={stock} />)}
    </li>
  )
}

/** What one touch did to one lot, or to fish that cannot be told apart: one line, with its entries behind it. */
function Group({ group, stock, open, onShow, onReverse }: { group: TimelineGroup } & Opening) {
  const id = `all-${group.id}`
  const movements = group.entries.filter((entry) => entry.type === 'movement')
  const isOpen = open === id || movements.some((movement) => movement.id === open)
  const change = movements.reduce((sum, movement) => sum + movement.change, 0)
  return (
    <li className={`entry${isVoid(group.entries[0]) ? ' is-void' : ''}`}>
      <EntryLine entry={group.entries[0]} change={change} words={groupWords(movements)} isOpen={isOpen} onToggle={() => onShow(isOpen ? null : id)} />
      {isOpen && (
        <ol className="entry-group">
          {movements.map((movement) => (
            <Entry key={movement.id} entry={movement} stock={stock} open={open} onShow={(entry) => onShow(entry ?? id)} onReverse={onReverse} />
          ))}
        </ol>
      )}
    </li>
  )
}

function groupWords(movements: MovementView[]): string {
  const [first] = movements
  if (!first) return ''
  if (first.pool) return eventWords(movements)
  if (first.kind === 'reversal') return `${first.species}, ${movements.length} entries taken back`
  return first.crate && first.change > 0 ? `${first.species} from ${movements.length} bags of crate ${first.crate.number}` : `${first.species}, ${movements.length} entries`
}

/** What happened to fish of several lots that stood together, and whose the books take them to be. */
function eventWords(movements: readonly MovementView[]): string {
  const own = movements.filter(({ pool }) => !pool?.isSwap)
  const [first] = own
  if (!first) return 'Fish put to the lot they are of'
  return `${movementWords(first)}${takenFor(own)}`
}

function takenFor(own: readonly MovementView[]): string {
  const [first] = own
  if (!first?.pool || first.pool.how === 'seen' || first.kind === 'reversal') return ''
  if (own.length > 1 || first.quantity > 1) return `, taken to be ${own.map(({ quantity, lotCode }) => `${quantity} of ${lotCode}`).join(' and ')}, not seen`
  const share = first.pool.shares.find(({ lotCode }) => lotCode === first.lotCode)?.share
  return `, taken to be ${first.lotCode}${share === undefined ? '' : ` (${Math.round(share * 100)} %)`}, not seen`
}

const isVoid = (entry: TimelineEntry): boolean => (entry.type === 'movement' ? entry.reversedById !== null : entry.replacedById !== null)

function EntryLine({ entry, change, words, isOpen, onToggle }: { entry: TimelineEntry; change: number | null; words: string; isOpen: boolean; onToggle: () => void }) {
  const format = useFormat()
  return (
    <Button look="bare" className="entry-line" aria-expanded={isOpen} onClick={onToggle}>
      <time>{format.moment(entry.happenedAtMs)}</time>
      <span className="entry-change">{change === null ? '' : signed(change)}</span>
      <span className="entry-words">{words}</span>
      <small>{entry.staffName}</small>
    </Button>
  )
}

const wordsOf = (entry: TimelineEntry, stock: Props['stock']): string => (entry.type === 'check' ? checkWords(entry, stock) : entry.pool?.isSwap ? `${entry.species}: ${entry.change > 0 ? 'one is' : 'one is not'} of lot ${entry.lotCode}` : `${movementWords(entry)}${takenFor([entry])}`)

function movementWords(movement: MovementView): string {
  const { species, kind, change, from, to, cause, reason } = movement
  const isIn = change > 0
  switch (kind) {
    case 'move':
      return isIn ? `${species} from ${from}` : `${species} to ${to}`
    case 'loss':
      return `${species} lost: ${cause ?? 'unknown'}`
    case 'release':
      return `${species} ${reason ?? 'released'}`
    case 'born':
      return `${species} born here`
    case 'arrive':
      return `${species} brought in`
    case 'count-correction':
      return `${species} counted: ${reason ?? ''}`
    case 'reversal':
      return `${species}, an entry taken back${reason ? `: ${reason}` : ''}`
    case 'dead-in-bag':
      return `${species} dead in bag`
  }
}

function checkWords(check: CheckView, stock: Props['stock']): string {
  if (isQuiet(check)) return 'All well, all ate'
  const parts = [check.signs.join(', '), ateWords[check.ate], ...kindWords(check, stock), check.seen === null ? '' : `${check.seen} of ${check.expected} seen`, check.note ?? '']
  return `Checked: ${parts.filter(Boolean).join(' · ')}`
}

function Facts({ facts }: { facts: [string, string | null][] }) {
  return (
    <dl className="facts">
      {facts
        .filter(([, value]) => value)
        .map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
    </dl>
  )
}

function MovementDetail({ movement, onReverse }: { movement: MovementView; onReverse: Props['onReverse'] }) {
  const format = useFormat()
  const { quantity, species, lotCode, from, to, cause, reason, note, staffName, happenedAtMs, recordedAtMs, crate, fixedBecause, pool, shortfall, chosen } = movement
  const facts: [string, string | null][] = [
    ['fish', `${quantity} ${species}, lot ${lotCode}`],
    ['way', `${from} → ${to}`],
    ['counts for', pool && pool.shares.length > 1 ? pool.shares.map((each) => `${each.lotCode} ${Math.round(each.share * 100)} %`).join(', ') : null],
    ['chosen', chosen],
    ['cause', cause],
    ['reason', reason],
    ['in its hold', shortfall],
    ['note', note],
    ['happened', format.moment(happenedAtMs)],
    ['recorded', `${format.moment(recordedAtMs)} by ${staffName}`],
  ]
  return (
    <div className="entry-detail">
      <Facts facts={facts} />
      {crate && <Link to={`/crates/${crate.id}`}>Crate {crate.number}, where this lot came from</Link>}
      {movement.kind === 'loss' && movement.reversedById === null && <Link to={`/outcomes/fish?lot=${encodeURIComponent(lotCode)}&at=${happenedAtMs}&tank=${encodeURIComponent(from)}`}>Its place in Outcomes</Link>}
      {movement.reversesId && <Link to={`?entry=${movement.reversesId}`}>The entry that this takes back</Link>}
      {movement.reversedById && <Link to={`?entry=${movement.reversedById}`}>The entry that took this back</Link>}
      {fixedBecause ? <p className="aside-word">{fixedBecause}</p> : <ReverseButton onReverse={() => onReverse(movement.id, null)} />}
    </div>
  )
}

function ReverseButton({ onReverse }: { onReverse: () => Promise<unknown> }) {
  const [state, setState] = useState<{ isBusy: boolean; problem: string | null }>({ isBusy: false, problem: null })
  const reverse = async (): Promise<void> => {
    setState({ isBusy: true, problem: null })
    try {
      await onReverse()
    } catch (error) {
      setState({ isBusy: false, problem: sentenceOf(error) })
    }
  }
  return (
    <>
      <Button disabled={state.isBusy} onClick={() => void reverse()}>
        Take this back
      </Button>
      <Problem>{state.problem}</Problem>
    </>
  )
}

function CheckDetail({ check, stock }: { check: CheckView; stock: Props['stock'] }) {
  const format = useFormat()
  const facts: [string, string | null][] = [
    ['round', `${check.roundOn}, round ${check.roundNumber}`],
    ['feeding', ateWords[check.ate]],
    ['single kinds', kindWords(check, stock).join(', ') || null],
    ['signs', check.signs.join(', ') || 'none'],
    ['seen', check.seen === null ? `not counted; the books said ${check.expected}` : `${check.seen} of ${check.expected}`],
    ['note', check.note],
    ['happened', format.moment(check.happenedAtMs)],
    ['recorded', `${format.moment(check.recordedAtMs)} by ${check.staffName}`],
  ]
  return (
    <div className="entry-detail">
      <Facts facts={facts} />
      {check.replacedById && <p className="aside-word">Corrected by a later check.</p>}
    </div>
  )
}
