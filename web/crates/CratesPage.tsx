import { useState } from 'react'
import { Link } from 'react-router'
import { closedPage } from '../../core/crates/crateView'
import { summaryStage, type CrateStage, type CrateSummary } from '../../core/crates/crateSummary'
import { nowMs } from '../api/clock'
import { Button, ButtonLink } from '../ui/Button'
import { formatSpan, plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { useCrates } from './useCrates'
import './crates.css'

/** Every open crate, the newest closed ones, and the one to turn to. */
export function CratesPage() {
  const [closed, setClosed] = useState(closedPage)
  const { crates, hasOlder, problem } = useCrates(closed)
  if (!crates) return problem ? <Trouble problem={problem} /> : <Waiting what="the crates" />
  return (
    <>
      <Lead
        title="Crates"
        aside={
          <ButtonLink to="/crates/new">
            New crate
          </ButtonLink>
        }
      >
        <NextCrate crates={crates} />
      </Lead>
      {crates.length === 0 ? (
        <Nothing>
          <p>Crates stand here from their packing list on. Take the first one in from a list in CSV, or paste it.</p>
        </Nothing>
      ) : (
        <ul className="record-list" aria-label="Crates">
          {crates.map((crate) => (
            <Apart key={crate.id} what={`Crate ${crate.number}`} of={crate} isRow>
              <CrateRow crate={crate} />
            </Apart>
          ))}
        </ul>
      )}
      {hasOlder && (
        <Button onClick={() => setClosed(closed + closedPage)}>
          Older crates
        </Button>
      )}
    </>
  )
}

/** The next thing to do with a crate, in a sentence. */
function NextCrate({ crates }: { crates: CrateSummary[] }) {
  const open = crates.find((crate) => summaryStage(crate) === 'opening')
  if (open) return <NextStep crate={open} what={`unpack crate ${open.number}`} why={`${plural(open.bagCount - open.openedCount, 'bag')} of ${open.supplier} still shut.`} page="/unpack" />
  const placing = crates.find((crate) => summaryStage(crate) === 'placing')
  if (placing) return <NextStep crate={placing} what={`place crate ${placing.number}`} why={`${placing.inBags} fish still stand in their bags.`} page="/unpack" />
  const due = crates.filter((crate) => summaryStage(crate) === 'due').sort((a, b) => (a.expectedAtMs ?? Infinity) - (b.expectedAtMs ?? Infinity))[0]
  if (due) return <NextStep crate={due} what={`crate ${due.number} from ${due.supplier}`} why={due.expectedAtMs ? dueIn(due.expectedAtMs) : 'No time is set.'} page="" />
  return <>No crate is due or open.</>
}

const dueIn = (expectedAtMs: number): string => (expectedAtMs > nowMs() ? `Due in ${formatSpan(expectedAtMs - nowMs())}.` : `Due ${formatSpan(nowMs() - expectedAtMs)} ago.`)

function NextStep({ crate, what, why, page }: { crate: CrateSummary; what: string; why: string; page: string }) {
  return (
    <>
      Next: <Link to={`/crates/${crate.id}${page}`}>{what}</Link>. {why}
    </>
  )
}

const stageWords: Record<CrateStage, string> = { due: 'due', opening: 'being unpacked', placing: 'to be placed', done: 'placed', closed: 'closed' }

function CrateRow({ crate }: { crate: CrateSummary }) {
  const format = useFormat()
  const stage = summaryStage(crate)
  const when = crate.arrivedAtMs ?? crate.expectedAtMs
  return (
    <li className={`record stage-${stage}`}>
      <Link to={`/crates/${crate.id}`} className="crate-row">
        <strong className="record-number">{crate.number}</strong>
        <span className="record-main">
          <strong>{crate.supplier}</strong>
          <small>
            {crate.arrivedAtMs ? 'opened' : 'due'} {when ? format.moment(when) : 'without a time'} · {plural(crate.lineCount, 'line')}, {plural(crate.bagCount, 'bag')}
          </small>
        </span>
        <span className="record-figures">
          {stage === 'due' ? `${crate.listed} fish listed` : `${crate.alive} alive${crate.dead > 0 ? `, ${crate.dead} dead` : ''}`}
          {stage === 'opening' && <small>{`${crate.openedCount} of ${crate.bagCount} bags`}</small>}
          {stage === 'placing' && <small>{`${crate.inBags} still in bags`}</small>}
        </span>
        <span className={`stage-word ${stage}`}>{stageWords[stage]}</span>
      </Link>
    </li>
  )
}
