import { lazy, Suspense, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { hopWords } from '../../core/contacts/contactWords'
import { dayWords } from '../../core/holds/holdDay'
import type { ReachedLotView, ReachedView, TraceView } from '../../core/contacts/contactView'
import { useTankOf } from '../api/sharedReads'
import { Apart } from '../ui/Apart'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { useContactWrites, useTrace, type TraceAsk } from './useContacts'
import './contacts.css'

const TraceDrawing = lazy(() => import('./TraceDrawing'))

const windows = [7, 14, 28, 60, 365]
/** Through so many waters is open at first: further on, in weeks, one would name the whole room. */
const openHops = 2
const openLots = 8

/** What can have met the water of a tank: where something can have come from, and where it can have got to. */
export function TracePage() {
  const { code = '' } = useParams()
  const { tank, problem } = useTankOf(code)
  if (!tank) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tank" />
  return <Trace start={`tank:${tank.id}`} title={`Contacts of ${tank.code}`} />
}

/** The same of a lot or a tool set: `?start=lot:…`, `?start=tools:…`. */
export function TraceOfPage() {
  const [search] = useSearchParams()
  const start = search.get('start')
  return start === null ? <Nothing>Begin at a tank, a lot or a tool set.</Nothing> : <Trace key={start} start={start} title="Contacts" />
}

function Trace({ start, title }: { start: string; title: string }) {
  const [search, setSearch] = useSearchParams()
  const [chosen, setChosen] = useState<string | null>(null)
  const [showsAll, setShowsAll] = useState(false)
  const direction: TraceAsk['direction'] = search.get('direction') === 'forward' ? 'forward' : 'backward'
  const days = Number(search.get('days') ?? 28) || 28
  const isAll = search.get('hops') === 'all'
  const { trace, problem } = useTrace({ start, direction, days, hops: isAll ? null : openHops })
  const set = (name: string, value: string): void => {
    const next = new URLSearchParams(search)
    next.set(name, value)
    setChosen(null)
    setSearch(next, { replace: true })
  }
  if (!trace) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="what met" />
  const told = trace.reached.filter(({ node }) => chosen === null || node === chosen)
  return (
    <>
      <Lead title={title === 'Contacts' ? `Contacts of ${trace.start.name}` : title} aside={<ButtonLink look="quiet" to="/contacts/tools">tool sets</ButtonLink>}>
        {sentence(trace)}
      </Lead>
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
      <Joined joined={trace.joined} />
      {trace.reached.length > 0 && (
        <Apart what="The drawing" of={trace}>
          <Suspense fallback={<div className="trace-drawing" />}>
            <TraceDrawing trace={trace} chosen={chosen} onChoose={setChosen} />
          </Suspense>
        </Apart>
      )}
      <RowSection title={chosen === null ? 'Waters and tools' : 'How it got there'} count={chosen === null ? trace.reached.length : 0} nothing={chosen === null ? 'Nothing is recorded.' : 'This is the one asked for.'}>
        {told.map((each) => (
          <Reached key={each.node} reached={each} />
        ))}
      </RowSection>
      <div className="entry-buttons">
        {chosen !== null && (
          <Button look="quiet" onClick={() => setChosen(null)}>
            all of them
          </Button>
        )}
        {!isAll && (
          <Button look="quiet" onClick={() => set('hops', 'all')}>
            further on, through more than {openHops - 1} other
          </Button>
        )}
      </div>
      <RowSection title="Lots" count={trace.lots.length} nothing="None stood there.">
        {trace.lots.slice(0, showsAll ? undefined : openLots).map((each) => (
          <ReachedLot key={each.lotId} lot={each} />
        ))}
      </RowSection>
      {!showsAll && trace.lots.length > openLots && (
        <Button look="quiet" onClick={() => setShowsAll(true)}>
          all {trace.lots.length} lots
        </Button>
      )}
      {trace.sameTools.length > 0 && <p className="aside-word">Same tool set, nothing recorded: {trace.sameTools.map(({ name }) => name).join(', ')}.</p>}
    </>
  )
}

function sentence({ reached, lots, sources, direction }: TraceView): string {
  const waters = reached.filter(({ node }) => node.startsWith('water:'))
  const near = waters.filter(({ hops }) => hops === 1).length
  if (waters.length === 0) return direction === 'forward' ? 'Nothing is recorded that left this water.' : 'Nothing is recorded that came into this water.'
  const held = lots.filter(({ hold }) => hold !== null).length
  return `${waters.length} ${waters.length === 1 ? 'water' : 'waters'}, ${near} of them directly; ${lots.length} ${lots.length === 1 ? 'lot' : 'lots'}${sources.length > 0 ? ` of ${sources.length} ${sources.length === 1 ? 'source' : 'sources'}` : ''}${held > 0 ? `, ${held} in ${held === 1 ? 'its' : 'their'} hold` : ''}.`
}

/** Waters on one pipe or hose, until somebody says that they are not any more. */
function Joined({ joined }: Pick<TraceView, 'joined'>) {
  const { end } = useContactWrites()
  return joined.map(({ contactId, name }) => (
    <p key={contactId} className="trace-joined">
      Joined to {name} now. <Button onClick={() => void end(contactId).catch(() => undefined)}>not any more</Button>
    </p>
  ))
}

function Reached({ reached: { node, name, tanks, hops, atMs, chain, isCleared } }: { reached: ReachedView }) {
  const format = useFormat()
  const to = node.startsWith('tools:') ? `/contacts?start=${node}` : tanks.length === 1 && tanks[0] ? `/room/${tanks[0]}/contacts` : null
  return (
    <li className="record trace-row">
      <span>
        <strong>{to ? <Link to={to}>{name}</Link> : name}</strong>
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
        {!node.startsWith('tools:') && `${hopWords(hops)}, `}
        {format.moment(atMs)}
        {isCleared && ', cleared since'}
      </span>
    </li>
  )
}

function ReachedLot({ lot: { lotId, lotCode, species, origin, hops, tanks, hold } }: { lot: ReachedLotView }) {
  return (
    <li className="record trace-row">
      <span>
        <strong>
          <Link to={`/contacts?start=lot:${lotId}`}>
            {species} <small>lot {lotCode}</small>
          </Link>
        </strong>
        <small>
          {origin}
          {tanks.length > 0 && ` · ${tanks.join(', ')}`}
        </small>
      </span>
      <span>
        {hopWords(hops)}
        {hold && `, in its hold, ${dayWords(hold)}`}
      </span>
    </li>
  )
}
