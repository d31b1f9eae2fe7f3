import { zodResolver } from '@hookform/resolvers/zod'
import { FirstOwner as Fields } from '@ypsometer/contract'
import { useForm } from 'react-hook-form'
import type { z } from 'zod'
import { becomeOwner } from '../../api/people'
import { FormEnd } from '../../frame/FormEnd'
import { against } from '../../frame/problemForm'
import { SecretField } from '../../frame/SecretFields'

/** Makes the first owner, who is signed in at once. */
export function FirstOwner() {
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<z.infer<typeof Fields>>({
    resolver: zodResolver(Fields),
    defaultValues: { name: '', password: '' },
  })
  const submit = handleSubmit(async ({ name, password }) => {
    await against(['name', 'password'], setError, () => becomeOwner(name, password))
  })
  return (
    <form onSubmit={(e) => void submit(e)} noValidate className="max-w-sm space-y-3" aria-label="First owner">
      <h2>Create the owner account</h2>
      <SecretField label="Your name" kind="username" error={errors.name} registered={register('name')} />
      <SecretField
        label="A password"
        kind="new-password"
        hint="At least 12 characters: a few words that do not belong together are good."
        error={errors.password}
        registered={register('password')}
      />
      <FormEnd error={errors.root?.message} busy={isSubmitting} small>
        Create the owner account
      </FormEnd>
    </form>
  )
}
