import { yupResolver } from '@hookform/resolvers/yup'
import { Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { firstLeadSchema } from '../../core/staff/staff.schema'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { submitInto } from '../ui/submitInto'
import { Doorstep } from './Doorstep'
import type { SessionActions } from './useSessionView'

/** Makes the room and its first lead. */
export default function FirstStartPage({ createFirstLead }: Pick<SessionActions, 'createFirstLead'>) {
  const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone
  const form = useForm({ resolver: yupResolver(firstLeadSchema), defaultValues: { roomName: '', name: '', passphrase: '', pin: '', timeZone } })
  return (
    <Doorstep title="A new room">
      <p>You are the first here. A lead opens devices with a passphrase and records with a PIN; others are added later.</p>
      <Form noValidate onSubmit={form.handleSubmit((values) => submitInto(form, () => createFirstLead(values)))}>
        <FormField form={form} name="roomName" label="Name of the room" autoFocus autoComplete="organization" />
        <FormField form={form} name="name" label="Your name" autoComplete="username" />
        <FormField form={form} name="passphrase" label="Passphrase" type="password" autoComplete="new-password" hint="At least 10 characters. It opens the room on a tablet or phone." />
        <FormField form={form} name="pin" label="PIN" type="password" inputMode="numeric" autoComplete="off" hint="4 to 8 digits. It says that it is you who is recording." />
        <FormField form={form} name="timeZone" label="Time zone of the room" />
        <FormProblem form={form} />
        <Button type="submit" look="act" disabled={form.formState.isSubmitting}>
          Make the room
        </Button>
      </Form>
    </Doorstep>
  )
}
