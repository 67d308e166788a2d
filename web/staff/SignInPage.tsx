import { yupResolver } from '@hookform/resolvers/yup'
import { Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { signInSchema } from '../../core/staff/staff.schema'
import { Button } from '../ui/Button'
import { FormField, FormProblem, TickField } from '../ui/FormField'
import { Notice } from '../ui/Notice'
import { submitInto } from '../ui/submitInto'
import { Doorstep } from './Doorstep'
import type { SessionActions } from './useSessionView'

/** Opens this device for the room. */
export default function SignInPage({ roomName, waiting, signIn }: { roomName: string; waiting: number } & Pick<SessionActions, 'signIn'>) {
  const form = useForm({ resolver: yupResolver(signInSchema), defaultValues: { name: '', passphrase: '', closesOthers: false } })
  return (
    <Doorstep title={roomName}>
      <p>This device is not open yet. A lead opens it once with a passphrase; after that everybody records by PIN.</p>
      {waiting > 0 && <Notice>{waiting === 1 ? '1 entry made on this device is' : `${waiting} entries made on this device are`} kept and will be sent after signing in.</Notice>}
      {!window.isSecureContext && <Notice>Plain http: what is typed here can be read by others on this network. TLS (a certificate, see the operating notes) closes that.</Notice>}
      <Form noValidate onSubmit={form.handleSubmit((values) => submitInto(form, () => signIn(values)))}>
        <FormField form={form} name="name" label="Name" autoFocus autoComplete="username" />
        <FormField form={form} name="passphrase" label="Passphrase" type="password" autoComplete="current-password" />
        <TickField form={form} name="closesOthers" label="Close the other devices I opened" />
        <FormProblem form={form} />
        <Button type="submit" look="act" disabled={form.formState.isSubmitting}>
          Open this device
        </Button>
      </Form>
    </Doorstep>
  )
}
