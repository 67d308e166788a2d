import { useState } from 'react'
import type { BookChange } from '../../core/species/bookChanges'
import { Button } from '../ui/Button'
import { Tick } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { ListProblem, problemOf, type ListTrouble } from '../ui/ListProblem'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { Table } from '../ui/Table'
import { useGoOn } from '../ui/useGoOn'
import { useBookChanges, useRegisterWrites } from './useSetup'
import './setup.css'
import './species.css'

/** What the shipped species book would change in the species kept here: looked at field by field, then all that is ticked or nothing. */
export function BookChangesPage() {
  const { rows, problem } = useBookChanges()
  const { importRows } = useRegisterWrites('species')
  const goOn = useGoOn()
  const [left, setLeft] = useState<readonly string[]>([])
  const [trouble, setTrouble] = useState<ListTrouble | null>(null)
  if (!rows) return problem ? <Trouble problem={problem} back={{ to: '/setup/species', label: 'Species' }} /> : <Waiting what="the species book" />
  if (rows.length === 0)
    return (
      <>
        <Lead title="What the shipped book would change" />
        <Nothing>Nothing: the species kept here say what the book says, or what you wrote yourselves.</Nothing>
      </>
    )
  const chosen = rows.filter(({ id }) => !left.includes(id ?? ''))
  const takeIn = (): void => void importRows(chosen).then(() => goOn('/setup/species'), (error: unknown) => setTrouble(problemOf(error)))
  return (
    <>
      <Lead title="What the shipped book would change" aside={plural(rows.length, 'species', 'species')}>
        Only cells that still say what an earlier book said, and new ones that are empty. What you wrote yourselves stays; a new name keeps its lots and outcomes.
      </Lead>
      {trouble && <ListProblem {...trouble} />}
      {rows.map((row) => (
        <Change key={row.id} change={row} isOn={!left.includes(row.id ?? '')} onToggle={(isOn) => setLeft(isOn ? left.filter((id) => id !== row.id) : [...left, row.id ?? ''])} />
      ))}
      <div className="thumb-bar page-action">
        <Button look="act" disabled={chosen.length === 0} onClick={takeIn}>
          {chosen.length === 0 ? 'Tick what is to be changed' : `Change ${plural(chosen.length, 'species', 'species')}`}
        </Button>
      </div>
    </>
  )
}

function Change({ change: { key, details }, isOn, onToggle }: { change: BookChange; isOn: boolean; onToggle: (isOn: boolean) => void }) {
  const [corrected, added] = [details.filter(({ from }) => from !== ''), details.filter(({ from }) => from === '')]
  return (
    <section className="book-change" aria-label={key}>
      <Tick label={<strong>{key}</strong>} isOn={isOn} onChange={onToggle} />
      {corrected.length > 0 && (
        <Table>
          <tbody>
            {corrected.map(({ label, from, to }) => (
              <tr key={label}>
                <th scope="row">{label}</th>
                <td>{from}</td>
                <td>{to === '' ? 'nothing' : to}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {added.length > 0 && (
        <details>
          <summary>{plural(added.length, 'new entry', 'new entries')}</summary>
          {added.map(({ label, to }) => `${label}: ${to}`).join(' · ')}
        </details>
      )}
    </section>
  )
}
