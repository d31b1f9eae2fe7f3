import { lazy, Suspense, useState, type ReactNode } from 'react'
import { retryWhenBack } from '../api/retryWhenBack'
import { useMe } from '../api/people'

const SignIn = lazy(async () => ({ default: (await retryWhenBack(() => import('./SignIn'))).SignIn }))

/**
 * The app for whoever is signed in, and the way in for who is not. Somebody whose session ends keeps the view they were
 * in behind it, with everything they typed.
 */
export function Door({ children }: { readonly children: ReactNode }) {
  const { data: me } = useMe()
  const [been, setBeen] = useState(false)
  if (me?.person && !been) setBeen(true)
  const out = me !== undefined && me.person === null
  return (
    <>
      {(!out || been) && (
        <div inert={out} className={out ? 'hidden' : undefined}>
          {children}
        </div>
      )}
      {out && (
        <Suspense>
          <SignIn again={been} />
        </Suspense>
      )}
    </>
  )
}
