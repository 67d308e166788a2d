import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { groupBy } from '../../core/collections/groupBy'
import { houseLimits, type HouseLimit, type LimitView } from '../../core/limits/houseLimits'
import { currentOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useHouseLimits } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { StaleChoice } from '../ui/StaleChoice'
import { submitInto } from '../ui/submitInto'
import { useFormat } from '../ui/useFormat'
import { readNumber } from '../ui/useUnits'
import { useChangeLimit } from './useSetup'
import './setup.css'

const groupTitles = { holding: 'Holding and watching', arriving: 'Arriving', 'tank choice': 'Choosing tanks', acclimating: 'Acclimating', oxygen: 'Oxygen while acclimating' } as const

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

function LimitForm({ limit, onDone }: { limit: LimitView; onDone: () => void }) {
  const changeLimit = useChangeLimit()
  const { recorder } = useSession()
  const { label, unit, min, max }: HouseLimit = houseLimits[limit.key]
  const form = useForm({ defaultValues: { value: String(limit.value), source: limit.source } })
  const [version, setVersion] = useState(limit.version)
  const [stale, setStale] = useState<LimitView | null>(null)
  const saveAs = (asVersion: number) => form.handleSubmit(async ({ value, source }) => {
    const figure = readNumber(value)
    if (!(figure >= min && figure <= max)) return form.setError('value', { message: `${label} must be between ${min} and ${max} ${unit}`.trim() }, { shouldFocus: true })
    const body = { value: figure, source: source.trim() || null, version: asVersion }
    const change = changeLimit(limit, label, body)
    await submitInto(form, () => change.then(onDone, (error: unknown) => setStale(currentOf<LimitView>(error))))
  })()
  const mine = form.getValues()
  if (recorder.role !== 'lead') return null
  return (
    <Form noValidate onSubmit={(event) => (event.preventDefault(), void saveAs(version))} className="entry-form">
      {stale && (
        <StaleChoice
          one="limit"
          fields={[{ label, mine: mine.value, theirs: String(stale.value) }, { label: 'source', mine: mine.source, theirs: stale.source }]}
          onMine={() => {
            setStale(null)
            setVersion(stale.version)
            void saveAs(stale.version)
          }}
          onTheirs={onDone}
        />
      )}
      <div className="field-row">
        <FormField form={form} name="value" label={label} unit={unit} inputMode="decimal" hint={`${min} to ${max}`} autoFocus />
        <FormField form={form} name="source" label="Where it comes from" />
      </div>
      <FormProblem form={form} />
      <Button type="submit" look="act">
        Save the limit
      </Button>
    </Form>
  )
}
