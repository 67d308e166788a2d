import { lazy, Suspense, useState } from 'react'
import { Link, useParams } from 'react-router'
import { mayTakeBack } from '../../core/staff/mayTakeBack'
import type { LogRow, RegimenView } from '../../core/regimens/regimenView'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { InUnits } from '../ui/InUnits'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { ChangeWater } from './ChangeWater'
import { CourseDays } from './CourseDays'
import { Offer } from './Offer'
import { ReadLevel } from './ReadLevel'
import { ReadSalinity, SalinitySteps } from './SalinitySteps'
import { TransferRows } from './TransferRows'
import { useRegimen, useRegimenWrites, type RegimenWrites } from './useRegimens'
import './regimens.css'

/** Salt is read as salinity. */
const saltKit = 'salinity meter'
const LevelChart = lazy(() => import('./LevelChart'))

/** One regimen: what now, its picture or its plan, and what was done. */
export function RegimenPage() {
  const { regimenId = '' } = useParams()
  const { regimen, problem } = useRegimen(regimenId)
  if (!regimen) return problem ? <Trouble problem={problem} back={{ to: '/regimens', label: 'Regimens' }} /> : <Waiting what="the regimen" />
  return <Regimen key={regimen.id} regimen={regimen} />
}

function Regimen({ regimen }: { regimen: RegimenView }) {
  const format = useFormat()
  const writes = useRegimenWrites()
  const [done, setDone] = useState<string | null>(null)
  const { title, tankId, tankCode, waterName, now, why, ended, note, by, startedAtMs, ladder, doses, feed, transfer, salinity, log, nowMs } = regimen
  const ownWater = waterName === `water of ${tankCode}`
  return (
    <>
      <Lead title={`${title}, ${ownWater ? tankCode : waterName}`} aside={<Link to="/regimens">Regimens</Link>}>
        {ended ? (
          <>
            Ended {format.moment(ended.atMs)} by {ended.by}: {ended.reason}
          </>
        ) : (
          <>
            <strong>
              <InUnits>{now}</InUnits>
            </strong>{' '}
            {why && <InUnits>{why}</InUnits>}
          </>
        )}
      </Lead>
      {done && <p role="status">{done}</p>}
      <div className="regimen-columns">
        <div>
          {!ended && ladder && (
            <>
              {ladder.step === 'read' || ladder.step === 'hold' || ladder.step === 'wait' || ladder.step === 'waitEating' || ladder.step === 'done' ? null : ladder.changeL !== null ? null : <Offer offer={ladder.offer} regimenId={regimen.id} writes={writes} onGiven={() => setDone('Written down. Read it in some hours.')} />}
              {ladder.offer.product.kit === saltKit ? <ReadSalinity tankId={tankId} writes={writes} /> : <ReadLevel ladder={ladder} writes={writes} onRead={() => setDone('The reading is written down.')} />}
              <ChangeWater tankId={tankId} regimenId={regimen.id} litres={ladder.changeL} redose={ladder.redose} productId={ladder.offer.product.id} levelMgL={ladder.offer.level?.mgL ?? null} writes={writes} onDone={() => setDone('The change is written down.')} />
            </>
          )}
          {!ended && doses && doses.isToday && !doses.isGiven && <Offer offer={doses.offer} regimenId={regimen.id} writes={writes} onGiven={() => setDone('Written down.')} />}
          {(doses ?? feed) && <CourseDays course={(doses ?? feed)!} feed={feed} isOpen={!ended} give={() => writes.step(regimen.id, 'feed', tankId)} />}
          {transfer && <TransferRows transfer={transfer} isOpen={!ended} clean={(id) => writes.step(regimen.id, 'cleaned', id)} nowMs={nowMs} />}
          {salinity && <SalinitySteps salinity={salinity} tankId={tankId} regimenId={regimen.id} isOpen={!ended} writes={writes} plan={regimen.plan} />}
        </div>
        <div>
          {ladder && (
            <Suspense>
              <LevelChart ladder={ladder} nowMs={nowMs} />
            </Suspense>
          )}
          <RowSection title="Done" count={log.length} nothing="Nothing yet.">
            {log.map((row) => (
              <LogLine key={`${row.kind} ${row.id}`} row={row} nowMs={nowMs} writes={writes} />
            ))}
          </RowSection>
        </div>
      </div>
      {!ended && <EndRegimen end={(reason) => writes.end(regimen.id, reason)} />}
      <p className="aside-word">
        Begun {format.moment(startedAtMs)} by {by}
        {note && `: ${note}`}. Nothing here is a prescription: the label, a veterinarian and local law decide.
      </p>
    </>
  )
}

function LogLine({ row, nowMs, writes }: { row: LogRow; nowMs: number; writes: RegimenWrites }) {
  const format = useFormat()
  const { recorder } = useSession()
  const [problem, setProblem] = useState<string | null>(null)
  const mayUndo = row.isUndoable && (row.kind === 'dose' || row.kind === 'change') && mayTakeBack(recorder, row, nowMs)
  return (
    <li className="record log-line">
      <span>
        <InUnits>{row.words}</InUnits>
        <small>
          {format.moment(row.atMs)}, {row.by}
        </small>
      </span>
      {mayUndo && (
        <Button look="quiet" onClick={() => void writes.undo(row)?.catch((error: unknown) => setProblem(sentenceOf(error)))}>
          take it back
        </Button>
      )}
      <Problem>{problem}</Problem>
    </li>
  )
}

function EndRegimen({ end }: { end: (reason: string) => Promise<unknown> }) {
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <details className="folded">
      <summary>End this regimen</summary>
      <p className="aside-word">What is in the water stays there and counts until it is gone, or read as gone. The clocks of its fish go on.</p>
      <TextField label="how it ends" size="hand" maxLength={500} value={reason} onChange={setReason} />
      <Button size="hand" onClick={() => void end(reason).catch((error: unknown) => setProblem(sentenceOf(error)))}>
        end it
      </Button>
      <Problem>{problem}</Problem>
    </details>
  )
}
