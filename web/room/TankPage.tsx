import { Suspense, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { countFish } from '../../core/ledger/stockView'
import { bookingWords } from '../../core/tankChoice/bookings'
import { poolsOf } from '../../core/pools/poolsOf'
import { dayWords } from '../../core/holds/holdDay'
import type { MoveLine } from '../../core/moves/moveWords'
import { storyKinds, type StoryKind, type TankView } from '../../core/room/roomView'
import { lazyAhead } from '../ui/ahead'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { Button, ButtonLink } from '../ui/Button'
import { plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { InUnits } from '../ui/InUnits'
import { JudgedWords } from '../ui/JudgedWords'
import { JustDone, type Done } from '../ui/JustDone'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankGlyph } from '../ui/TankGlyph'
import { useDoneElsewhere } from '../ui/useDoneElsewhere'
import { useUnits } from '../ui/useUnits'
import { BreachSheet } from './BreachSheet'
import { FightSheet } from './FightSheet'
import { Missing } from './Missing'
import { OnGlass, Pins } from './OnGlass'
import { PoolRow } from './PoolRow'
import { StandsHere } from './StandsHere'
import { AddForm } from './TankForms'
import { Timeline } from './Timeline'
import { useTank, useTankWrites, type TankWrites } from './useRoom'
import './room.css'
import './tank.css'

// Drawing is large, and nobody waits for it with wet hands.
const TankCharts = lazyAhead(() => import('./TankCharts'))
const HintsHere = lazyAhead(() => import('./HintsHere'))

const hintDays = 14
/** Answers whether fish of a tank were lost lately: of all others nothing is asked. */
const hasLost = ({ timeline }: TankView): boolean => timeline.some((entry) => entry.type === 'movement' && entry.kind === 'loss' && entry.reversedById === null && nowMs() - entry.happenedAtMs < hintDays * 86_400_000)

/** One tank: who lives in it, what can be done, and its story. */
export function TankPage() {
  const { code = '' } = useParams()
  const [search, setSearch] = useSearchParams()
  const only = storyKinds.find((kind) => kind === search.get('story')) ?? 'all'
  const { tank, problem, showOlder } = useTank(code, only)
  const show = (kind: StoryKind): void => setSearch(kind === 'all' ? {} : { story: kind }, { replace: true })
  const units = useUnits()
  const writes = useTankWrites(tank?.id ?? '')
  if (!tank) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tank" />
  return (
    <>
      <div className="tank-head">
        <TankGlyph kind={tank.kind} fish={countFish(tank.stock)} hold={tank.hold} bookings={tank.bookings} agents={tank.agents} isUnchecked={countFish(tank.stock) > 0 && !tank.isCheckedToday} flag={tank.flag} />
        <Lead title={tank.code} aside={`${tank.system.name}, ${tank.system.water} water${tank.netVolumeL ? `, ${units.show('volume', tank.netVolumeL)}` : ''}`}>
          <TankSentence tank={tank} />
        </Lead>
      </div>
      {tank.judged && (
        <Apart what="What its looks mean" of={tank.judged}>
          <JudgedWords tankId={tank.id} code={tank.code} judged={tank.judged} />
        </Apart>
      )}
      {hasLost(tank) && (
        <Apart what="What its losses look like" of={tank.code}>
          <Suspense>
            <HintsHere code={tank.code} />
          </Suspense>
        </Apart>
      )}
      <Apart what="Notes on the glass" of={tank.pins}>
        <Pins tank={tank} />
      </Apart>
      <Apart what="The fish of this tank" of={tank}>
        <StockList key={tank.id} tank={tank} writes={writes} />
      </Apart>
      <Apart what="What hangs on it" of={tank}>
        <OnGlass tank={tank} />
      </Apart>
      <Apart what="Its charts" of={tank.code}>
        <Suspense>
          <TankCharts code={tank.code} />
        </Suspense>
      </Apart>
      <Apart what="Its story" of={tank}>
        <Timeline entries={tank.timeline} stock={tank.stock} only={only} onOnly={show} hasOlder={tank.hasOlder} onOlder={showOlder} onReverse={writes.reverseMovement} />
      </Apart>
    </>
  )
}

function TankSentence({ tank }: { tank: TankView }) {
  const reserved = bookingWords(tank.bookings)
  if (countFish(tank.stock) === 0) return <>Empty.{reserved && ` ${reserved}.`}</>
  const checked = tank.isCheckedToday ? 'Checked today.' : 'Not checked today.'
  return (
    <>
      {plural(countFish(tank.stock), 'fish', 'fish')} of {plural(poolsOf(tank.stock).length, 'kind')}. {checked}
      {tank.flag ? ` Last: ${tank.flag.word}.` : ''}
      {tank.hold ? ` Held: ${dayWords(tank.hold)}.` : ''}
      {reserved && ` ${reserved}.`}
    </>
  )
}

/** One row a kind of fish: whichever lots they are of, nobody has to know. */
function StockList({ tank, writes }: { tank: TankView; writes: TankWrites }) {
  const [isAdding, setAdding] = useState(false)
  const [telling, setTelling] = useState<'breach' | 'fight' | null>(null)
  const elsewhere = useDoneElsewhere()
  const [done, setDone] = useState<Done[]>(elsewhere)
  const [told, setTold] = useState<MoveLine[]>([])
  const pools = poolsOf(tank.stock)
  return (
    <section aria-label="Fish in this tank">
      {pools.length === 0 && <Nothing>No fish stand in this tank. They come by a crate, a move, or are entered below.</Nothing>}
      <ul className="stock-list">
        {pools.map((pool) => (
          <PoolRow key={pool.key} tank={tank} pool={pool} writes={writes} onDone={(one) => setDone((all) => [...all, one])} onTell={setTold} />
        ))}
      </ul>
      {told.length > 0 && (
        <Notice level="watch" role="status">
          {told.map(({ code, words }) => (
            <span key={code}>
              <InUnits>{words}</InUnits>{' '}
            </span>
          ))}
          <Button look="quiet" onClick={() => setTold([])}>
            seen
          </Button>
        </Notice>
      )}
      <JustDone done={done} onBack={(last) => (last.contactId ? writes.undoContact(last.contactId) : last.fightId ? writes.undoFight(last.fightId) : writes.reverseMovement(last.movementId, null, last.isWhole)).then(() => setDone((all) => all.filter((each) => each !== last)))} />
      <StandsHere tankId={tank.id} />
      <Missing missing={tank.missing} onFound={(fish, quantity, elsewhere) => writes.findFish(fish, quantity, elsewhere).then(({ movementIds }) => setDone((all) => [...all, { words: `${quantity} ${fish.species} found again`, movementId: movementIds[0] ?? '', isWhole: elsewhere !== null }]))} />
      {isAdding ? (
        <AddForm writes={writes} onDone={() => setAdding(false)} />
      ) : (
        <div className="entry-buttons">
          <Button look="quiet" onClick={() => setAdding(true)}>
            + fish born here, or already here
          </Button>
          <Button look="quiet" onClick={() => setTelling('breach')}>
            water got elsewhere …
          </Button>
          {pools.length > 0 && (
            <Button look="quiet" onClick={() => setTelling('fight')}>
              they fought …
            </Button>
          )}
          {pools.length === 0 && <ClearWater onClear={writes.clearWater} />}
          <ButtonLink look="quiet" to={`/room/${tank.code}/contacts`}>
            contacts
          </ButtonLink>
          <ButtonLink look="quiet" to={`/regimens/dose?tank=${tank.code}`}>
            dose its water …
          </ButtonLink>
        </div>
      )}
      <FightSheet pools={pools} isOpen={telling === 'fight'} onClose={() => setTelling(null)} onSay={(a, b, harm, words) => writes.recordFight(a, b, harm).then(({ id }) => setDone((all) => [...all, { words, movementId: '', fightId: id }]))} />
      <BreachSheet tank={tank} isOpen={telling === 'breach'} onClose={() => setTelling(null)} onSay={(kind, toTankId, words) => writes.breach(kind, toTankId).then(({ id }) => setDone((all) => [...all, { words, movementId: '', contactId: id }]))} />
    </section>
  )
}

/** An emptied water that was sterilised carries nothing any more: what comes after it begins anew. */
function ClearWater({ onClear }: { onClear: () => Promise<unknown> }) {
  const [said, setSaid] = useState<string | null>(null)
  return (
    <>
      <Button look="quiet" onClick={() => void onClear().then(() => setSaid('Written down.'), (problem: unknown) => setSaid(sentenceOf(problem)))}>
        sterilised, filled anew
      </Button>
      {said !== null && <span role="status">{said}</span>}
    </>
  )
}
