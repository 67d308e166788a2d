import { Link, useSearchParams } from 'react-router'
import { labelSheet } from '../../core/room/label'
import { useRoomView } from '../api/sharedReads'
import { Button, ButtonLink } from '../ui/Button'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { QrCode } from '../ui/QrCode'
import { labelText } from '../../core/room/label'
import './labels.css'

/** Labels to print: every tank, or those of some racks, or of the rack of one tank. */
export function LabelsPage() {
  const { room, problem } = useRoomView()
  const [search, setSearch] = useSearchParams()
  if (!room) return problem ? <Trouble problem={problem} /> : <Waiting what="the tanks" />
  if (room.tanks.length === 0) return <Nothing>No tanks are entered yet.</Nothing>
  const names = [...new Set(room.tanks.map(({ rack }) => rack))]
  const racks = [...new Set([...search.getAll('rack'), ...room.tanks.flatMap(({ code, rack }) => (code === search.get('tank') ? [rack] : []))])]
  const chosen = room.tanks.filter(({ rack }) => racks.length === 0 || racks.includes(rack))
  const [first] = chosen
  const toggle = (rack: string): void => setSearch({ rack: racks.includes(rack) ? racks.filter((each) => each !== rack) : [...racks, rack] }, { replace: true })
  const isOwn = ['localhost', '127.0.0.1', '[::1]'].includes(window.location.hostname)
  return (
    <>
      <Lead title="Labels">
        {plural(chosen.length, 'label')} on {plural(Math.ceil(chosen.length / (labelSheet.across * labelSheet.down)), 'sheet')} of A4, {labelSheet.widthMm} by {labelSheet.heightMm} mm each. A label opens its tank, or on a round its card. <Link to="/scan">Scan one</Link>
      </Lead>
      <div className="filters" role="group" aria-label="Racks">
        {names.map((rack) => (
          <Button key={rack} aria-pressed={racks.includes(rack)} onClick={() => toggle(rack)}>
            {rack}
          </Button>
        ))}
      </div>
      {first && (
        <figure className="label-shown">
          <QrCode text={labelText(window.location.origin, first.code)} label={`The code of ${first.code}`} />
          <figcaption>
            <strong>{first.code}</strong>
            <small>{room.systems.find(({ id }) => id === first.systemId)?.name}</small>
          </figcaption>
        </figure>
      )}
      {isOwn && <Notice>This page is open under the machine’s own address, which no phone can reach. Scanning in here works from any label; for a phone’s own camera, print from the address under which phones open this room.</Notice>}
      <ButtonLink look="act" href={`/api/labels.pdf${racks.length > 0 ? `?${racks.map((rack) => `rack=${encodeURIComponent(rack)}`).join('&')}` : ''}`}>
        Labels as PDF
      </ButtonLink>
    </>
  )
}
