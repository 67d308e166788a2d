import { Link, useParams, useSearchParams } from 'react-router'
import { hopWords } from '../../core/contacts/contactWords'
import type { ReachedLotView, ReachedView, TraceView } from '../../core/contacts/contactView'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { useTankOf, useTrace, type TraceAsk } from './useContacts'
import './contacts.css'

const windows = [7, 14, 28, 60, 365]
/** Through so many waters is open at first: further on, in weeks, one would name the whole room. */
const openHops = 2

/** What can have met the water of a tank: where something can have come from, and where it can have got to. */
export function TracePage() {
  const { code = '' } = useParams()
  const { tank, problem } = useTankOf(code)
  if (!tank) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tank" />
  return <Trace start={`tank:${tank.id}`} title={`Contacts of ${tank.code}`} />
}

function Trace({ start, title }: { start: string; title: string }) {
  const [search, setSearch] = useSearchParams()
  const direction: TraceAsk['direction'] = search.get('direction') === 'forward' ? 'forward' : 'backward'
  const days = Number(search.get('days') ?? 28) || 28
  const isAll = search.get('hops') === 'all'
  const { trace, problem } = useTrace({ start, direction, days, hops: isAll ? null : openHops })
  const set = (name: string, value: string): void => {
    const next = new URLSearchParams(search)
    next.set(name, value)
    setSearch(next, { replace: true })
  }
  if (!trace) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="what met" />
  return (
    <>
      <Lead title={title}>{sentence(trace)}</Lead>
      <div className="trace-asked">
        <ChoiceField label="Which way" value={direction} onChange={(value) => set('direction', value)}>
          <option value="backward">where it can have come from</option>
          <option value="forward">where it can have got to</option>
        </ChoiceField>
        <ChoiceField label="How far back" value={String(days)} onChange={(value) => set('days', value)}>
          {windows.map((each) => (
            <option key={each} value={each}>{`${each} days`}</option>
          ))}
        </ChoiceField>
      </div>
      <Notice>Recorded contacts only: nothing recorded is not “no contact”, and none of this finds a germ.</Notice>
      <RowSection title="Waters and tools" count={trace.reached.length} nothing="Nothing is recorded.">
        {trace.reached.map((each) => (
          <Reached key={each.node} reached={each} />
        ))}
      </RowSection>
      {!isAll && (
        <Button look="quiet" onClick={() => set('hops', 'all')}>
          further on, through more than {openHops - 1} other
        </Button>
      )}
      <RowSection title="Lots" count={trace.lots.length} nothing="None stood there.">
        {trace.lots.map((each) => (
          <ReachedLot key={each.lotId} lot={each} />
        ))}
      </RowSection>
      {trace.sameTools.length > 0 && <p className="aside-word">Same tool set, nothing recorded: {trace.sameTools.map(({ name }) => name).join(', ')}.</p>}
    </>
  )
}

function sentence({ reached, lots, sources, direction }: TraceView): string {
  const waters = reached.filter(({ node }) => node.startsWith('water:'))
  const near = waters.filter(({ hops }) => hops === 1).length
  if (waters.length === 0) return direction === 'forward' ? 'Nothing is recorded that left this water.' : 'Nothing is recorded that came into this water.'
  return `${waters.length} ${waters.length === 1 ? 'water' : 'waters'}, ${near} of them directly; ${lots.length} ${lots.length === 1 ? 'lot' : 'lots'} of ${sources.length} ${sources.length === 1 ? 'source' : 'sources'}.`
}

function Reached({ reached: { name, tanks, hops, atMs, chain, isCleared } }: { reached: ReachedView }) {
  const format = useFormat()
  const place = tanks.length === 1 && tanks[0] ? <Link to={`/room/${tanks[0]}`}>{name}</Link> : name
  return (
    <li className="record trace-row">
      <span>
        <strong>{place}</strong>
        {tanks.length > 1 && <small>{tanks.join(', ')}</small>}
        <small>
          {chain.map(({ id, words, atMs: stepMs, isPlanned }, index) => (
            <span key={`${id}-${index}`}>
              {index > 0 && '; then '}
              {words}, {format.moment(stepMs)}
              {!isPlanned && ' (breach)'}
            </span>
          ))}
        </small>
      </span>
      <span>
        {hopWords(hops)}, {format.moment(atMs)}
        {isCleared && ', cleared since'}
      </span>
    </li>
  )
}

function ReachedLot({ lot: { lotCode, species, origin, hops, tanks, hold } }: { lot: ReachedLotView }) {
  return (
    <li className="record trace-row">
      <span>
        <strong>
          {species} <small>lot {lotCode}</small>
        </strong>
        <small>
          {origin}
          {tanks.length > 0 && ` · ${tanks.join(', ')}`}
        </small>
      </span>
      <span>
        {hopWords(hops)}
        {hold && `, in its hold, day ${hold.day} of ${hold.of}`}
      </span>
    </li>
  )
}
