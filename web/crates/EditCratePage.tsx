import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import type { CrateView, LineView } from '../../core/crates/crateView'
import { ApiProblem, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { FormProblem } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { fromLocalMoment, toLocalMoment } from '../ui/localMoment'
import { Trouble, Waiting } from '../ui/PageState'
import { RuleRefusal, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { StaleChoice } from '../ui/StaleChoice'
import { useFormat } from '../ui/useFormat'
import { useGoOn } from '../ui/useGoOn'
import { useVersionedForm } from '../ui/useVersionedForm'
import { HeadFields, type TypedHead } from './HeadFields'
import { draftOfLine, emptyLine, readDraft, type LineDraft } from './lineDraft'
import { LineFields } from './LineFields'
import { useCrate, useCrateEdits } from './useCrates'
import './crates.css'

/** A crate's head and lines, changed by hand. Each part is saved on its own. */
export function EditCratePage() {
  const { crateId = '' } = useParams()
  const { crate, problem } = useCrate(crateId)
  const [isAdding, setIsAdding] = useState(false)
  if (!crate) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the crate" />
  return (
    <>
      <Lead title={`Change crate ${crate.number}`} aside={<Link to={`/crates/${crate.id}`}>back to the crate</Link>}>
        Fish and bags of a line stay as they are once one of its bags was opened; everything else can be corrected at any time.
      </Lead>
      <CrateHeadForm crate={crate} />
      <h2>Lines</h2>
      <ul className="record-list edit-lines">
        {crate.lines.map((line) => (
          <li key={line.id} className="record">
            <EditLine crate={crate} line={line} />
          </li>
        ))}
        {isAdding && (
          <li className="record">
            <AddLine crate={crate} onDone={() => setIsAdding(false)} />
          </li>
        )}
      </ul>
      {!isAdding && (
        <Button onClick={() => setIsAdding(true)}>
          Add a line
        </Button>
      )}
    </>
  )
}

const staleFields = [['species', 'species'], ['count', 'fish'], ['origin', 'origin'], ['strain', 'strain'], ['identity', 'identity'], ['promisedTo', 'promised to'], ['billed', 'billed'], ['sizeCm', 'size'], ['priceEach', 'price of one'], ['capture', 'capture'], ['ateBefore', 'seen eating'], ['note', 'note']] as const

type Head = Pick<CrateView, 'supplier' | 'expectedAtMs' | 'packedAtMs' | 'carrier' | 'note' | 'version'>

function CrateHeadForm({ crate }: { crate: CrateView }) {
  const { timeZone } = useSession()
  const format = useFormat()
  const goOn = useGoOn()
  const { editCrate } = useCrateEdits(crate.id)
  const typedOf = ({ supplier, packedAtMs, expectedAtMs, carrier, note }: Head) => ({ supplier, carrier: carrier ?? '', packed: toLocalMoment(packedAtMs, timeZone), expected: toLocalMoment(expectedAtMs, timeZone), note: note ?? '' })
  const { form, submit, stale, isBusy } = useVersionedForm<Head, TypedHead>({
    row: crate,
    toFields: typedOf,
    write: async ({ supplier, packed, expected, carrier, note }, version) => {
      await editCrate({ supplier, packedAtMs: fromLocalMoment(packed, timeZone), expectedAtMs: fromLocalMoment(expected, timeZone), carrier: carrier.trim() || null, note: note.trim() || null, version })
      goOn(`/crates/${crate.id}`)
    },
  })
  const moment = (atMs: number | null): string => (atMs === null ? '' : format.moment(atMs))
  const mine = form.getValues()
  return (
    <Form noValidate onSubmit={(event) => (event.preventDefault(), void submit())} className="entry-form">
      {stale && (
        <StaleChoice
          one="crate"
          fields={[
            { label: 'supplier', mine: mine.supplier, theirs: stale.theirs.supplier },
            { label: 'packed', mine: moment(fromLocalMoment(mine.packed, timeZone)), theirs: moment(stale.theirs.packedAtMs) },
            { label: 'expected', mine: moment(fromLocalMoment(mine.expected, timeZone)), theirs: moment(stale.theirs.expectedAtMs) },
            { label: 'carrier', mine: mine.carrier, theirs: stale.theirs.carrier ?? '' },
            { label: 'note', mine: mine.note, theirs: stale.theirs.note ?? '' },
          ]}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <HeadFields form={form} />
      <FormProblem form={form} />
      <Button type="submit" look="act" disabled={isBusy}>
        Save the crate
      </Button>
    </Form>
  )
}

/** Sends a line and says what stands in the way, by field where it is known. */
function useLineSending() {
  const [errors, setErrors] = useState<Partial<LineDraft>>({})
  const [problem, setProblem] = useState<string | null>(null)
  const [refused, setRefused] = useState<unknown>(null)
  const [stale, setStale] = useState<LineView | null>(null)
  const send = async (work: () => Promise<unknown>): Promise<boolean> => {
    setProblem(null)
    setRefused(null)
    try {
      await work()
      return true
    } catch (error) {
      const named = errorsByField(error)
      if (error instanceof ApiProblem && error.code === 'stale') setStale(error.current as LineView)
      else if (ruleRefusalOf(error)) setRefused(error)
      else if (named) setErrors(named)
      else setProblem(sentenceOf(error))
      return false
    }
  }
  return { errors, setErrors, problem, refused, stale, setStale, send }
}

function EditLine({ crate, line }: { crate: CrateView; line: LineView }) {
  const bags = crate.bags.filter((bag) => bag.lineId === line.id)
  const [draft, setDraft] = useState<LineDraft | null>(null)
  const [version, setVersion] = useState(line.version)
  const { editLine, removeLine } = useCrateEdits(crate.id)
  const { errors, setErrors, problem, refused, stale, setStale, send } = useLineSending()
  const isOpened = bags.some((bag) => bag.record !== null)
  const open = (): void => {
    setDraft(draftOfLine(line, bags))
    setVersion(line.version)
    setErrors({})
  }
  const save = async (asVersion: number, against: AgainstRule | null = null): Promise<void> => {
    const read = readDraft(draft ?? emptyLine)
    if (!read.ok) return setErrors(read.errors)
    if (await send(() => editLine(line.id, { ...read.line, override: against?.override ?? null, version: asVersion } as never))) setDraft(null)
  }
  return (
    <>
      <Button look="bare" className="person-line" aria-expanded={draft !== null} onClick={() => (draft ? setDraft(null) : open())}>
        <strong>{line.species}</strong>
        <span>
          {line.count} in {bags.length} {bags.length === 1 ? 'bag' : 'bags'}
          {[line.strain, line.origin, line.promisedTo && `promised to ${line.promisedTo}`].filter(Boolean).map((word) => `, ${word}`)}
        </span>
      </Button>
      {draft && stale && (
        <StaleChoice
          one="line"
          fields={staleFields.map(([field, label]) => ({ label, mine: draft[field], theirs: String(stale[field] ?? '') }))}
          onMine={() => {
            setStale(null)
            setVersion(stale.version)
            void save(stale.version)
          }}
          onTheirs={() => {
            setStale(null)
            setVersion(stale.version)
            setDraft(draftOfLine(stale, bags))
          }}
        />
      )}
      {draft && (
        <div className="entry-form">
          <LineFields draft={draft} errors={errors} onChange={setDraft} />
          <RuleRefusal problem={refused} onAgain={(against) => void save(version, against)} />
          <Problem>{problem}</Problem>
          <div className="entry-buttons">
            <Button disabled={stale !== null} onClick={() => void save(version)}>
              Save the line
            </Button>
            {!isOpened && (
              <Button look="quiet" onClick={() => void send(() => removeLine(line.id, { version }))}>
                take this line off
              </Button>
            )}
          </div>
        </div>
      )}
    </>
  )
}

function AddLine({ crate, onDone }: { crate: CrateView; onDone: () => void }) {
  const [draft, setDraft] = useState<LineDraft>(emptyLine)
  const { addLine } = useCrateEdits(crate.id)
  const { errors, setErrors, problem, refused, send } = useLineSending()
  const save = async (against: AgainstRule | null = null): Promise<void> => {
    const read = readDraft(draft)
    if (!read.ok) return setErrors(read.errors)
    if (await send(() => addLine({ ...read.line, override: against?.override ?? null }))) onDone()
  }
  return (
    <div className="entry-form">
      <LineFields draft={draft} errors={errors} onChange={setDraft} />
      <RuleRefusal problem={refused} onAgain={(against) => void save(against)} />
      <Problem>{problem}</Problem>
      <div className="entry-buttons">
        <Button onClick={() => void save()}>
          Add this line
        </Button>
        <Button look="quiet" onClick={onDone}>
          leave it
        </Button>
      </div>
    </div>
  )
}
