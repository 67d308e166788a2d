import { Link, useParams, useSearchParams } from 'react-router'
import { registerApi } from '../../core/setup/setup.api'
import { isRegisterName, registers, type RegisterField, type RegisterName, type RegisterRow } from '../../core/setup/registers'
import { useRegister } from '../api/sharedReads'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { TextField, Tick } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { Table } from '../ui/Table'
import { useUnits, type Units } from '../ui/useUnits'
import { useReferenceNames, type ReferenceNames } from './useReferenceNames'
import { useBookChanges } from './useSetup'
import { unitOf } from './registerForm'
import './setup.css'

/** A list that a lead keeps: search, sort, open a row, files out and in. */
export function RegisterPage() {
  const { register = '' } = useParams()
  return isRegisterName(register) ? <RegisterList key={register} register={register} /> : <Nothing>There is no such list.</Nothing>
}

function RegisterList({ register }: { register: RegisterName }) {
  const { title, about, one } = registers[register]
  const { recorder } = useSession()
  const { rows, problem } = useRegister(register)
  const names = useReferenceNames(register)
  const units = useUnits()
  const [search, setSearch] = useSearchParams()
  const set = (name: string, value: string): void => {
    const next = new URLSearchParams(search)
    if (value) next.set(name, value)
    else next.delete(name)
    setSearch(next, { replace: true })
  }
  if (!rows) return problem ? <Trouble problem={problem} /> : <Waiting what={title.toLowerCase()} />
  const isLead = recorder.role === 'lead'
  const retired = rows.filter((row) => row.retiredAtMs !== null).length
  const shown = chosenRows(register, rows, search, names, units)
  return (
    <>
      <Lead title={title} aside={isLead ? <Actions register={register} /> : undefined}>
        {about}
      </Lead>
      {register === 'species' && isLead && <BookOffer />}
      <div className="list-tools">
        <TextField label={`search ${title.toLowerCase()}`} isLabelHidden type="search" placeholder="search" value={search.get('q') ?? ''} onChange={(words) => set('q', words)} />
        {retired > 0 && <Tick isSwitch label={`show ${retired} retired`} isOn={search.get('retired') === 'yes'} onChange={(isOn) => set('retired', isOn ? 'yes' : '')} />}
        <span className="aside-word">{plural(shown.length, one, one === 'species' ? 'species' : `${one}s`)}</span>
      </div>
      {rows.length === 0 ? <Empty register={register} /> : <Rows register={register} rows={shown} names={names} units={units} sort={search.get('sort') ?? ''} onSort={(sort) => set('sort', sort)} isLead={isLead} />}
    </>
  )
}

/** The shipped book grew since these species were taken from it: what it would change, to be looked at first. */
function BookOffer() {
  const { rows } = useBookChanges()
  if (!rows || rows.length === 0) return null
  return (
    <Notice>
      The shipped book says more, or other, of {plural(rows.length, 'species', 'species')} kept here. <Link to="/setup/book/changes">See what it would change</Link>; what you wrote yourselves stays.
    </Notice>
  )
}

function Actions({ register }: { register: RegisterName }) {
  return (
    <span className="list-actions">
      {register === 'systems' && <ButtonLink to="/setup/rack">Add a rack</ButtonLink>}
      {register === 'species' && <ButtonLink to="/setup/book">From the book</ButtonLink>}
      <ButtonLink to={`/setup/${register}/new`}>
        Add
      </ButtonLink>
      <ButtonLink href={registerApi(register).csv.path} download>
        CSV out
      </ButtonLink>
      <ButtonLink to={`/setup/${register}/import`}>
        CSV in
      </ButtonLink>
    </span>
  )
}

function Empty({ register }: { register: RegisterName }) {
  if (register === 'systems' || register === 'tanks') return <Nothing>None yet. <Link to="/setup/rack">Add a system with its tanks</Link>: the codes are made by pattern.</Nothing>
  if (register === 'species') return <Nothing>None yet. <Link to="/setup/book">Take those you keep from the book</Link>; others come by themselves with a packing list.</Nothing>
  return <Nothing>None yet. <Link to={`/setup/${register}/new`}>Add the first</Link>, or take a file in.</Nothing>
}

/** Rows that match the search, in the order asked for. */
function chosenRows(register: RegisterName, rows: RegisterRow[], search: URLSearchParams, names: ReferenceNames, units: Units): RegisterRow[] {
  const words = (search.get('q') ?? '').trim().toLowerCase()
  const field = registers[register].fields.find(({ name }) => name === (search.get('sort') ?? '').replace(/^-/, ''))
  const sign = search.get('sort')?.startsWith('-') ? -1 : 1
  const kept = rows.filter((row) => (row.retiredAtMs === null || search.get('retired') === 'yes') && (words === '' || registers[register].fields.some((each) => shownValue(each, row, names, units).toLowerCase().includes(words))))
  return field ? kept.sort((a, b) => sign * compare(a.values[field.name], b.values[field.name], () => shownValue(field, a, names, units).localeCompare(shownValue(field, b, names, units)))) : kept
}

const compare = (a: unknown, b: unknown, byText: () => number): number => {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1
  return typeof a === 'number' && typeof b === 'number' ? a - b : byText()
}

function shownValue(field: RegisterField, row: RegisterRow, names: ReferenceNames, units: Units): string {
  const value = row.values[field.name]
  if (value === null || value === undefined) return ''
  if (field.kind === 'reference') return names(field.register, String(value))
  if (Array.isArray(value)) return value.join(', ')
  return field.kind === 'measure' && field.quantity ? units.figure(field.quantity, Number(value)) : String(value)
}

interface RowsProps {
  register: RegisterName
  rows: RegisterRow[]
  names: ReferenceNames
  units: Units
  sort: string
  onSort: (sort: string) => void
  isLead: boolean
}

function Rows({ register, rows, names, units, sort, onSort, isLead }: RowsProps) {
  const { fields, key } = registers[register]
  const columns = fields.filter((field) => field.isInTable)
  if (rows.length === 0) return <Nothing>Nothing here is like this.</Nothing>
  return (
    <Table responsive className="register-table">
      <thead>
        <tr>
          {columns.map((field) => (
            <th key={field.name} scope="col" className={isFigure(field) ? 'number' : undefined} aria-sort={sort === field.name ? 'ascending' : sort === `-${field.name}` ? 'descending' : undefined}>
              <Button look="bare" className="sort-button" onClick={() => onSort(sort === field.name ? `-${field.name}` : field.name)}>
                {field.label} {unitOf(field, units) && <small>{unitOf(field, units)}</small>}
                {sort === field.name ? ' ↑' : sort === `-${field.name}` ? ' ↓' : ''}
              </Button>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id} className={row.retiredAtMs === null ? undefined : 'is-retired'}>
            {columns.map((field) => {
              const text = shownValue(field, row, names, units)
              const content = field.name === key ? <Link to={`/setup/${register}/${row.id}`} aria-label={isLead ? `edit ${text}` : text}>{text}</Link> : text
              return field.name === key ? (
                <th key={field.name} scope="row" className={field.name === 'code' ? 'is-code' : undefined}>
                  {content} {row.retiredAtMs !== null && <small>retired</small>}
                </th>
              ) : (
                <td key={field.name} className={isFigure(field) ? 'number' : undefined}>
                  {content}
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </Table>
  )
}

const isFigure = (field: RegisterField): boolean => field.kind === 'whole' || field.kind === 'measure'
