import { useState } from 'react'
import { useForm, type FieldValues, type Resolver } from 'react-hook-form'
import { currentOf } from '../api/ApiProblem'
import { submitInto } from './submitInto'

interface Versioned<Row, T extends FieldValues, S> {
  /** The row as it now stands; null where it is a new one. */
  row: Row
  /** What stands in the fields for a row. */
  toFields: (row: Row) => T
  /** Checks what was typed, and reads it into what is sent, over the row that the form began with. */
  resolver?: (began: Row) => Resolver<T, unknown, S>
  /** Saves over this version; where the form stays open, it resolves with the version that the row then has. */
  write: (values: S, version: number) => Promise<{ version: number } | void>
  /** Part of the body that the fields stand in, if they do. */
  inside?: string
}

/**
 * A form of a row that others may change too: it is sent against the version that it began with. While nobody has
 * typed in it, it follows what others save. After that, what was saved before comes back as `stale`, with the two ways
 * on that `StaleChoice` offers: mine over it, or theirs into the form.
 */
export function useVersionedForm<Row extends { version: number } | null, T extends FieldValues, S = T>({ row, toFields, resolver, write, inside }: Versioned<Row, T, S>) {
  const [began, setBegan] = useState(row)
  const [version, setVersion] = useState(row?.version ?? 0)
  const [theirs, setTheirs] = useState<NonNullable<Row> | null>(null)
  const [isSending, setSending] = useState(false)
  const form = useForm<T, unknown, S>({ ...(resolver && { resolver: resolver(began) }), values: toFields(began) })
  const isBusy = isSending || theirs !== null
  // Asked at every drawing: the form keeps count of it only for who asks.
  const { isDirty } = form.formState
  const beginWith = (other: NonNullable<Row>): void => {
    setBegan(other)
    setVersion(other.version)
    setTheirs(null)
  }
  // Own saves too: what others then change back to is another row than the one last begun with.
  if (row && row.version > (began?.version ?? 0) && row.version >= version && !isDirty && !isBusy) beginWith(row)

  /** Any write of the row, such as retiring it. */
  const send = async (work: () => Promise<{ version: number } | void>): Promise<void> => {
    const answered = (saved: { version: number } | void): void => {
      if (!saved) return
      setVersion(saved.version)
      // What was saved counts as typed no more.
      form.reset(form.getValues())
    }
    setSending(true)
    await submitInto(form, () => work().then(answered, (error: unknown) => setTheirs(currentOf<NonNullable<Row>>(error))), inside)
    setSending(false)
  }
  const submit = (asVersion = version): Promise<void> => form.handleSubmit((values) => send(() => write(values, asVersion)))()
  const stale = theirs && {
    theirs,
    onMine: () => {
      setVersion(theirs.version)
      setTheirs(null)
      void submit(theirs.version)
    },
    onTheirs: () => {
      beginWith(theirs)
      // Said here too: what was changed and changed back is no other row to begin with.
      form.reset(toFields(theirs))
    },
  }
  return { form, began, submit, send, stale, isBusy }
}
