import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { HeldGroupView, HoldsView } from '../../core/holds/holdsView'
import { neverReadyWords } from '../../core/holds/holdWords'
import { mayTakeBack } from '../../core/staff/mayTakeBack'
import { shownDay } from '../../core/time/shownDay'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { Apart } from '../ui/Apart'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { Decisions } from './Decisions'
import { HoldBarPicture, spanOf, type BarSpan } from './HoldBarPicture'
import { HoldSheet } from './HoldSheet'
import { LetGo } from './LetGo'
import { Pairings } from './Pairings'
import { WhatIf } from './WhatIf'
import { useHolds, useHoldWrites, type HoldWrites } from './useHolds'
import './holds.css'

const orders = ['water', 'lot', 'day'] as const
type Order = (typeof orders)[number]
const orderWords: Readonly<Record<Order, string>> = { water: 'by water', lot: 'by lot', day: 'by day' }

/** Every clock: what waits for a word, what is ready, and how far the others are. */
export function HoldsPage() {
  const { holds, problem } = useHolds()
  const writes = useHoldWrites()
  const [search, setSearch] = useSearchParams()
  const [open, setOpen] = useState<string | null>(null)
  if (!holds) return problem ? <Trouble problem={problem} /> : <Waiting what="the holds" />
  const order = orders.find((each) => each === search.get('order')) ?? 'water'
  const asked = search.get('find') ?? ''
  const set = (name: string, value: string): void => setSearch((now) => (value === '' ? now.delete(name) : now.set(name, value), now), { replace: true })
  const shown = holds.groups.filter((group) => matches(group, holds, asked))
  const [ready, running] = [shown.filter(({ release }) => release.answer === 'release'), shown.filter(({ release }) => release.answer !== 'release')]
  const opened = holds.groups.find((group) => keyOf(group) === open)
  return (
    <>
      <Lead title="Holds" aside={<Link to="/regimens">Regimens</Link>}>
        <HoldsSentence holds={holds} />
      </Lead>
      <Decisions decisions={holds.decisions} writes={writes} />
      <ReadySection ready={ready} isFirst={holds.decisions.length === 0} writes={writes} onOpen={setOpen} />
      <LetGo groups={holds.letGo} />
      {holds.groups.length > 0 && (
        <div className="hold-order">
          <div className="entry-buttons" role="group" aria-label="Order">
            {orders.map((each) => (
              <Button key={each} aria-pressed={order === each} onClick={() => set('order', each === 'water' ? '' : each)}>
                {orderWords[each]}
              </Button>
            ))}
          </div>
          <TextField label="Find in the holds" isLabelHidden placeholder="tank, fish, lot, supplier" value={asked} onChange={(words) => set('find', words)} />
        </div>
      )}
      <Clocks running={running} holds={holds} order={order} onOpen={setOpen} />
      {shown.length === 0 && asked !== '' && <p className="aside-word">No hold of “{asked}”.</p>}
      {holds.unclocked.length > 0 && <p className="aside-word">No clock knows of {holds.unclocked.join('; ')}: entries about them contradict each other by their times. They count as fish without a hold.</p>}
      <Pairings pairings={holds.pairings} pairable={holds.pairable} writes={writes} />
      <WhatIf />
      <Lately holds={holds} writes={writes} />
      {opened && <HoldSheet group={opened} writes={writes} onClose={() => setOpen(null)} />}
    </>
  )
}

const keyOf = ({ lotId, placeId }: HeldGroupView): string => `${lotId} ${placeId}`
const waterName = (group: HeldGroupView, { waters }: HoldsView): string => waters.find(({ id }) => id === group.waterId)?.name ?? 'water'

function matches(group: HeldGroupView, holds: HoldsView, asked: string): boolean {
  const words = [group.species, group.lotCode, group.supplier, group.placeName, group.policyName, waterName(group, holds)].join(' ').toLowerCase()
  return asked.toLowerCase().split(/\s+/).every((word) => words.includes(word))
}

function HoldsSentence({ holds: { decisions, groups } }: { holds: HoldsView }) {
  const ready = groups.filter(({ release }) => release.answer === 'release')
  const [first] = decisions
  if (first) return <>{decisions.length === 1 ? 'One thing waits' : `${decisions.length} things wait`} for a word; until then no hold on that water is ready. First: {first.word}{first.tankCode ? `, ${first.tankCode}` : ''}.</>
  if (ready.length > 0) return <>{plural(ready.length, 'group is ready', 'groups are ready')}: let them go, or the next fish that come beside them begin their days again.</>
  const [next] = groups
  return next ? <>Nothing to decide, nothing ready. Next, not before {shownDay(next.earliest)}: {next.species}, {next.placeName}.</> : <>No fish are held. Those of the next crate begin a hold as they come into their tanks.</>
}

/** What is ready, let go in one touch. */
function ReadySection({ ready, isFirst, writes, onOpen }: { ready: readonly HeldGroupView[]; isFirst: boolean; writes: HoldWrites; onOpen: (key: string) => void }) {
  const [problem, setProblem] = useState<string | null>(null)
  const [isBusy, setBusy] = useState(false)
  const releaseAll = (): void => {
    setBusy(true)
    void writes.end(ready, null).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error))).finally(() => setBusy(false))
  }
  return (
    <>
      <RowSection title="Ready" count={ready.length}>
        {ready.map((group) => (
          <li key={keyOf(group)} className="record">
            <Button look="bare" className="record-row is-hold" onClick={() => onOpen(keyOf(group))}>
              <span>
                <strong>{group.placeName}</strong> {group.fish} {group.species}
                <small>
                  lot {group.lotCode}, {group.policyName}: {group.words}
                </small>
              </span>
            </Button>
          </li>
        ))}
      </RowSection>
      {ready.length > 0 && (
        <div className="entry-buttons">
          <Button size="hand" look={isFirst ? 'act' : 'plain'} disabled={isBusy} onClick={releaseAll}>
            <strong>{ready.length === 1 ? 'release it' : `release all ${ready.length}`}</strong>
          </Button>
        </div>
      )}
      <Problem>{problem}</Problem>
    </>
  )
}

function Clocks({ running, holds, order, onOpen }: { running: readonly HeldGroupView[]; holds: HoldsView; order: Order; onOpen: (key: string) => void }) {
  if (running.length === 0) return null
  const span = spanOf(running.map(({ bar }) => bar))
  const row = (group: HeldGroupView) => <ClockRow key={keyOf(group)} group={group} span={span} onOpen={onOpen} />
  if (order === 'day') return <RowSection title="Running" count={running.length}>{running.map(row)}</RowSection>
  if (order === 'lot') return <RowSection title="Running" count={running.length}>{[...running].sort((a, b) => (a.species < b.species ? -1 : a.species > b.species ? 1 : a.lotCode < b.lotCode ? -1 : 1)).map(row)}</RowSection>
  return (
    <>
      {[...groupBy(running, ({ waterId }) => waterId)].map(([id, groups]) => {
        const water = holds.waters.find((each) => each.id === id)
        return (
          <Apart key={id} what="The holds of a water" of={groups}>
            <RowSection title={water?.name ?? 'water'} count={groups.length}>
              {groups.map(row)}
            </RowSection>
            {water?.isNeverReady && <p className="aside-word">{neverReadyWords}</p>}
          </Apart>
        )
      })}
    </>
  )
}

const ClockRow = ({ group, span, onOpen }: { group: HeldGroupView; span: BarSpan; onOpen: (key: string) => void }) => (
  <li className="record">
    <Button look="bare" className="record-row hold-row" onClick={() => onOpen(keyOf(group))}>
      <span className="hold-who">
        <strong>{group.placeName}</strong> {group.fish} {group.species}
        <small>
          lot {group.lotCode}, {group.policyName}
          {group.restarts.length > 0 && `. ${group.restarts[0] ?? ''}`}
        </small>
      </span>
      <span className="hold-what">
        <HoldBarPicture bar={group.bar} span={span} />
        <span className={group.isUndecided ? 'hold-words is-asking' : 'hold-words'}>{group.words}</span>
      </span>
    </Button>
  </li>
)

/** What people did to holds of late, and the way back. */
function Lately({ holds, writes }: { holds: HoldsView; writes: HoldWrites }) {
  const format = useFormat()
  const { recorder } = useSession()
  const [problem, setProblem] = useState<string | null>(null)
  if (holds.entries.length === 0) return null
  return (
    <details className="hold-lately">
      <summary>{plural(holds.entries.length, 'entry', 'entries')} of the last days</summary>
      <ul className="record-list">
        {holds.entries.map(({ id, placeName, words, by, atMs, ...entry }) => (
          <li key={id} className="record hold-entry">
            <span>
              <strong>{placeName}</strong> {words}
              <small>
                {by}, {format.moment(atMs)}
              </small>
            </span>
            {mayTakeBack(recorder, entry, nowMs()) && (
              <Button look="quiet" onClick={() => void writes.undo(id).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))}>
                take it back
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Problem>{problem}</Problem>
    </details>
  )
}
