import { useState } from 'react'
import { useSearchParams } from 'react-router'
import type { AuditLine } from '../../core/audit/auditView'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { usePeople } from './usePeople'
import { useAudit } from './useSetup'
import './setup.css'

/** What was done here, newest first: every accepted entry, what an edit changed, and who opened or closed a device. */
export function AuditPage() {
  const [search, setSearch] = useSearchParams()
  const staffId = search.get('who') ?? ''
  const { people = [] } = usePeople()
  return (
    <>
      <Lead title="Audit">Who did what, when. Nothing here can be changed.</Lead>
      <div className="list-tools">
        <ChoiceField label="who" isLabelHidden value={staffId} onChange={(who) => setSearch(who ? { who } : {}, { replace: true })}>
          <option value="">everybody</option>
          {people.map((person) => (
            <option key={person.id} value={person.id}>
              {person.name}
            </option>
          ))}
        </ChoiceField>
      </div>
      <ol className="record-list audit">
        <Lines key={staffId} staffId={staffId} before={null} names={new Map(people.map(({ id, name }) => [id, name]))} />
      </ol>
    </>
  )
}

/** A page of lines, and under it the next once it is asked for. */
function Lines({ staffId, before, names }: { staffId: string; before: string | null; names: ReadonlyMap<string, string> }) {
  const { data, problem } = useAudit(staffId, before)
  const [isOlder, setIsOlder] = useState(false)
  if (!data) return <li>{problem ? <Trouble problem={problem} /> : <Waiting what="the audit" />}</li>
  if (data.lines.length === 0 && before === null) return <li><Nothing>Nothing was done yet.</Nothing></li>
  return (
    <>
      {data.lines.map((line) => (
        <Line key={line.id} line={line} who={line.staffId === null ? 'somebody unknown' : (names.get(line.staffId) ?? '')} />
      ))}
      {data.before !== null &&
        (isOlder ? (
          <Lines staffId={staffId} before={data.before} names={names} />
        ) : (
          <li>
            <Button onClick={() => setIsOlder(true)}>
              older
            </Button>
          </li>
        ))}
    </>
  )
}

/** `recordBags` as people say it: record bags. */
const inWords = (action: string): string => action.replace(/([A-Z])/g, ' $1').toLowerCase()

function Line({ line, who }: { line: AuditLine; who: string }) {
  const format = useFormat()
  const changes = Object.entries(line.changes ?? {})
  const shown = (value: unknown): string => (value === null || value === '' ? 'nothing' : typeof value === 'object' ? JSON.stringify(value) : String(value))
  return (
    <li className="record audit-line">
      <time>{format.moment(line.atMs)}</time>
      <span>
        <strong>{who}</strong> {inWords(line.action)} {line.subject && <>· {line.subject}</>}
        {changes.length > 0 && <small>{changes.map(([field, [before, after]]) => `${inWords(field)}: ${shown(before)} → ${shown(after)}`).join('; ')}</small>}
      </span>
    </li>
  )
}
