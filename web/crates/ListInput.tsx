import { useState } from 'react'
import { listFields, mappingProblem, type ListMapping } from '../../core/crates/listMapping'
import { ApiProblem } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { FileField, TextField } from '../ui/Field'
import { ListColumns } from '../ui/ListColumns'
import { ListProblem, problemOf, type ListTrouble } from '../ui/ListProblem'
import { MailboxList } from './MailboxList'
import { readPackingList, type ListRead, type ReadColumns } from './useCrates'

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
  const [columns, setColumns] = useState<ReadColumns | null>(null)
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
      setColumns(error instanceof ApiProblem ? ((error.current as { columns?: ReadColumns } | undefined)?.columns ?? null) : null)
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
      {columns && file && <ListColumns fields={listFields} columns={columns} remembered="as remembered for this supplier" problem={mappingProblem(columns.mapping, columns.heading.length)} isOpen={problem !== null} onChange={(mapping) => (setColumns({ ...columns, mapping }), mappingProblem(mapping, columns.heading.length) === null && void read(file, mapping))} />}
    </fieldset>
  )
}
