import { useState } from 'react'
import { Form, Table } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { crateStage, totalBags, type BagTotals, type CrateStage, type CrateView, type LineView } from '../../core/crates/crateView'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { formatSpan, plural, signed } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { TankOptions } from '../ui/TankOptions'
import { useFormat } from '../ui/useFormat'
import { BagStrip } from './BagStrip'
import { useCrate, useCrateWrites, useTankChoices } from './useCrates'

/** A crate: where it stands against its list, line by line, and where its fish go. */
export function CratePage() {
  const { crateId = '' } = useParams()
  const { crate, problem } = useCrate(crateId)
  if (!crate) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the crate" />
  const totals = totalBags(crate.bags)
  return (
    <>
      <Lead title={`Crate ${crate.number}`} aside={<CrateTimes crate={crate} />}>
        <CrateSentence crate={crate} totals={totals} />
      </Lead>
      <BagStrip crate={crate} currentId={null} />
      <p className="totals">
        <TotalsSentence totals={totals} />
      </p>
      <LineTable crate={crate} />
      <CrateAction crate={crate} totals={totals} />
    </>
  )
}

function CrateTimes({ crate }: { crate: CrateView }) {
  const format = useFormat()
  return (
    <>
      {crate.supplier}
      {crate.packedAtMs && (crate.arrivedAtMs ? `, packed ${format.moment(crate.packedAtMs)}` : `, ${formatSpan(nowMs() - crate.packedAtMs)} since packing`)}
      {crate.arrivedAtMs ? `, opened ${format.moment(crate.arrivedAtMs)}` : crate.expectedAtMs ? `, due ${format.moment(crate.expectedAtMs)}` : ''}
    </>
  )
}

function CrateSentence({ crate, totals }: { crate: CrateView; totals: BagTotals }) {
  const homeless = crate.lines.filter((line) => !line.tank).length
  const plan = homeless > 0 ? ` ${plural(homeless, 'line has', 'lines have')} no tank yet.` : ''
  const sentences: Record<CrateStage, string> = {
    due: `${plural(totals.bags, 'bag')} to come.`,
    opening: `${plural(totals.bags - totals.opened, 'bag')} still shut.`,
    placing: `${totals.inBags} fish still stand in their bags.`,
    done: 'Every fish of this crate is out of its bag.',
  }
  return <>{sentences[crateStage(totals)] + plan}</>
}

/** The next thing to do with the crate, within the thumb's reach. */
function CrateAction({ crate, totals }: { crate: CrateView; totals: BagTotals }) {
  const labels: Record<Exclude<CrateStage, 'done'>, string> = { due: `Unpack ${plural(totals.bags, 'bag')}`, opening: `Unpack the other ${totals.bags - totals.opened}`, placing: `Place ${totals.inBags} fish` }
  const stage = crateStage(totals)
  if (stage === 'done') return null
  return (
    <div className="thumb-bar page-action">
      <Link className="hand-button act" to={`/crates/${crate.id}/unpack`}>
        <strong>{labels[stage]}</strong>
        {stage === 'due' && <small>when the crate is here</small>}
      </Link>
    </div>
  )
}

/** Running totals against the list, in words. */
export function TotalsSentence({ totals }: { totals: BagTotals }) {
  return (
    <>
      <strong>{totals.opened}</strong> of {plural(totals.bags, 'bag')} · <strong>{totals.alive}</strong> alive · <strong>{totals.dead}</strong> dead · list so far <strong>{signed(totals.extra - totals.short)}</strong>
      {totals.short > 0 && totals.extra > 0 && ` (${totals.short} short, ${totals.extra} extra)`}
    </>
  )
}

function LineTable({ crate }: { crate: CrateView }) {
  return (
    <Table responsive className="record-table line-table">
      <thead>
        <tr>
          <th scope="col">species</th>
          <th scope="col" className="number">listed</th>
          <th scope="col" className="number">alive</th>
          <th scope="col" className="number">dead</th>
          <th scope="col" className="number">short, extra</th>
          <th scope="col" className="number">in bags</th>
          <th scope="col">tank</th>
        </tr>
      </thead>
      <tbody>
        {crate.lines.map((line) => (
          <LineRow key={line.id} crate={crate} line={line} />
        ))}
      </tbody>
    </Table>
  )
}

function LineRow({ crate, line }: { crate: CrateView; line: LineView }) {
  const totals = totalBags(crate.bags.filter((bag) => bag.lineId === line.id))
  const isStarted = totals.opened > 0
  return (
    <tr>
      <th scope="row">
        {line.species} <small className="aside-word">{line.lotCode}, {plural(totals.bags, 'bag')}</small>
      </th>
      <td className="number" data-label="listed">{totals.listed}</td>
      <td className="number" data-label="alive">{isStarted ? totals.alive : ''}</td>
      <td className="number" data-label="dead">{isStarted ? totals.dead : ''}</td>
      <td className="number" data-label="short, extra">{[totals.short > 0 ? `−${totals.short}` : '', totals.extra > 0 ? `+${totals.extra}` : ''].filter(Boolean).join(', ')}</td>
      <td className="number" data-label="in bags">{isStarted ? totals.inBags : ''}</td>
      <td>{isStarted && totals.opened === totals.bags && totals.inBags === 0 && line.tank ? <Link to={`/room/${line.tank.code}`}>{line.tank.code}</Link> : <TankChoice crateId={crate.id} line={line} />}</td>
    </tr>
  )
}

function TankChoice({ crateId, line }: { crateId: string; line: LineView }) {
  const tanks = useTankChoices()
  const { chooseTank } = useCrateWrites(crateId)
  const [problem, setProblem] = useState<string | null>(null)
  const choose = async (tankId: string | null): Promise<void> => {
    setProblem(null)
    await chooseTank(line.id, { tankId, version: line.version }).catch((error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <>
      <Form.Select aria-label={`tank for ${line.species}`} value={line.tank?.id ?? ''} isInvalid={problem !== null} onChange={(event) => void choose(event.currentTarget.value || null)}>
        <option value="">no tank yet</option>
        <TankOptions tanks={tanks} />
      </Form.Select>
      {problem && <Form.Control.Feedback type="invalid">{problem}</Form.Control.Feedback>}
    </>
  )
}
