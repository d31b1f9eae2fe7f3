import { zodResolver } from '@hookform/resolvers/zod'
import { useForm } from 'react-hook-form'
import { z } from 'zod'
import { useEntries } from '../api/app'
import { signIn } from '../api/people'
import { Glyph } from './Glyph'
import { FormEnd } from './FormEnd'
import { against } from './problemForm'
import { SecretField } from './SecretFields'
import { Heading } from './Heading'

const Fields = z.object({
  name: z.string().trim().min(1, 'your name here'),
  password: z.string().min(1, 'your password'),
})
type Fields = z.infer<typeof Fields>

/** The way in. */
export function SignIn({ again }: { readonly again: boolean }) {
  const kept = useEntries().length
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<Fields>({ resolver: zodResolver(Fields), defaultValues: { name: '', password: '' } })
  const submit = handleSubmit(async ({ name, password }) => {
    await against(['password'], setError, () => signIn(name, password))
  })
  return (
    <main className="grid min-h-screen place-items-center px-4 py-8">
      <form onSubmit={(e) => void submit(e)} noValidate className="w-full max-w-sm space-y-4">
        <p className="flex items-center gap-2 text-[1.15rem] font-bold tracking-tight">
          <Glyph /> Ypsometer
        </p>
        <Heading>{again ? 'Sign in to go on' : 'Sign in'}</Heading>
        {again && (
          <p role="status">
            Your session has ended.{' '}
            {kept === 0
              ? 'Everything you typed had reached the server.'
              : `${kept === 1 ? 'One entry is' : `${kept} entries are`} kept on this device and sent when you are back.`}
          </p>
        )}
        <SecretField label="Name" kind="username" error={errors.name} registered={register('name')} />
        <SecretField
          label="Password"
          kind="current-password"
          error={errors.password}
          registered={register('password')}
        />
        <FormEnd error={errors.root?.message} busy={isSubmitting}>
          Sign in
        </FormEnd>
        <p className="muted text-[0.88rem]">
          Forgotten? An owner can make you a one-time link. On the server itself: <code>npm run people</code>{' '}
          does.
        </p>
      </form>
    </main>
  )
}
