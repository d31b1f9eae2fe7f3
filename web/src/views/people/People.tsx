import type { Me } from '@ypsometer/contract'
import { useMe } from '../../api/people'
import { Loading } from '../../frame/States'
import { FirstOwner } from './FirstOwner'
import { Everyone } from './Everyone'
import { You } from './You'
import { ROLE_MAY, ROLE_OPTIONS } from './words'
import { Heading } from '../../frame/Heading'

/** Who works on this bench: oneself, and everyone for an owner to look after. */
export function People() {
  const { data: me } = useMe()
  if (!me) return <Loading />
  return (
    <>
      <Heading>People</Heading>
      {me.by === 'visitor' ? <Unowned me={me} /> : <Owned me={me} />}
    </>
  )
}

function Owned({ me }: { readonly me: Me }) {
  return (
    <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-9 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <Everyone me={me} />
      <You me={me} />
    </div>
  )
}

/** A bench of this machine, without accounts. */
function Unowned({ me }: { readonly me: Me }) {
  return (
    <div className="mt-2 max-w-2xl space-y-5">
      <p>
        No accounts yet. Anyone at this computer can read and change everything, as{' '}
        <strong>{me.person?.name}</strong>.
      </p>
      <section aria-labelledby="roles-title">
        <h2 id="roles-title">With accounts</h2>
        <p className="mt-1">Once there is an owner, everyone signs in.</p>
        <dl className="mt-2 grid grid-cols-[6rem_1fr] gap-y-1">
          {ROLE_OPTIONS.map(([role, word]) => (
            <div key={role} className="contents">
              <dt className="font-bold">{word}</dt>
              <dd>{ROLE_MAY[role]}</dd>
            </div>
          ))}
        </dl>
      </section>
      {me.unowned && <FirstOwner />}
    </div>
  )
}
