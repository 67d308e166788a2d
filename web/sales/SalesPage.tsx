import { useState } from 'react'
import { headingKey } from '../../core/crates/listMapping'
import { planSales, type PlannedSale, type SaleAnswer } from '../../core/sales/planSales'
import { saleFields, saleMappingProblem, type SaleMapping } from '../../core/sales/readSales'
import type { SaleColumns, SalesRead, SalesView } from '../../core/sales/salesView'
import { saleTankRule } from '../../core/sales/tanksForSale'
import { ApiProblem, sentenceOf } from '../api/ApiProblem'
import { Button, ButtonLink } from '../ui/Button'
import { FileField, TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { ListColumns } from '../ui/ListColumns'
import { ListProblem, problemOf, type ListTrouble } from '../ui/ListProblem'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { SaleRows } from './SaleRows'
import { readSalesList, useSales, useSalesWrites } from './useSales'
import './sales.css'

/** A day's sales out of the till: read, looked over, booked as one. */
export function SalesPage() {
  const { sales, problem } = useSales()
  if (!sales) return problem ? <Trouble problem={problem} /> : <Waiting what="the sales" />
  return <Sales sales={sales} />
}

function Sales({ sales }: { sales: SalesView }) {
  const [file, setFile] = useState<Blob | null>(null)
  const [on, setOn] = useState(sales.on)
  const [text, setText] = useState('')
  const [read, setRead] = useState<SalesRead | null>(null)
  const [columns, setColumns] = useState<SaleColumns | null>(null)
  const [problem, setProblem] = useState<ListTrouble | null>(null)
  const [done, setDone] = useState<string | null>(null)
  const take = async (list: Blob, mapping: SaleMapping | null, day = on): Promise<void> => {
    setFile(list)
    setProblem(null)
    setDone(null)
    setRead(null)
    try {
      const answer = await readSalesList(list, { on: day, mapping })
      setRead(answer)
      setColumns(answer.columns)
    } catch (error) {
      setProblem(problemOf(error))
      setColumns(error instanceof ApiProblem ? ((error.current as { columns?: SaleColumns } | undefined)?.columns ?? null) : null)
    }
  }
  const booked = (words: string): void => {
    setDone(words)
    setRead(null)
    setColumns(null)
    setText('')
  }
  return (
    <>
      <Lead title="Sales from the till" aside={<ButtonLink to="/room" look="quiet">to the room</ButtonLink>}>
        A day’s sales as a list. Nothing is booked before you have looked it over, and nothing is booked twice.
      </Lead>
      <div className="list-input">
        <TextField label="Day, where the list names none" type="date" value={on} onChange={(day) => (setOn(day), file && void take(file, columns?.mapping ?? null, day))} />
        <FileField label="File, CSV" accept=".csv,.txt,text/csv" onFile={(chosen) => chosen && void take(chosen, null)} />
        <TextField label="or pasted, the first row naming the columns" rows={4} spellCheck={false} placeholder={'item,count,receipt\nCherry barb,2,1041'} value={text} onChange={setText} />
        <Button disabled={text.trim() === ''} onClick={() => void take(new Blob([text]), null)}>
          Read the list
        </Button>
        {problem && <ListProblem {...problem} />}
        {columns && file && <ListColumns fields={saleFields} columns={columns} remembered="as remembered" problem={saleMappingProblem(columns.mapping)} isOpen={problem !== null} onChange={(mapping) => (setColumns({ ...columns, mapping }), saleMappingProblem(mapping) === null && void take(file, mapping))} />}
      </div>
      {done && <p role="status">{done}</p>}
      {read && <Preview key={read.rows.map(({ key }) => key).join()} read={read} sales={sales} onBooked={booked} />}
      <Lists lists={sales.lists} />
    </>
  )
}

const isOpen = ({ state }: PlannedSale): boolean => state === 'which fish' || state === 'too few' || state === 'none here'

function Preview({ read, sales, onBooked }: { read: SalesRead; sales: SalesView; onBooked: (words: string) => void }) {
  const { bookSales } = useSalesWrites()
  const [answers, setAnswers] = useState<ReadonlyMap<string, SaleAnswer>>(new Map())
  const [because, setBecause] = useState('')
  const [problem, setProblem] = useState<unknown>(null)
  const [isBusy, setBusy] = useState(false)
  const planned = planSales(read.rows, sales.kinds, answers)
  const answer = (key: string, change: SaleAnswer): void => setAnswers(new Map([...answers, [key, { ...answers.get(key), ...change }]]))
  const ready = planned.filter(({ state }) => state === 'ready')
  const noted = planned.filter(({ state }) => state === 'ready' || state === 'no fish')
  const open = planned.filter(isOpen)
  const fish = ready.reduce((sum, { row }) => sum + row.count, 0)
  const needsReason = ready.some(({ isHeld }) => isHeld)
  const book = (): void => {
    setBusy(true)
    setProblem(null)
    const rows = noted.map(({ row, kind, parts }) => ({ key: row.key, item: row.item, on: row.on, count: row.count, speciesId: kind?.speciesId ?? null, strain: kind?.strain ?? null, isAgain: answers.get(row.key)?.isAgain ?? false, parts }))
    void bookSales({ rows, heading: headingKey(read.columns.heading), mapping: read.columns.mapping, heldBecause: because.trim() || null })
      .then(() => onBooked(`${plural(fish, 'fish', 'fish')} in ${plural(ready.length, 'sale')} booked.${open.length > 0 ? ` ${plural(open.length, 'row')} left out.` : ''}`), setProblem)
      .finally(() => setBusy(false))
  }
  return (
    <section aria-label="Looked over" className="sales-read">
      <h2>
        {plural(fish, 'fish', 'fish')} in {plural(ready.length, 'sale')}
        {open.length > 0 && `; ${plural(open.length, 'row')} to be looked at`}
      </h2>
      <p className="aside-word">{saleTankRule}</p>
      <SaleRows planned={planned} kinds={sales.kinds} onAnswer={answer} />
      {needsReason && <TextField label="Some are in their hold. Why they were sold all the same" maxLength={500} value={because} onChange={setBecause} />}
      <div className="entry-buttons">
        <Button look="act" size="hand" disabled={isBusy || noted.length === 0 || (needsReason && because.trim() === '')} onClick={book}>
          Book {plural(ready.length, 'sale')}
          {open.length > 0 && <small>without {plural(open.length, 'row')}</small>}
        </Button>
      </div>
      <Problem>{problem === null ? null : sentenceOf(problem)}</Problem>
    </section>
  )
}

function Lists({ lists }: Pick<SalesView, 'lists'>) {
  const { unbookSales } = useSalesWrites()
  const format = useFormat()
  const [problem, setProblem] = useState<unknown>(null)
  if (lists.length === 0) return null
  return (
    <section aria-label="Taken in" className="sale-lists">
      <h2>Taken in</h2>
      <ul>
        {lists.map(({ id, bookedAtMs, staffName, rows, fish, isTakenBack }) => (
          <li key={id}>
            <span>
              {format.moment(bookedAtMs)}: {plural(fish, 'fish', 'fish')} in {plural(rows, 'row')} <small>{staffName}</small>
            </span>
            {isTakenBack ? <span className="aside-word">taken back</span> : <Button onClick={() => void unbookSales(id).then(() => setProblem(null), setProblem)}>take it back</Button>}
          </li>
        ))}
      </ul>
      <Problem>{problem === null ? null : sentenceOf(problem)}</Problem>
    </section>
  )
}

