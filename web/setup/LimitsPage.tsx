import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { groupBy } from '../../core/collections/groupBy'
import { houseLimits, type ChangeLimit, type HouseLimit, type LimitView } from '../../core/limits/houseLimits'
import { useSession } from '../api/session'
import { useHouseLimits } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { readingResolver, type Reading } from '../ui/readingResolver'
import { StaleChoice } from '../ui/StaleChoice'
import { useFormat } from '../ui/useFormat'
import { readNumber } from '../ui/useUnits'
import { useVersionedForm } from '../ui/useVersionedForm'
import { useChangeLimit } from './useSetup'
import './setup.css'

const groupTitles = { holding: 'Holding and watching', arriving: 'Arriving', 'tank choice': 'Choosing tanks', acclimating: 'Acclimating', oxygen: 'Oxygen while acclimating', rounds: 'Rounds', kitchen: 'Feed kitchen', outcomes: 'Outcomes' } as const

/** Every number that is judgement and no law of nature: what it is, where it comes from, who changed it. */
export function LimitsPage() {
  const { limits: all, problem } = useHouseLimits()
  const [open, setOpen] = useState<string | null>(null)
  if (!all) return problem ? <Trouble problem={problem} /> : <Waiting what="the limits" />
  return (
    <>
      <Lead title="House limits">Guidance of this house, no prescriptions: each with its source. Change one where you know better, and say why.</Lead>
      {[...groupBy(all, ({ key }) => houseLimits[key].group)].map(([group, limits]) => (
        <section key={group} className="setup-section">
          <h2>{groupTitles[group]}</h2>
          <ul className="record-list">
            {limits.map((limit) => (
              <li key={limit.key} className="record limit">
                <LimitLine limit={limit} isOpen={open === limit.key} onOpen={() => setOpen(open === limit.key ? null : limit.key)} />
                {open === limit.key && <LimitForm limit={limit} onDone={() => setOpen(null)} />}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  )
}

function LimitLine({ limit, isOpen, onOpen }: { limit: LimitView; isOpen: boolean; onOpen: () => void }) {
  const format = useFormat()
  const { label, unit, about, standard }: HouseLimit = houseLimits[limit.key]
  return (
    <Button look="bare" className="limit-line" aria-expanded={isOpen} onClick={onOpen}>
      <span>
        <strong>{label}</strong>
        <small>{about}</small>
      </span>
      <span className="limit-value">
        <strong>{limit.value}</strong> {unit}
      </span>
      <small className="limit-source">
        {limit.source}
        {limit.changedBy !== null && limit.changedAtMs !== null && ` (${limit.changedBy}, ${format.day(limit.changedAtMs)}; standard ${standard})`}
      </small>
    </Button>
  )
}

type TypedLimit = Record<'value' | 'source', string>

function LimitForm({ limit, onDone }: { limit: LimitView; onDone: () => void }) {
  const changeLimit = useChangeLimit()
  const { recorder } = useSession()
  const { label, unit, min, max }: HouseLimit = houseLimits[limit.key]
  const read = ({ value, source }: TypedLimit): Reading<Omit<ChangeLimit, 'version'>> => {
    const figure = readNumber(value)
    if (figure >= min && figure <= max) return { ok: true, values: { value: figure, source: source.trim() || null } }
    return { ok: false, errors: { value: `${label} must be between ${min} and ${max} ${unit}`.trim() } }
  }
  const { form, submit, stale, isBusy } = useVersionedForm({
    row: limit,
    toFields: ({ value, source }) => ({ value: String(value), source }),
    resolver: () => readingResolver(read),
    write: (body, version) => changeLimit(limit, label, { ...body, version }).then(onDone),
  })
  const mine = form.getValues()
  if (recorder.role !== 'lead') return null
  return (
    <Form noValidate onSubmit={(event) => (event.preventDefault(), void submit())} className="entry-form">
      {stale && (
        <StaleChoice
          one="limit"
          fields={[{ label, mine: mine.value, theirs: String(stale.theirs.value) }, { label: 'source', mine: mine.source, theirs: stale.theirs.source }]}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <div className="field-row">
        <FormField form={form} name="value" label={label} unit={unit} inputMode="decimal" hint={`${min} to ${max}`} autoFocus />
        <FormField form={form} name="source" label="Where it comes from" />
      </div>
      <FormProblem form={form} />
      <Button type="submit" look="act" disabled={isBusy}>
        Save the limit
      </Button>
    </Form>
  )
}
