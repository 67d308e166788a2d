import { lazy, Suspense, type ComponentType, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { DueItem } from '../../core/due/due'
import { groupBy } from '../../core/collections/groupBy'
import { summaryStage } from '../../core/crates/crateSummary'
import { nextStep, type TodayView } from '../../core/today/todayView'
import { nowMs } from '../api/clock'
import { lazyAhead } from '../ui/ahead'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { heldInWords } from './heldInWords'
import { ChoreRow, ChoresToday, ClaimRow, CrateRow, HoldRow, HungryRow, LossRow, OnTheWayRow, PlanRow, PrepareRow, RaisedRow, RecheckDue, RunRow, UncheckedTanks } from './todayRows'
import { useToday } from './useToday'
import { WhatNow } from './WhatNow'
import './today.css'

// Seldom there: a rescue, somebody who was away, and a room's first day.
const HandoverRow = lazyAhead(() => import('./HandoverRow'))
const AlarmRows = lazyAhead(() => import('./AlarmRows'))
const RescueRow = lazyAhead(() => import('./RescueRow'))
const FirstSteps = lazy(() => import('./FirstSteps'))

/** What this room needs now: at the left what is to be done, what presses first; at the right what is to be watched. Each row opens the place where it is dealt with. */
export function TodayPage() {
  const { today, problem } = useToday()
  const format = useFormat()
  if (!today) return problem ? <Trouble problem={problem} /> : <Waiting what="the day" />
  // A room that is not set up yet, but has fish that call for somebody or work that waits, shows its day.
  if (nextStep(today.counts) && today.raised.length + today.onTheWay.length === 0) {
    return (
      <Suspense fallback={<Waiting what="the day" />}>
        <FirstSteps counts={today.counts} />
      </Suspense>
    )
  }
  return (
    <div className="today">
      <Lead title="Today" aside={format.day(nowMs())}>
        <WhatNow today={today} />
      </Lead>
      {today.broken.length > 0 && (
        <Notice role="alert">
          Not worked out: {today.broken.join(', ')}. Everything else on this page is.
        </Notice>
      )}
      <div className="today-columns">
        <div>
          <Suspense>
            <HandoverRow />
          </Suspense>
          <Suspense>
            <AlarmRows />
          </Suspense>
          <AtHand today={today} />
        </div>
        <div>
          <ToWatch today={today} />
          <p className="aside-word">
            <Link to="/today/calendar">What is due, in your calendar</Link>
          </p>
        </div>
      </div>
    </div>
  )
}

interface Section {
  isPressing: boolean
  section: ReactNode
}

/** Work that waits under its title, a row each; what is late or calls presses. */
const waiting = (key: string, title: string, items: readonly DueItem[], Shown: ComponentType<{ item: DueItem }>): Section => ({
  isPressing: items.some(({ urgency }) => urgency === 'now'),
  section: (
    <RowSection key={key} title={title} count={items.length}>
      {items.map((item) => (
        <Shown key={item.id} item={item} />
      ))}
    </RowSection>
  ),
})

/** What waits for somebody's hands: what is late or harms already stands above what has its time still. */
function AtHand({ today }: { today: TodayView }) {
  const of = (kind: DueItem['kind']): DueItem[] => today.onTheWay.filter((item) => item.kind === kind)
  const others: readonly DueItem['kind'][] = ['plan', 'chore', 'feed', 'probe', 'hold', 'regimen']
  // What was asked for at a tank has its time; what comes round has the day.
  const [ofWay, plans, all, feeds, probes] = [today.onTheWay.filter(({ kind }) => !others.includes(kind)), of('plan'), of('chore'), of('feed').slice(0, 1), of('probe')]
  const [asked, chores] = [all.filter(({ byMs }) => byMs !== null), all.filter(({ byMs }) => byMs === null)]
  const acts = today.raised.filter(({ level }) => level === 'act')
  const sections: Section[] = [
    {
      isPressing: acts.length > 0,
      section: (
        <RowSection key="acts" title="Act now" count={acts.length}>
          {acts.map((tank) => (
            <RaisedRow key={tank.tankId} tank={tank} />
          ))}
        </RowSection>
      ),
    },
    waiting('asked', 'Asked for', asked, ChoreRow),
    waiting('holds', 'Holds to see to', of('hold'), ChoreRow),
    waiting('regimens', 'Regimens', of('regimen'), ChoreRow),
    waiting('feeds', 'Kitchen', feeds, ChoreRow),
    waiting('probes', 'Probes', probes, ChoreRow),
    {
      isPressing: today.runs.some(({ isForgotten, isAlarm }) => isForgotten || isAlarm),
      section: (
        <RowSection key="runs" title="On the bench" count={today.runs.length}>
          {today.runs.map((run) => (
            <RunRow key={run.id} run={run} />
          ))}
        </RowSection>
      ),
    },
    waiting('way', 'Buckets, boxes, newcomers', ofWay, OnTheWayRow),
    waiting('plans', 'Plans', plans, PlanRow),
    {
      isPressing: today.rechecks.length > 0,
      section: (
        <RowSection key="rechecks" title="Look again" count={today.rechecks.length}>
          {today.rechecks.map((recheck) => (
            <RecheckDue key={recheck.id} recheck={recheck} />
          ))}
        </RowSection>
      ),
    },
    {
      isPressing: today.crates.some((crate) => summaryStage(crate) !== 'due'),
      section: (
        <RowSection key="crates" title="Crates" count={today.crates.length} nothing="No crate is due or open.">
          {today.crates.map((crate) => (
            <CrateRow key={crate.id} crate={crate} />
          ))}
        </RowSection>
      ),
    },
    {
      isPressing: chores.some(({ urgency }) => urgency === 'now'),
      section: (
        <RowSection key="chores" title="Chores" count={chores.length}>
          {chores.length > 0 && <ChoresToday items={chores} />}
        </RowSection>
      ),
    },
    {
      isPressing: today.prepare.some(({ urgency }) => urgency === 'now'),
      section: (
        <RowSection key="prepare" title="Prepare" count={today.prepare.length}>
          {[...groupBy(today.prepare, ({ to }) => to)].map(([to, items]) => (
            <PrepareRow key={to} items={items} />
          ))}
        </RowSection>
      ),
    },
    {
      isPressing: today.unchecked.length > 0,
      section: (
        <RowSection key="unchecked" title="Not looked at yet" count={today.unchecked.length} nothing={today.stockedTanks === 0 ? 'No tank holds fish.' : `All ${plural(today.stockedTanks, 'stocked tank')} were looked at today.`}>
          {today.unchecked.length > 0 && <UncheckedTanks codes={today.unchecked.map(({ code }) => code)} stocked={today.stockedTanks} />}
        </RowSection>
      ),
    },
    {
      isPressing: today.rescues.length > 0,
      section: (
        <RowSection key="rescues" title="Rescues to look at" count={today.rescues.length}>
          {today.rescues.map((rescue) => (
            <Suspense key={rescue.key}>
              <RescueRow rescue={rescue} />
            </Suspense>
          ))}
        </RowSection>
      ),
    },
    {
      isPressing: false,
      section: (
        <RowSection key="claims" title="Claims" count={today.claims.length}>
          {today.claims.map((claim) => (
            <ClaimRow key={claim.crateId} claim={claim} />
          ))}
        </RowSection>
      ),
    },
  ]
  return [...sections.filter(({ isPressing }) => isPressing), ...sections.filter(({ isPressing }) => !isPressing)].map(({ section }) => section)
}

/** What nobody has to do at once, and nobody may forget. */
function ToWatch({ today }: { today: TodayView }) {
  const watched = today.raised.filter(({ level }) => level === 'watch')
  return (
    <>
      <RowSection title="Look again today" count={watched.length} nothing="No tank asks for a second look.">
        {watched.map((tank) => (
          <RaisedRow key={tank.tankId} tank={tank} />
        ))}
      </RowSection>
      <RowSection title={`Lost in the last ${plural(today.lossDays, 'day')}`} count={today.losses.reduce((sum, loss) => sum + loss.quantity, 0)} nothing="No fish were lost.">
        {today.losses.map((loss) => (
          <LossRow key={`${loss.isAttributed} ${loss.lotId} ${loss.tankCode}`} loss={loss} />
        ))}
      </RowSection>
      <RowSection title="Not eating" count={today.notEating.length} nothing="Every lot eats, or is within its usual delay.">
        {today.notEating.map((lot) => (
          <HungryRow key={`${lot.lotId} ${lot.tankCode}`} lot={lot} />
        ))}
      </RowSection>
      <RowSection title="Holds" count={today.holds.filter(({ isServed }) => !isServed).length} nothing="No lot is held.">
        {heldInWords(today.holds).map(([day, lots]) => (
          <HoldRow key={day} words={day} lots={lots} />
        ))}
      </RowSection>
    </>
  )
}
