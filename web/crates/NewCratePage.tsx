import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { listColumns } from '../../core/crates/readPackingList'
import type { FieldError } from '../../core/problem/problem'
import { ApiProblem, sentenceOf } from '../api/ApiProblem'
import { useCrateSummaries } from '../api/sharedReads'
import { Field, FormProblem } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { TankOptions } from '../ui/TankOptions'
import { submitInto } from '../ui/submitInto'
import { readPackingList, useCreateCrate, useTankChoices, type ListRead } from './useCrates'

/** From a packing list to a crate in the books: read it, choose tanks, take it in. */
export function NewCratePage() {
  const [list, setList] = useState<ListRead | null>(null)
  const form = useForm({ defaultValues: { supplier: '', expected: '', packed: '' } })
  const { crates } = useCrateSummaries()
  const createCrate = useCreateCrate()
  const navigate = useNavigate()
  const suppliers = [...new Set(crates?.map((crate) => crate.supplier))]

  const takeIn = form.handleSubmit(async ({ supplier, expected, packed }) => {
    if (!supplier.trim()) return form.setError('supplier', { message: 'Supplier is missing' }, { shouldFocus: true })
    const lines = (list?.lines ?? []).map(({ species, count, bags, perBag, tankId }) => ({ species, count, bags, perBag, tankId }))
    await submitInto(form, async () => {
      const { id } = await createCrate({ supplier, expectedAtMs: toMs(expected), packedAtMs: toMs(packed), lines })
      await navigate(`/crates/${id}`)
    })
  })

  return (
    <>
      <Lead title="New crate">{list ? 'Look the lines over, choose tanks, then take the crate in.' : 'Give the packing list as a file or paste it. Nothing is kept until you take the crate in.'}</Lead>
      <Form noValidate onSubmit={(event) => void takeIn(event)} className="crate-form">
        <div className="field-row">
          <Field form={form} name="supplier" label="Supplier" list="suppliers" autoComplete="off" />
          <Field form={form} name="packed" label="Packed" type="datetime-local" />
          <Field form={form} name="expected" label="Expected" type="datetime-local" />
        </div>
        <datalist id="suppliers">
          {suppliers.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
        <ListInput onRead={setList} />
        {list && <ListTable list={list} onChange={setList} />}
        <FormProblem form={form} />
        {list && (
          <Button type="submit" className="act" disabled={form.formState.isSubmitting}>
            Take in {plural(list.lines.length, 'line')}, {plural(list.lines.reduce((sum, line) => sum + line.bags, 0), 'bag')}
          </Button>
        )}
      </Form>
    </>
  )
}

const toMs = (local: string): number | null => (local ? new Date(local).getTime() : null)

function ListInput({ onRead }: { onRead: (list: ListRead | null) => void }) {
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<{ detail: string; errors: FieldError[] } | null>(null)
  const read = async (list: Blob): Promise<void> => {
    setProblem(null)
    onRead(null)
    try {
      onRead(await readPackingList(list))
    } catch (error) {
      setProblem({ detail: sentenceOf(error), errors: error instanceof ApiProblem ? error.errors : [] })
    }
  }
  return (
    <fieldset className="list-input">
      <legend>Packing list</legend>
      <Form.Group controlId="list-file" className="field">
        <Form.Label>CSV file</Form.Label>
        <Form.Control type="file" accept=".csv,.txt,text/csv" onChange={(event) => {
          const file = (event.currentTarget as HTMLInputElement).files?.[0]
          if (file) void read(file)
        }} />
      </Form.Group>
      <Form.Group controlId="list-text" className="field">
        <Form.Label>or pasted, first row {listColumns.join(', ')}</Form.Label>
        <Form.Control as="textarea" rows={4} value={text} spellCheck={false} placeholder={'species,count,bags,per bag,tank\nCherry barb,22,3,8,R1-02'} onChange={(event) => setText(event.currentTarget.value)} />
      </Form.Group>
      <Button type="button" className="button" disabled={text.trim() === ''} onClick={() => void read(new Blob([text]))}>
        Read the list
      </Button>
      {problem && <ListProblem {...problem} />}
    </fieldset>
  )
}

function ListProblem({ detail, errors }: { detail: string; errors: FieldError[] }) {
  return (
    <div className="list-problem" role="alert" ref={bringIntoView}>
      <p>{detail}.</p>
      {errors.length > 1 && (
        <ul>
          {errors.map(({ path, message }, index) => (
            <li key={`${path} ${index}`}>{message}</li>
          ))}
        </ul>
      )}
    </div>
  )
}

/** On a phone what was read stands below the fold; it comes up by itself. */
const bringIntoView = (element: HTMLElement | null): void => void element?.scrollIntoView({ block: 'center' })

function ListTable({ list, onChange }: { list: ListRead; onChange: (list: ListRead) => void }) {
  const tanks = useTankChoices()
  const choose = (row: number, tankId: string | null): void => onChange({ ...list, lines: list.lines.map((line) => (line.row === row ? { ...line, tankId } : line)) })
  return (
    <>
      {list.notices.map((notice) => (
        <p key={notice} className="notice">
          {notice}
        </p>
      ))}
      <Table responsive className="record-table" ref={bringIntoView}>
        <thead>
          <tr>
            <th scope="col">species</th>
            <th scope="col" className="number">fish</th>
            <th scope="col" className="number">bags</th>
            <th scope="col">tank</th>
          </tr>
        </thead>
        <tbody>
          {list.lines.map((line) => (
            <tr key={line.row}>
              <td>
                {line.species} {line.isNewSpecies && <small className="aside-word">new to the book</small>}
              </td>
              <td className="number">{line.count}</td>
              <td className="number">{line.bags}</td>
              <td>
                <Form.Select aria-label={`tank for ${line.species}`} value={line.tankId ?? ''} onChange={(event) => choose(line.row, event.currentTarget.value || null)}>
                  <option value="">choose later</option>
                  <TankOptions tanks={tanks} />
                </Form.Select>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  )
}
