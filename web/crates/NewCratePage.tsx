import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useForm, useWatch } from 'react-hook-form'
import type { CreateCrate } from '../../core/crates/crates.schema'
import { waterWords } from '../../core/crates/takeAlongCard'
import { ApiProblem } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { FormProblem } from '../ui/FormField'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { fromLocalMoment, toLocalMoment } from '../ui/localMoment'
import { RuleRefusal, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { submitInto } from '../ui/submitInto'
import { useGoOn } from '../ui/useGoOn'
import { useKept } from '../ui/useKept'
import { HeadFields, type TypedHead } from './HeadFields'
import { draftOfRead, emptyLine, readDraft, type LineDraft } from './lineDraft'
import { ListInput } from './ListInput'
import { NewLines, type NewLine } from './NewLines'
import { useCreateCrate, useFileLetter, type ListRead } from './useCrates'
import './crates.css'

interface Draft {
  lines: NewLine[]
  notices: string[]
  /** How the columns of the list were read, to be remembered for the supplier. */
  columns: ListRead['columns']
  /** What the list says of the sender's water and way, and which of several lists it is. */
  told?: CreateCrate['told']
}
/** Why a line goes where a rule is against it, by the line's id. */
type Reasons = Record<number, string>
const nothing: Draft = { lines: [], notices: [], columns: null }

const toldOf = (head: ListRead['head']): CreateCrate['told'] => (head && (head.water || head.method || head.part) ? { water: head.water, method: head.method, part: head.part } : null)

/** What the sender says of their water, and that there are more lists. */
function headNotices(head: ListRead['head']): string[] {
  if (!head) return []
  const water = head.water ? waterWords(head.water) : ''
  return [...(water ? [`Their water: ${water}. It stands for what this supplier usually ships in.`] : []), ...(head.method ? [`They suggest: ${head.method}.`] : []), ...(head.part && head.part.of > 1 ? [`This is part ${head.part.n} of ${head.part.of}: the other parts add their lines to the same crate.`] : [])]
}

/** From a packing list, or by hand, to a crate in the books: lines, tanks, take it in. Half of it survives a reload. */
export function NewCratePage() {
  const { timeZone } = useSession()
  const [kept, keep] = useKept<Draft>('crate.newCrate')
  const { lines, notices, columns, told = null } = kept ?? nothing
  const [showsErrors, setShowsErrors] = useState(false)
  const form = useForm<TypedHead>({ defaultValues: { supplier: '', expected: '', packed: '', carrier: '', note: '' } })
  const createCrate = useCreateCrate()
  const [refused, setRefused] = useState<unknown>(null)
  const [reasons, setReasons] = useState<Reasons>({})
  const [letterId, setLetterId] = useState<string | null>(null)
  const fileLetter = useFileLetter()
  const goOn = useGoOn()
  const supplier = useWatch({ control: form.control, name: 'supplier' })

  const takeList = (list: ListRead | null): void => {
    if (!list) return
    keep({ lines: list.lines.map((line) => ({ id: line.row, draft: draftOfRead(line), isNewSpecies: line.isNewSpecies, couldBe: line.couldBe, isOpen: false, told: line.told })), notices: [...list.notices, ...headNotices(list.head)], columns: list.columns, told: toldOf(list.head) })
    setShowsErrors(false)
    const { head } = list
    if (head?.supplier) form.setValue('supplier', head.supplier)
    if (head?.packedAtMs) form.setValue('packed', toLocalMoment(head.packedAtMs, timeZone))
    if (head?.expectedAtMs) form.setValue('expected', toLocalMoment(head.expectedAtMs, timeZone))
    if (head?.note) form.setValue('note', head.note)
  }
  const setLines = (next: NewLine[]): void => keep({ lines: next, notices, columns, told })
  const addLine = (): void => setLines([...lines, { id: Math.max(0, ...lines.map(({ id }) => id)) + 1, draft: emptyLine, isNewSpecies: false, couldBe: [], isOpen: true }])

  const takeIn = (reasons: Reasons) => form.handleSubmit(async ({ supplier, expected, packed, carrier, note }) => {
    if (!supplier.trim()) return form.setError('supplier', { message: 'Supplier is missing' }, { shouldFocus: true })
    setRefused(null)
    const read = lines.map(({ draft }) => readDraft(draft))
    setShowsErrors(true)
    const ready = read.flatMap((each, index) => (each.ok ? [{ ...each.line, override: reasons[lines[index]?.id ?? -1] ?? null, told: lines[index]?.told ?? null }] : []))
    if (ready.length < lines.length) {
      setLines(lines.map((line, index) => ({ ...line, isOpen: line.isOpen || read[index]?.ok === false })))
      return form.setError('root', { message: `${plural(lines.length - ready.length, 'line')} cannot be taken in yet; see the fields marked` })
    }
    const listMapping = columns && { heading: columns.heading.map((cell) => cell.slice(0, 200) || null), mapping: columns.mapping }
    await submitInto(form, async () => {
      const { id } = await createCrate({ supplier, expectedAtMs: fromLocalMoment(expected, timeZone), packedAtMs: fromLocalMoment(packed, timeZone), carrier: carrier.trim() || null, note: note.trim() || null, lines: ready, listMapping: listMapping as never, told }).catch((problem: unknown) => {
        if (ruleRefusalOf(problem)) setRefused(problem)
        throw problem
      })
      keep(null)
      if (letterId) fileLetter(letterId)
      goOn(`/crates/${id}`)
    })
  })()
  // A refusal names its line; the reason for one stays while the next is asked.
  const decide = (against: AgainstRule | null): void => {
    const index = Number(/^lines\[(\d+)\]/.exec(refused instanceof ApiProblem ? (refused.errors[0]?.path ?? '') : '')?.[1] ?? -1)
    const next = against && lines[index] ? { ...reasons, [lines[index].id]: against.override } : reasons
    setReasons(next)
    void takeIn(next)
  }

  /** The crate stands here and nobody sent a list: its bags are counted first, and named when somebody knows them. */
  const takeInUnlisted = form.handleSubmit(async ({ supplier, expected, packed, carrier, note }) => {
    if (!supplier.trim()) return form.setError('supplier', { message: 'Supplier is missing' }, { shouldFocus: true })
    await submitInto(form, async () => {
      const { id } = await createCrate({ supplier, expectedAtMs: fromLocalMoment(expected, timeZone), packedAtMs: fromLocalMoment(packed, timeZone), carrier: carrier.trim() || null, note: note.trim() || null, lines: [], hasList: false } as never)
      goOn(`/crates/${id}/unpack`)
    })
  })

  return (
    <>
      <Lead title="New crate">{lines.length > 0 ? 'Look the lines over, choose tanks, then take the crate in.' : 'Give the packing list as a file, paste it, or type its lines. Nothing is in the books until you take the crate in.'}</Lead>
      <Form noValidate onSubmit={(event) => (event.preventDefault(), void takeIn(reasons))} className="crate-form">
        <HeadFields form={form} />
        <ListInput supplier={supplier} onRead={takeList} onLetter={setLetterId} />
        {notices.map((notice) => (
          <Notice key={notice}>
            {notice}
          </Notice>
        ))}
        <NewLines lines={lines} showsErrors={showsErrors} onChange={setLines} />
        <div className="entry-buttons">
          <Button onClick={addLine}>
            Add a line by hand
          </Button>
          {lines.length === 0 && (
            <Button disabled={form.formState.isSubmitting} onClick={() => void takeInUnlisted()}>
              No list: count it in
            </Button>
          )}
          {lines.length > 0 && (
            <Button look="quiet" onClick={() => keep(null)}>
              start over
            </Button>
          )}
        </div>
        {refused === null ? <FormProblem form={form} /> : <RuleRefusal problem={refused} onAgain={decide} />}
        {lines.length > 0 && (
          <Button type="submit" look="act" className="take-in" disabled={form.formState.isSubmitting}>
            Take in {plural(lines.length, 'line')}, {plural(lines.reduce((sum, { draft }) => sum + bagsOf(draft), 0), 'bag')}
          </Button>
        )}
      </Form>
    </>
  )
}

const bagsOf = (draft: LineDraft): number => (/^\d+$/.test(draft.bags.trim()) ? Number(draft.bags) : 0)
