import { useState } from 'react'
import { useParams } from 'react-router'
import { columnOf, type PreviewRow } from '../../core/setup/registerCsv'
import { isRegisterName, registers, type RegisterName } from '../../core/setup/registers'
import { Button } from '../ui/Button'
import { FileField } from '../ui/Field'
import { ListProblem, problemOf, type ListTrouble } from '../ui/ListProblem'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing } from '../ui/PageState'
import { plural } from '../ui/format'
import { Table } from '../ui/Table'
import { useGoOn } from '../ui/useGoOn'
import { useRegisterWrites } from './useSetup'
import './setup.css'

/** Takes a list in from a file: what it would do first, then all of it or nothing. */
export function RegisterImportPage() {
  const { register = '' } = useParams()
  return isRegisterName(register) ? <ImportFile key={register} register={register} /> : <Nothing>There is no such list.</Nothing>
}

function ImportFile({ register }: { register: RegisterName }) {
  const { title, fields, key } = registers[register]
  const writes = useRegisterWrites(register)
  const goOn = useGoOn()
  const [preview, setPreview] = useState<{ rows: PreviewRow[]; notices: string[] } | null>(null)
  const [problem, setProblem] = useState<ListTrouble | null>(null)
  const attempt = async <T,>(work: () => Promise<T>): Promise<T | null> => {
    setProblem(null)
    return work().catch((error: unknown) => (setProblem(problemOf(error)), null))
  }
  const changing = preview?.rows.filter((row) => row.change !== 'same') ?? []
  return (
    <>
      <Lead title={`${title} from a file`}>Rows are matched by {fields.find((field) => field.name === key)?.label}. Columns that the file leaves out keep what is there.</Lead>
      <p className="aside-word">Columns: {fields.map(columnOf).join(', ')}. Figures in these units, whatever the room shows.</p>
      <FileField
        label="CSV file"
        accept=".csv,.txt,text/csv"
        onFile={(file) => {
          setPreview(null)
          if (file) void attempt(() => writes.previewFile(file)).then(setPreview)
        }}
      />
      {problem && <ListProblem {...problem} />}
      {preview?.notices.map((notice) => (
        <Notice key={notice}>
          {notice}
        </Notice>
      ))}
      {preview && changing.length === 0 && <Nothing>The file says what the room holds already; there is nothing to take in.</Nothing>}
      {changing.length > 0 && (
        <>
          <PreviewTable rows={preview?.rows ?? []} />
          <Button look="act" onClick={() => void attempt(() => writes.importRows(changing)).then((done) => done !== null && goOn(`/setup/${register}`))}>
            Take in {plural(changing.filter((row) => row.change === 'new').length, 'new row')}, change {changing.filter((row) => row.change === 'changed').length}
          </Button>
        </>
      )}
    </>
  )
}

function PreviewTable({ rows }: { rows: PreviewRow[] }) {
  return (
    <Table responsive>
      <thead>
        <tr>
          <th scope="col" className="number">row</th>
          <th scope="col">name</th>
          <th scope="col">what it would do</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.row}>
            <td className="number">{row.row}</td>
            <th scope="row">{row.key}</th>
            <td>{row.change === 'new' ? 'add it' : row.change === 'same' ? 'nothing, it is so already' : `change ${row.changes.join(', ')}`}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}
