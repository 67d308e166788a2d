import { useRef, useState } from 'react'
import { ProgressBar } from 'react-bootstrap'
import { keepingApi } from '../../core/keeping/keeping.api'
import type { CopiesView } from '../../core/keeping/notice'
import { ApiProblem, sentenceOf } from '../api/ApiProblem'
import { download, type DownloadProgress } from '../api/download'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import PinSheet from '../ui/PinSheet'
import { useFormat } from '../ui/useFormat'
import { useKeeping } from './useSetup'
import './setup.css'

/** Copies of the room: a backup to restore from, and everything in an open format. */
export function KeepingPage() {
  const { data, problem } = useKeeping()
  if (!data) return problem ? <Trouble problem={problem} /> : <Waiting what="what there is to keep" />
  return (
    <>
      <Lead title="Backup and export" aside={`${data.movements.toLocaleString('en')} movements, ${(data.databaseBytes / 1e6).toFixed(1)} MB`}>
        Keep a copy away from this machine, and try once that it restores. Work goes on meanwhile.
      </Lead>
      <Copies copies={data.copies} />
      <section className="setup-section">
        <h2>Backup</h2>
        <p>One file with the database and the photos as they stand at this moment. It is restored with npm run restore; what stood there before is set aside, not deleted.</p>
        <Download path={keepingApi.keepBackup.path} label="Download a backup" total={null} />
      </section>
      <section className="setup-section">
        <h2>Everything as JSON</h2>
        <p>
          {data.rows.toLocaleString('en')} rows{data.photos > 0 ? ` and ${data.photos} photos` : ''} in a documented form (docs/formats.md), for another program or another room. It is taken in by npm run import, into an empty folder. For very large rooms npm run
          export writes it without a browser.
        </p>
        <Download path={keepingApi.keepExport.path} label="Download everything" total={data.rows} />
      </section>
      <Notice>Both files hold everything, the secrets of your staff as hashes included. Keep them where only you can read them.</Notice>
    </>
  )
}

/** What is known of the copies that are made by themselves, and whether the newest would bring the room back. */
function Copies({ copies: { folder, hours, days, newest, trial } }: { copies: CopiesView }) {
  const format = useFormat()
  return (
    <section className="setup-section">
      <h2>Copies by themselves</h2>
      {folder === null ? (
        <p>None are made here (CRATE_COPIES).</p>
      ) : (
        <>
          <p>
            {newest === null ? `The first is made within the hour, in ${folder}.` : `Newest ${format.moment(newest.atMs)}, ${(newest.bytes / 1e6).toFixed(1)} MB; ${plural(hours, 'hour')} and ${plural(days, 'day')} lie in ${folder}.`} A folder on another disk survives this one: name it in CRATE_COPIES.
          </p>
          {trial && (
            <p>
              Tried {format.moment(trial.atMs)}: it brought the room back in {(trial.tookMs / 1000).toFixed(1)} s, {plural(trial.movements, 'movement')}, books right.
            </p>
          )}
        </>
      )}
    </section>
  )
}

function Download({ path, label, total }: { path: string; label: string; total: number | null }) {
  const { recorder } = useSession()
  const [state, setState] = useState<DownloadProgress | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const [isPinAsked, setIsPinAsked] = useState(false)
  const abort = useRef<AbortController | null>(null)
  const start = async (): Promise<void> => {
    abort.current = new AbortController()
    setSaid(null)
    setState({ bytes: 0, rows: 0 })
    try {
      setSaid(`${await download(path, recorder.id, setState, abort.current.signal)} is in your downloads.`)
    } catch (error) {
      if (error instanceof ApiProblem && error.code === 'unidentified') setIsPinAsked(true)
      else setSaid(abort.current.signal.aborted ? 'Cancelled; nothing was saved.' : sentenceOf(error))
    }
    setState(null)
  }
  return (
    <>
      {state ? (
        <div className="long-work" role="status">
          <span>
            {total === null ? '' : `${state.rows.toLocaleString('en')} of ${total.toLocaleString('en')} rows, `}
            {(state.bytes / 1e6).toFixed(1)} MB
          </span>
          {total !== null && <ProgressBar now={(state.rows / Math.max(1, total)) * 100} aria-label="progress" />}
          <Button onClick={() => abort.current?.abort()}>
            Cancel
          </Button>
        </div>
      ) : (
        <Button onClick={() => void start()}>
          {label}
        </Button>
      )}
      {said && <p role="status">{said}</p>}
      <PinSheet
        isOpen={isPinAsked}
        onClose={() => setIsPinAsked(false)}
        onGiven={() => {
          setIsPinAsked(false)
          void start()
        }}
      />
    </>
  )
}
