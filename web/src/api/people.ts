import type { Me, PassMade, PassSeen, PersonRow, Role, SessionRow } from '@ypsometer/contract'
import { queryOptions, useQuery } from '@tanstack/react-query'
import { outbox } from './app'
import type { Writer } from './outboxPolicy'
import { api, noteComing, onTurnedAway } from './client'
import { queryClient } from './cache'

const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: ({ signal }) => api<Me>('/me', { signal }),
  staleTime: 60_000,
  refetchOnWindowFocus: true,
  // Until it is known, nothing is sent.
  refetchInterval: ({ state }) => (state.data ? false : 3000),
})
/** Who is here, as the server has it. */
export const useMe = () => useQuery(meQuery)
/** Writer where nobody is signed in. */
const NOBODY: Me = { person: null, by: null, unowned: false }

/** Tells the outbox who writes, and shows the way in when the server turns this page away. */
export function followMe(): void {
  outbox.setWriter(null)
  onTurnedAway((somebodyElse) => {
    // Another window knows who is here now; this one asks.
    if (somebodyElse) void queryClient.invalidateQueries({ queryKey: ['me'] })
    else queryClient.setQueryData(['me'], NOBODY)
    void forgetAnswers()
  })
  queryClient.getQueryCache().subscribe(({ query }) => {
    if (query.queryKey[0] !== 'me') return
    const me = query.state.data as Me | undefined
    if (me) outbox.setWriter(writerOf(me))
  })
  void queryClient.prefetchQuery(meQuery)
}

const writerOf = ({ person, by }: Me): Writer | null =>
  person && { id: person.id, name: person.name, visitor: by === 'visitor', reads: person.role === 'reader' }

/** Answers kept on this device are not for whoever comes next. */
async function forgetAnswers(): Promise<void> {
  if (!('caches' in window)) return
  const kept = (await caches.keys()).filter((n) => n.startsWith('ypsometer-answers-'))
  await Promise.all(kept.map((n) => caches.delete(n)))
}

/** Somebody has come in: everything is read again as they may see it. */
async function cameIn(me: Me): Promise<void> {
  noteComing()
  await queryClient.cancelQueries({ queryKey: ['me'] })
  queryClient.setQueryData(['me'], me)
  await queryClient.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'me' })
}

/** Signs in. @throws ApiProblem where name and password do not go together, or there were too many tries. */
export const signIn = async (name: string, password: string): Promise<void> =>
  cameIn(await api<Me>('/session', { method: 'POST', body: { name, password } }))

/** Makes the first owner of a bench that nobody owns. */
export const becomeOwner = async (name: string, password: string): Promise<void> =>
  cameIn(await api<Me>('/people/first', { method: 'POST', body: { name, password } }))

/** Signs out: what was read goes from this device; what was not sent stays, for the same person. */
export async function signOut(): Promise<void> {
  await api('/session', { method: 'DELETE' })
  await forgetAnswers()
  queryClient.removeQueries({ predicate: (q) => q.queryKey[0] !== 'me' })
  // Asked before, it would still say who was here.
  await queryClient.cancelQueries({ queryKey: ['me'] })
  await queryClient.fetchQuery({ ...meQuery, staleTime: 0 })
}

/** Purpose of a one-time link. Its secret stands after the # of the address, which no server sees. */
export const lookAtPass = (secret: string): Promise<PassSeen> =>
  api<PassSeen>('/passes/look', { method: 'POST', body: { secret } })
export const takePass = async (secret: string, password: string): Promise<void> =>
  cameIn(await api<Me>('/passes/use', { method: 'POST', body: { secret, password } }))

const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: ({ signal }) => api<{ items: PersonRow[] }>('/people', { signal }),
})
export const usePeople = () => useQuery(peopleQuery)
const sessionsQuery = queryOptions({
  queryKey: ['sessions'],
  queryFn: ({ signal }) => api<{ items: SessionRow[] }>('/sessions', { signal }),
  staleTime: 0,
})
export const useSessions = () => useQuery(sessionsQuery)

const again = (...keys: string[]): Promise<unknown> =>
  Promise.all(keys.map((key) => queryClient.invalidateQueries({ queryKey: [key] })))

/** Invites somebody; the secret of the link is told this once. */
export async function invite(name: string, role: Role): Promise<PassMade> {
  const made = await api<PassMade>('/people', { method: 'POST', body: { name, role } })
  await again('people')
  return made
}
/** A new one-time link for somebody who is here already. */
export const newLink = (id: string): Promise<PassMade> =>
  api<PassMade>(`/people/${id}/link`, { method: 'POST' })
export async function changePerson(
  id: string,
  body: { readonly name?: string; readonly role?: Role },
): Promise<void> {
  await api(`/people/${id}`, { method: 'PATCH', body })
  await again('people', 'me')
}
export async function removePerson(id: string): Promise<void> {
  await api(`/people/${id}`, { method: 'DELETE' })
  await again('people', 'me')
}
/** Ends all sessions of somebody. */
export async function endSessionsOf(id: string): Promise<void> {
  await api(`/people/${id}/sessions`, { method: 'DELETE' })
  await again('people', 'me')
}
/** Ends one of one’s own sessions. */
export async function endSession(id: string): Promise<void> {
  await api(`/sessions/${id}`, { method: 'DELETE' })
  await again('sessions', 'me')
}
export const changePassword = (password: string, next: string): Promise<unknown> =>
  api('/me/password', { method: 'POST', body: { password, next } })

/** The key of a new link to the calendar; it is told this once. */
export const makeCalendarKey = async (): Promise<string> =>
  (await api<{ key: string }>('/upkeep/link', { method: 'POST' })).key
