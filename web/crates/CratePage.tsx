import { waterWords } from '../../core/crates/takeAlongCard'
import { toldWords } from '../../core/crates/told.schema'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { addressOf } from '../../core/commands/declare'
import { cratesApi } from '../../core/crates/crates.api'
import { totalBags, type BagTotals, type CrateView, type LineView } from '../../core/crates/crateView'
import { crateStage, type CrateStage } from '../../core/crates/crateSummary'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { ButtonLink } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { formatSpan, plural, signed } from '../ui/format'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { RuleRefusal, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { Trouble, Waiting } from '../ui/PageState'
import { Table } from '../ui/Table'
import { TankOptions } from '../ui/TankOptions'
import { useFormat } from '../ui/useFormat'
import { BagStrip } from './BagStrip'
import { BoxForm } from './BoxForm'
import { ClaimClockLine, CloseCrate } from './CloseCrate'
import { CrateTabs } from './CrateTabs'
import { IdentifyLine } from './IdentifyLine'
import { useCrate, useCrateWrites, useTankChoices } from './useCrates'
import './crates.css'

/** A crate: where it stands against its list, line by line, and where its fish go. */
export function CratePage() {
  const { crateId = '' } = useParams()
  const { crate, problem } = useCrate(crateId)
  if (!crate) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the crate" />
  const totals = totalBags(crate.bags)
  return (
    <>
      <Lead nav={<CrateTabs crateId={crate.id} />} title={`Crate ${crate.number}`} aside={<CrateTimes crate={crate} />}>
        <CrateSentence crate={crate} totals={totals} />
      </Lead>
      <Apart what="The claim’s clock" of={crate}>
        <ClaimClockLine crate={crate} totals={totals} />
      </Apart>
      <Apart what="The strip of bags" of={crate}>
        <BagStrip crate={crate} currentId={null} />
      </Apart>
      <p className="totals">
        <TotalsSentence totals={totals} hasList={crate.hasList} />
      </p>
      <Apart what="The list of lines" of={crate}>
        <ToldBySender crate={crate} />
        <LineTable crate={crate} />
      </Apart>
      {crate.note && <p className="crate-note">{crate.note}</p>}
      {crate.closedBecause && <p className="crate-note">Closed so because: {crate.closedBecause}</p>}
      <BoxForm key={crate.boxVersion} crate={crate} />
      <CloseCrate crate={crate} totals={totals} />
      <p className="crate-links">
        <Link to={`/crates/${crate.id}/edit`}>Change crate or lines</Link>
        <a href={addressOf(cratesApi.writeList, { crateId: crate.id })} download={`crate-${crate.number}.json`}>
          Packing list as JSON
        </a>
      </p>
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
  const stage = crateStage(totals, crate.closedAtMs)
  const sentences: Record<CrateStage, string> = {
    due: `${plural(totals.bags, 'bag')} to come.`,
    opening: `${plural(totals.bags - totals.opened, 'bag')} still shut.`,
    placing: `${totals.inBags} fish still stand in their bags.`,
    done: 'Every fish of this crate is out of its bag. Look it over and close it.',
    closed: 'This crate is closed.',
  }
  return <>{sentences[stage] + (stage === 'closed' ? '' : plan)}</>
}

/** The next thing to do with the crate, within the thumb's reach. */
function CrateAction({ crate, totals }: { crate: CrateView; totals: BagTotals }) {
  const labels: Record<Exclude<CrateStage, 'done' | 'closed'>, string> = { due: `Unpack ${plural(totals.bags, 'bag')}`, opening: `Unpack the other ${totals.bags - totals.opened}`, placing: `Place ${totals.inBags} fish` }
  const stage = crateStage(totals, crate.closedAtMs)
  if (stage === 'done' || stage === 'closed') return null
  return (
    <div className="thumb-bar page-action">
      <ButtonLink look="act" size="hand" to={`/crates/${crate.id}/unpack`}>
        <strong>{labels[stage]}</strong>
        {stage === 'due' && <small>when the crate is here</small>}
      </ButtonLink>
    </div>
  )
}

/** Running totals against the list, in words. */
export function TotalsSentence({ totals, hasList }: { totals: BagTotals; hasList: boolean }) {
  return (
    <>
      <strong>{totals.opened}</strong> of {plural(totals.bags, 'bag')} · <strong>{totals.alive}</strong> alive · <strong>{totals.dead}</strong> dead
      {hasList && (
        <>
          {' '}
          · list so far <strong>{signed(totals.extra - totals.short)}</strong>
        </>
      )}
      {totals.short > 0 && totals.extra > 0 && ` (${totals.short} short, ${totals.extra} extra)`}
    </>
  )
}

/** What the list of this crate says of the sender's water and way. */
function ToldBySender({ crate: { shippingWater, method } }: { crate: CrateView }) {
  const water = shippingWater ? waterWords(shippingWater) : ''
  if (!water && !method) return null
  return (
    <p>
      {water && `Their water, as their list says: ${water}. `}
      {method && `They suggest: ${method}.`}
    </p>
  )
}

function LineTable({ crate }: { crate: CrateView }) {
  return (
    <Table responsive className="line-table">
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
        {line.species} {line.count === 0 && <IdentifyLine crate={crate} line={line} />} <small className="aside-word">{[line.lotCode, plural(totals.bags, 'bag'), line.strain, line.origin, line.identity && line.identity !== 'sure' && `identity ${line.identity}`, line.promisedTo && `promised to ${line.promisedTo}`, line.billed !== null && line.billed !== totals.listed && `billed ${line.billed}`, ...toldWords(line.told ?? {})].filter(Boolean).join(', ')}</small>
      </th>
      <td className="number" data-label="listed">{totals.listed}</td>
      <td className="number" data-label="alive">{isStarted ? totals.alive : ''}</td>
      <td className="number" data-label="dead">{isStarted ? totals.dead : ''}</td>
      <td className="number" data-label="short, extra">{[totals.short > 0 ? `−${totals.short}` : '', totals.extra > 0 ? `+${totals.extra}` : ''].filter(Boolean).join(', ')}</td>
      <td className="number" data-label="in bags">{isStarted ? totals.inBags : ''}</td>
      <td>{isStarted && totals.opened === totals.bags && totals.inBags === 0 ? <WentTo crate={crate} line={line} /> : <TankChoice crateId={crate.id} line={line} />}</td>
    </tr>
  )
}

/** Where the fish of a line went, tank by tank. */
function WentTo({ crate, line }: { crate: CrateView; line: LineView }) {
  const went = crate.went.filter(({ lineId }) => lineId === line.id)
  if (went.length === 0) return <>{line.tank ? <Link to={`/room/${line.tank.code}`}>{line.tank.code}</Link> : ''}</>
  return (
    <>
      {went.map(({ tankCode, fish }) => (
        <span key={tankCode} className="went">
          {fish} to <Link to={`/room/${tankCode}`}>{tankCode}</Link>
        </span>
      ))}
    </>
  )
}

function TankChoice({ crateId, line }: { crateId: string; line: LineView }) {
  const tanks = useTankChoices()
  const { chooseTank } = useCrateWrites(crateId)
  const [refused, setRefused] = useState<{ tankId: string | null; problem: unknown } | null>(null)
  const choose = async (tankId: string | null, against: AgainstRule | null = null): Promise<void> => {
    setRefused(null)
    await chooseTank(line.id, { tankId, version: line.version, ...(against ? { override: against.override } : {}) }).catch((problem: unknown) => setRefused({ tankId, problem }))
  }
  const isRule = refused !== null && ruleRefusalOf(refused.problem) !== null
  return (
    <>
      <ChoiceField label={`tank for ${line.species}`} isLabelHidden problem={refused && !isRule ? sentenceOf(refused.problem) : null} value={line.tank?.id ?? ''} onChange={(tankId) => void choose(tankId || null)}>
        <option value="">no tank yet</option>
        <TankOptions tanks={tanks} />
      </ChoiceField>
      {refused && <RuleRefusal problem={refused.problem} onAgain={(against) => void choose(refused.tankId, against)} />}
    </>
  )
}
