import { useState } from 'react'
import { listFields, mappingProblem, type ListField, type ListMapping } from '../../core/crates/listMapping'
import { ApiProblem } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { ChoiceField, FileField, TextField } from '../ui/Field'
import { ListProblem, problemOf, type ListTrouble } from '../ui/ListProblem'
import { MailboxList } from './MailboxList'
import { readPackingList, type ListColumns, type ListRead } from './useCrates'

interface Props {
  /** Whose lists are read: what was said about their columns before is known. */
  supplier: string
  onRead: (list: ListRead | null) => void
  /** The letter of the mailbox that the list came by; null for any other. */
  onLetter: (letterId: string | null) => void
}

/** A packing list as a file or pasted, and which of its columns means what. */
export function ListInput({ supplier, onRead, onLetter }: Props) {
  const [text, setText] = useState('')
  const [file, setFile] = useState<Blob | null>(null)
  const [columns, setColumns] = useState<ListColumns | null>(null)
  const [problem, setProblem] = useState<ListTrouble | null>(null)
  const take = (list: Blob, letterId: string | null): void => {
    onLetter(letterId)
    void read(list, null)
  }
  const read = async (list: Blob, mapping: ListMapping | null): Promise<void> => {
    setFile(list)
    setProblem(null)
    onRead(null)
    try {
      const answer = await readPackingList(list, { supplier, mapping })
      setColumns(answer.columns)
      onRead(answer)
    } catch (error) {
      setProblem(problemOf(error))
      setColumns(error instanceof ApiProblem ? ((error.current as { columns?: ListColumns } | undefined)?.columns ?? null) : null)
    }
  }
  return (
    <fieldset className="list-input">
      <legend>Packing list</legend>
      <FileField label="File, CSV or JSON" accept=".csv,.txt,.json,text/csv,application/json" onFile={(chosen) => chosen && take(chosen, null)} />
      <TextField label="or pasted, the first row naming the columns" rows={4} spellCheck={false} placeholder={'species,count,bags,per bag,tank\nCherry barb,22,3,8,R1-02'} value={text} onChange={setText} />
      <Button disabled={text.trim() === ''} onClick={() => take(new Blob([text]), null)}>
        Read the list
      </Button>
      <MailboxList onPick={take} onProblem={(error) => setProblem(problemOf(error))} />
      {problem && <ListProblem {...problem} />}
      {columns && file && <Columns columns={columns} isOpen={problem !== null} onChange={(mapping) => (setColumns({ ...columns, mapping }), mappingProblem(mapping, columns.heading.length) === null && void read(file, mapping))} />}
    </fieldset>
  )
}

/** Which column holds what, with a look at the first row. Remembered for the supplier once the crate is taken in. */
function Columns({ columns, isOpen, onChange }: { columns: ListColumns; isOpen: boolean; onChange: (mapping: ListMapping) => void }) {
  const { heading, sample, mapping, isRemembered } = columns
  const problem = mappingProblem(mapping, heading.length)
  const choose = (field: ListField, column: string): void => {
    const others = Object.fromEntries(Object.entries(mapping).filter(([name, at]) => name !== field && at !== Number(column || -1)))
    onChange(column === '' ? others : { ...others, [field]: Number(column) })
  }
  return (
    <details className="list-columns" open={isOpen || problem !== null}>
      <summary>Which column is what{isRemembered ? ' (as remembered for this supplier)' : ''}</summary>
      {problem && <p className="form-problem">{problem}.</p>}
      <div className="mapping">
        {listFields.map((field) => {
          const at = mapping[field]
          return (
            <ChoiceField key={field} label={<><span className="visually-hidden">column for </span>{field}</>} hint={at === undefined ? '' : sample[0]?.[at]} value={String(at ?? '')} onChange={(column) => choose(field, column)}>
              <option value="">not in the list</option>
              {heading.map((name, index) => (
                <option key={index} value={index}>
                  {name.trim() || `column ${index + 1}`}
                </option>
              ))}
            </ChoiceField>
          )
        })}
      </div>
    </details>
  )
}
