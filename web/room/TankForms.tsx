import { yupResolver } from '@hookform/resolvers/yup'
import { useId, useState, type ReactNode } from 'react'
import { Form } from 'react-bootstrap'
import { useForm, useWatch, type DefaultValues, type FieldValues, type Path, type PathValue, type Resolver, type UseFormReturn } from 'react-hook-form'
import type { AnyObject, ObjectSchema } from 'yup'
import { addFishSchema, type additions, type CorrectCount, correctCountSchema, recordLossSchema, renameLotSchema } from '../../core/ledger/ledger.schema'
import { lossCauses } from '../../core/ledger/movement'
import type { Pool } from '../../core/pools/poolsOf'
import type { TankView } from '../../core/room/roomView'
import type { MoveLine } from '../../core/moves/moveWords'
import { ApiProblem } from '../api/ApiProblem'
import { useLossHints, useNames } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { FormField, FormProblem } from '../ui/FormField'
import { LossHints } from '../ui/LossHints'
import { LotChoice } from '../ui/LotChoice'
import { RuleRefusal, type AgainstRule } from '../ui/RuleRefusal'
import { useRuleSubmit } from '../ui/useRuleSubmit'
import type { TankWrites } from './useRoom'

interface Props {
  tank: TankView
  pool: Pool
  writes: TankWrites
  onDone: () => void
}

/** A form of one entry: its fields, when it happened, and what the server says beside them. */
function EntryForm<T extends FieldValues>({ form, label, onDone, write, children }: { form: UseFormReturn<T>; label: string; onDone: () => void; write: (values: T, against: AgainstRule | null) => Promise<unknown>; children: ReactNode }) {
  const { refused, submit } = useRuleSubmit(form, write, onDone)
  return (
    <Form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), void submit(null))}>
      <div className="field-row">{children}</div>
      <FormProblem form={form} />
      <RuleRefusal problem={refused} mayRescue onAgain={(against) => void submit(against)} />
      <div className="entry-buttons">
        <Button type="submit" look="act" disabled={form.formState.isSubmitting}>
          {label}
        </Button>
        <Button look="quiet" onClick={onDone}>
          leave it
        </Button>
      </div>
    </Form>
  )
}

/** A form over a command's schema. The moment is left out of it: the write stamps it. */
function useEntryForm<T extends FieldValues>(schema: ObjectSchema<AnyObject>, defaultValues: T): UseFormReturn<T> {
  return useForm<T>({ resolver: yupResolver(schema.omit(['happenedAtMs'])) as unknown as Resolver<T>, defaultValues: defaultValues as DefaultValues<T> })
}

/** Fish of a kind, of whichever lot. */
const nobodyKnows = ({ speciesId, strain }: Pool) => ({ speciesId, strain, lotIds: [] as string[] })

/** Whoever knows the lot says so. */
function WhichLots<T extends FieldValues & { lotIds?: string[] | undefined }>({ form, pool }: { form: UseFormReturn<T>; pool: Pool }) {
  const chosen = useWatch({ control: form.control, name: 'lotIds' as Path<T> }) as string[]
  return <LotChoice pool={pool} chosen={chosen} onChange={(lotIds) => form.setValue('lotIds' as Path<T>, lotIds as PathValue<T, Path<T>>)} />
}

/** Some fish are lost. */
export function LossForm({ tank, pool, writes, onDone }: Props) {
  const form = useEntryForm(recordLossSchema, { ...nobodyKnows(pool), quantity: 1, cause: 'found dead' as (typeof lossCauses)[number], note: '' })
  return (
    <EntryForm form={form} label="Record the loss" onDone={onDone} write={(values) => writes.recordLoss({ ...values, note: values.note || null, happenedAtMs: null })}>
      <FormField form={form} name="quantity" label="How many" inputMode="numeric" autoFocus />
      <FormField form={form} name="cause" label="Cause" options={lossCauses} />
      <FormField form={form} name="note" label="Note" hint="what was seen" />
      <WhichLots form={form} pool={pool} />
      <HintsOfTank code={tank.code} />
    </EntryForm>
  )
}

/** What losses here look like, while somebody writes one down. */
function HintsOfTank({ code }: { code: string }) {
  const hints = useLossHints(code)
  return hints && hints.lost + hints.hints.length > 0 ? <LossHints hints={hints} /> : null
}

/** The fish were counted and the books are wrong. */
export function CountForm({ pool, writes, onDone }: Props) {
  const form = useEntryForm(correctCountSchema, { ...nobodyKnows(pool), expected: pool.quantity, counted: pool.quantity, reason: '' })
  // Somebody else's entry may change the books under the form; a count goes against what stood there when it began, or was told since.
  const [seen, setSeen] = useState(pool.quantity)
  const write = (values: Omit<CorrectCount, 'happenedAtMs'>): Promise<unknown> =>
    writes.correctCount({ ...values, expected: seen, happenedAtMs: null }).catch((error: unknown) => {
      if (error instanceof ApiProblem && error.code === 'stale') setSeen((error.current as { quantity: number }).quantity)
      throw error
    })
  return (
    <EntryForm form={form} label="Set the books right" onDone={onDone} write={write}>
      <FormField form={form} name="counted" label="Counted" inputMode="numeric" autoFocus hint={`the books say ${pool.quantity}`} />
      <FormField form={form} name="reason" label="Reason" hint="why the books were wrong, as far as known" />
      <WhichLots form={form} pool={pool} />
    </EntryForm>
  )
}

/** A lot is something else than it was taken for; the place says what that means. */
export function RenameForm({ pool, writes, onDone, onTell }: Props & { onTell: (lines: MoveLine[]) => void }) {
  const names = useNames('species')
  const id = useId()
  const [lotId, setLotId] = useState<string>(pool.lots[0].lotId)
  const form = useEntryForm(renameLotSchema, { species: '', strain: pool.strain ?? '', note: '' })
  const write = ({ strain, note, ...values }: { species: string; strain: string | null; note: string | null }): Promise<unknown> =>
    writes.renameLot(lotId, { ...values, strain: strain || null, note: note || null, happenedAtMs: null }).then(({ lines }) => onTell(lines))
  return (
    <EntryForm form={form} label="Name them" onDone={onDone} write={write}>
      {pool.lots.length > 1 && (
        <ChoiceField label="Lot" value={lotId} onChange={setLotId}>
          {pool.lots.map((lot) => (
            <option key={lot.lotId} value={lot.lotId}>
              {lot.lotCode}, {lot.quantity}
            </option>
          ))}
        </ChoiceField>
      )}
      <FormField form={form} name="species" label="They are" list={id} autoFocus />
      <datalist id={id}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <FormField form={form} name="strain" label="Strain" />
      <FormField form={form} name="note" label="Why" hint="what showed it" />
    </EntryForm>
  )
}

/** Fish that came by no crate. */
export function AddForm({ writes, onDone }: Pick<Props, 'writes' | 'onDone'>) {
  const form = useEntryForm(addFishSchema, { species: '', quantity: 1, how: 'born' as (typeof additions)[number], note: '' })
  const options = [
    { value: 'born', label: 'born here' },
    { value: 'brought-in', label: 'already here, or brought in' },
  ]
  return (
    <EntryForm form={form} label="Begin a lot" onDone={onDone} write={(values) => writes.addFish({ ...values, note: values.note || null, happenedAtMs: null })}>
      <FormField form={form} name="species" label="Species" autoFocus autoComplete="off" />
      <FormField form={form} name="quantity" label="How many" inputMode="numeric" />
      <FormField form={form} name="how" label="Where from" options={options} />
      <FormField form={form} name="note" label="Note" />
    </EntryForm>
  )
}
