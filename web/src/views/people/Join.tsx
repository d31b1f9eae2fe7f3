import { zodResolver } from '@hookform/resolvers/zod'
import { Password } from '@ypsometer/contract'
import { useQuery } from '@tanstack/react-query'
import { useForm } from 'react-hook-form'
import { z } from 'zod'
import { ApiProblem } from '../../api/client'
import { lookAtPass, takePass } from '../../api/people'
import { Glyph } from '../../frame/Glyph'
import { FormEnd } from '../../frame/FormEnd'
import { against } from '../../frame/problemForm'
import { SecretField } from '../../frame/SecretFields'
import { Loading } from '../../frame/States'
import { Heading } from '../../frame/Heading'

const Fields = z.object({ password: Password })
type Fields = z.infer<typeof Fields>
/** The secret of the link, which stands after the # and is never sent with an address. */
const SECRET = location.hash.slice(1)

const MAY = {
  owner: 'As an owner you write, and look after people.',
  editor: 'As an editor you can read and change everything.',
  reader: 'As a reader you can read everything and change nothing.',
} as const

/** Coming in by a one-time link: who it is for, and a password to choose. */
export function Join() {
  const { data: pass, error } = useQuery({
    queryKey: ['pass'],
    queryFn: () => lookAtPass(SECRET),
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<Fields>({ resolver: zodResolver(Fields), defaultValues: { password: '' } })
  const submit = handleSubmit(async ({ password }) => {
    const went = await against(['password'], setError, () => takePass(SECRET, password))
    // The page is left with the link, so that it is not in the way back.
    if (went) location.replace('/')
  })
  if (error)
    return (
      <Page>
        <Heading>{error instanceof ApiProblem ? error.problem.title : 'The server does not answer'}</Heading>
        <p>{error instanceof ApiProblem ? error.problem.detail : 'Try again in a while.'}</p>
        <p>
          <a href="/" className="link">
            Open the workspace
          </a>
        </p>
      </Page>
    )
  if (!pass) return <Loading />
  return (
    <Page>
      <Heading>
        {pass.purpose === 'recovery' ? `Welcome back, ${pass.name}` : `Welcome, ${pass.name}`}
      </Heading>
      <p>{MAY[pass.role]}</p>
      <form onSubmit={(e) => void submit(e)} noValidate className="space-y-4">
        {/* Known to what fills in passwords, so that it is kept under the right name. */}
        <input type="text" autoComplete="username" value={pass.name} readOnly hidden />
        <SecretField
          label="Choose a password"
          kind="new-password"
          hint="At least 12 characters: a few words that do not belong together are good."
          error={errors.password}
          registered={register('password')}
        />
        <FormEnd error={errors.root?.message} busy={isSubmitting}>
          Sign in
        </FormEnd>
        <p className="muted text-[0.88rem]">
          You sign in as “{pass.name}” from now on. This link holds once.
        </p>
      </form>
    </Page>
  )
}

const Page = ({ children }: { readonly children: React.ReactNode }) => (
  <main className="grid min-h-screen place-items-center px-4 py-8">
    <div className="w-full max-w-sm space-y-4">
      <p className="flex items-center gap-2 text-[1.15rem] font-bold tracking-tight">
        <Glyph /> Ypsometer
      </p>
      {children}
    </div>
  </main>
)
