import type { UseFormReturn } from 'react-hook-form'
import { useNames } from '../api/sharedReads'
import { FormField } from '../ui/FormField'

/** What is known of a crate as a whole, as it is typed. */
export interface TypedHead {
  supplier: string
  packed: string
  expected: string
  carrier: string
  note: string
}

/** The fields of a crate's head, new or known. */
export function HeadFields({ form }: { form: UseFormReturn<TypedHead> }) {
  const suppliers = useNames('suppliers')
  return (
    <>
      <div className="field-row">
        <FormField form={form} name="supplier" label="Supplier" list="suppliers" autoComplete="off" />
        <FormField form={form} name="packed" label="Packed" type="datetime-local" />
        <FormField form={form} name="expected" label="Expected" type="datetime-local" />
        <FormField form={form} name="carrier" label="Carrier" />
        <FormField form={form} name="note" label="Note" />
      </div>
      <datalist id="suppliers">
        {suppliers.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </>
  )
}
