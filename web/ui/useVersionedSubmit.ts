import { useState } from 'react'
import type { FieldValues, UseFormReturn } from 'react-hook-form'
import { currentOf } from '../api/ApiProblem'
import { submitInto } from './submitInto'

interface Versioned<S, Row> {
  /** The version of the row when the form was opened. */
  opened: number
  /** Saves over this version; where the form stays open, it resolves with the row as it then is. */
  write: (values: S, version: number) => Promise<{ version: number } | void>
  /** Puts into the form what somebody else saved. */
  onTheirs: (theirs: Row) => void
  /** Part of the body that the fields stand in, if they do. */
  inside?: string
}

/**
 * Sends a form against the version it was opened with, whatever comes in meanwhile. What somebody else saved before
 * comes back as `stale`, with the two ways on that `StaleChoice` offers: mine over it, or theirs into the form.
 */
export function useVersionedSubmit<Row extends { version: number }, T extends FieldValues, S>(form: UseFormReturn<T, unknown, S>, { opened, write, onTheirs, inside }: Versioned<S, Row>) {
  const [version, setVersion] = useState(opened)
  const [theirs, setTheirs] = useState<Row | null>(null)
  const [isSending, setSending] = useState(false)

  /** Any write of the row, such as retiring it. */
  const send = async (work: () => Promise<{ version: number } | void>): Promise<boolean> => {
    setSending(true)
    const isAnswered = await submitInto(
      form,
      () =>
        work().then(
          (saved) => saved && setVersion(saved.version),
          (error: unknown) => setTheirs(currentOf<Row>(error)),
        ),
      inside,
    )
    setSending(false)
    return isAnswered
  }
  const submit = (asVersion = version): Promise<void> => form.handleSubmit(async (values) => void (await send(() => write(values, asVersion))))()
  const settle = (row: Row): void => {
    setVersion(row.version)
    setTheirs(null)
  }
  const stale = theirs && {
    theirs,
    onMine: () => (settle(theirs), void submit(theirs.version)),
    onTheirs: () => (settle(theirs), onTheirs(theirs)),
  }
  return { submit, send, version, setVersion, stale, isBusy: isSending || theirs !== null }
}
