import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { listFields, mappingProblem, type ListField, type ListMapping } from '../../core/crates/listMapping'
import { ApiProblem } from '../api/ApiProblem'
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
      <Form.Group controlId="list-file" className="field">
        <Form.Label>File, CSV or JSON</Form.Label>
        <Form.Control
          type="file"
          accept=".csv,.txt,.json,text/csv,application/json"
          onChange={(event) => {
            const chosen = (event.currentTarget as HTMLInputElement).files?.[0]
            if (chosen) take(chosen, null)
          }}
        />
      </Form.Group>
      <Form.Group controlId="list-text" className="field">
        <Form.Label>or pasted, the first row naming the columns</Form.Label>
        <Form.Control as="textarea" rows={4} value={text} spellCheck={false} placeholder={'species,count,bags,per bag,tank\nCherry barb,22,3,8,R1-02'} onChange={(event) => setText(event.currentTarget.value)} />
      </Form.Group>
      <Button type="button" className="button" disabled={text.trim() === ''} onClick={() => take(new Blob([text]), null)}>
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
            <label key={field}>
              <span>{field}</span>
              <Form.Select aria-label={`column for ${field}`} value={at ?? ''} onChange={(event) => choose(field, event.currentTarget.value)}>
                <option value="">not in the list</option>
                {heading.map((name, index) => (
                  <option key={index} value={index}>
                    {name.trim() || `column ${index + 1}`}
                  </option>
                ))}
              </Form.Select>
              <small>{at === undefined ? '' : sample[0]?.[at]}</small>
            </label>
          )
        })}
      </div>
    </details>
  )
}
