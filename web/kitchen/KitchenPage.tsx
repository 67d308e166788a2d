import { useSearchParams } from 'react-router'
import { nextStep, type NextStep } from '../../core/kitchen/nextStep'
import type { KitchenFood, KitchenRack, KitchenView } from '../../core/kitchen/kitchenView'
import { capital } from '../../core/words/capital'
import { nowMs } from '../api/clock'
import { Button, ButtonLink } from '../ui/Button'
import { HandScreen } from '../ui/HandScreen'
import { Trouble, Waiting } from '../ui/PageState'
import { plural } from '../ui/format'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { useTick } from '../ui/useTick'
import { KitchenAside } from './KitchenAside'
import { leadWords, pieces, small, whomWords } from './kitchenWords'
import { TickRow } from './TickRow'
import { useKitchen, useKitchenWrites, type KitchenWrites } from './useKitchen'
import './kitchen.css'

/** One feed: what comes out of the freezer when, what is soaked, how much each rack gets, and what is taken out again; ticked off with a wet hand. */
export function KitchenPage() {
  const [search] = useSearchParams()
  const { kitchen, problem } = useKitchen(search.get('feed'))
  const writes = useKitchenWrites()
  if (!kitchen) return problem ? <Trouble problem={problem} back={{ to: '/today', label: 'Today' }} /> : <Waiting what="the kitchen" />
  return <Feed kitchen={kitchen} writes={writes} />
}

function Feed({ kitchen, writes }: { kitchen: KitchenView; writes: KitchenWrites }) {
  const format = useFormat()
  useTick(30_000)
  const { feeds, feed } = kitchen
  const next = nextStep(kitchen)
  return (
    <HandScreen className="kitchen" title={capital(feed.name)} back={{ to: '/today', label: 'Today' }} aside={<span>{format.time(feed.atMs)}, {feed.dayPercent} % of the day</span>}>
      <nav className="tabs kitchen-nav" aria-label="Kitchen">
        {feeds.length > 1 &&
          feeds.map(({ feedId, name }) => (
            <ButtonLink key={feedId} look="quiet" to={`/kitchen?feed=${feedId}`} aria-current={feedId === feed.feedId ? 'page' : undefined}>
              {name}
            </ButtonLink>
          ))}
        <ButtonLink look="quiet" to="/kitchen/larder">Stock of foods</ButtonLink>
        <ButtonLink look="quiet" to="/kitchen/otherwise">Fed otherwise</ButtonLink>
        <Button look="quiet" className="print-button" onClick={() => window.print()}>Print</Button>
      </nav>
      <p className="lead-sentence">{leadWords(next, kitchen, format, nowMs())}</p>
      <div className="work-columns">
        <div>
          <Steps kitchen={kitchen} writes={writes} />
        </div>
        <div>
          <KitchenAside kitchen={kitchen} />
        </div>
      </div>
      <NextTouch kitchen={kitchen} next={next} writes={writes} />
    </HandScreen>
  )
}

const isReady = (food: KitchenFood): boolean => food.startAtMs === null

function Steps({ kitchen, writes }: { kitchen: KitchenView; writes: KitchenWrites }) {
  const { feed, foods, soaks, soaked, racks, outs } = kitchen
  const format = useFormat()
  const [thawing, ready] = [foods.filter((food) => !isReady(food)), foods.filter(isReady)]
  return (
    <>
      <RowSection title="Out of the freezer" count={thawing.length}>
        {thawing.map((food) => (
          <TickRow key={food.foodId} done={food.done} writes={writes} onTick={() => writes.tick(feed, 'thaw', food.foodId, food.food, food.pieces)} when={food.startAtMs === null ? '' : format.time(food.startAtMs)} isLate={food.startAtMs !== null && food.startAtMs < nowMs()}>
            <Amount food={food} />
            <small className="tick-why">
              {whomWords(food.whom)}. {small(food.pieces * food.pieceG, 'g')}
              {food.spareG >= 0.05 && `, ${small(food.spareG, 'g')} spare`}
            </small>
            {food.done !== null && food.stock !== null && food.done.pieces < food.pieces && <small className="danger-word">{food.pieces - food.done.pieces} more than were taken out</small>}
          </TickRow>
        ))}
      </RowSection>
      <RowSection title="At hand" count={ready.length}>
        {ready.map((food) => (
          <li key={food.foodId} className="record kitchen-ready">
            <Amount food={food} /> <small>{whomWords(food.whom)}</small>
          </li>
        ))}
      </RowSection>
      <RowSection title="Soak" count={soaks.length}>
        {soaks.length > 0 && (
          <TickRow key="soak" done={soaked} writes={writes} onTick={() => writes.tick(feed, 'soak', 'all', 'soaked')} when="">
            <strong>{soaks.map(({ soak, ml }) => `${soak} ${small(ml, 'mL')}`).join(', ')}</strong>
            <small>into the soaked bowl, dry and live food apart; the product’s label decides</small>
          </TickRow>
        )}
      </RowSection>
      <RowSection title="Give, as you walk" count={racks.length}>
        {racks.map((rack) => (
          <TickRow key={rack.rack} done={rack.done} writes={writes} onTick={() => writes.tick(feed, 'give', rack.rack, `fed ${rack.rack}`)} when="" more={{ label: plural(rack.tanks.length, 'tank'), name: `${plural(rack.tanks.length, 'tank')} of ${rack.rack}`, content: <RackTanks rack={rack} /> }}>
            <strong className="kitchen-rack">{rack.rack}</strong>
            <Portions rack={rack} />
          </TickRow>
        ))}
      </RowSection>
      <RowSection title="Leftovers out" count={outs.length}>
        {outs.map((out) => (
          <TickRow key={out.what} done={out.done} writes={writes} onTick={() => writes.tick(feed, 'out', out.what, 'leftovers out')} when={format.time(out.atMs)} isLate={out.atMs < nowMs() && racks.some(({ done }) => done !== null)}>
            <strong>{out.foods.join(', ')}</strong>
          </TickRow>
        ))}
      </RowSection>
    </>
  )
}

/** A food and how many pieces of it. */
const Amount = ({ food: { food, pieces: count, kind } }: { food: KitchenFood }) => (
  <strong>
    {food} <b className="kitchen-amount">{pieces(count, kind)}</b>
  </strong>
)

/** What of each bowl a rack gets. */
function Portions({ rack: { portions } }: { rack: KitchenRack }) {
  const bowls = [...new Set(portions.map(({ bowl }) => bowl))]
  return bowls.map((bowl) => (
    <small key={bowl} className="kitchen-bowl">
      <em className={`bowl-word is-${bowl}`}>{bowl}</em> {portions.filter((each) => each.bowl === bowl).map(({ food, grams }) => `${food} ${small(grams, 'g')}`).join(', ')}
    </small>
  ))
}

/** Tank by tank, for whoever asks. */
const RackTanks = ({ rack: { rack, tanks } }: { rack: KitchenRack }) => (
  <ul className="kitchen-tanks" aria-label={`${rack} by tank`}>
    {tanks.map(({ tankId, code, fish, grams, bowls, meals }) => (
      <li key={tankId}>
        <strong>{code}</strong> {fish} <b>{small(grams, 'g')}</b>
        {bowls.some((bowl) => bowl !== 'plain') && ` ${bowls.join(' and ')}`}
        {meals > 0 && `, in ${meals} small meals`}
      </li>
    ))}
  </ul>
)

/** The one orange action: what the list asks for next. */
function NextTouch({ kitchen, next, writes }: { kitchen: KitchenView; next: NextStep; writes: KitchenWrites }) {
  const format = useFormat()
  const { feed, foods, racks, outs } = kitchen
  const act = (): void => {
    if (next.step === 'thaw') for (const food of foods.filter((each) => next.what.includes(each.food))) writes.tick(feed, 'thaw', food.foodId, food.food, food.pieces)
    if (next.step === 'soak') writes.tick(feed, 'soak', 'all', 'soaked')
    if (next.step === 'give') writes.tick(feed, 'give', next.what[0] ?? '', `fed ${next.what[0] ?? ''}`)
    if (next.step === 'out') writes.tick(feed, 'out', outs.find(({ done }) => done === null)?.what ?? '', 'leftovers out')
  }
  if (next.step === 'nothing' || next.step === 'done') return null
  const rack = next.step === 'give' ? racks.find((each) => each.rack === next.what[0]) : undefined
  const words = { thaw: `${next.what.join(', ')}: out`, soak: 'Mixed and soaked', give: `${next.what[0] ?? ''} is fed`, out: 'Leftovers are out' }[next.step]
  return (
    <div className="thumb-bar">
      <Button look="act" size="hand" onClick={act}>
        <strong>{words}</strong>
        <small>{rack ? rack.portions.map(({ food, grams, bowl }) => `${food} ${small(grams, 'g')}${bowl === 'plain' ? '' : ` (${bowl})`}`).join(', ') : next.byMs === null ? '' : `by ${format.time(next.byMs)}`}</small>
      </Button>
    </div>
  )
}
