import '../../tests/setup'
import type { Me } from '@ypsometer/contract'
import { api } from './client'
import { followMe, signIn, signOut } from './people'
import { queryClient } from './cache'

const edda: Me = { person: { id: 'e', name: 'Edda', role: 'editor' }, by: 'session', unowned: false }
const nobody: Me = { person: null, by: null, unowned: false }
/** Requests under way by their address, each with what answers it. */
const asked: { readonly path: string; readonly answer: (status: number, body: object) => Promise<void> }[] =
  []
const to = (path: string) => {
  const i = asked.findIndex((a) => a.path === path)
  const [one] = asked.splice(i, 1)
  if (i < 0 || !one) throw new Error(`${path} was not asked for`)
  return one
}
const me = (): Me['person'] | undefined => queryClient.getQueryData<Me>(['me'])?.person

beforeEach(() => {
  asked.length = 0
  queryClient.clear()
  globalThis.fetch = jest.fn(
    (url: string, init: { signal?: AbortSignal }) =>
      new Promise((done, broken) => {
        init.signal?.addEventListener('abort', () => broken(new DOMException('given up', 'AbortError')))
        asked.push({
          path: url.replace('/api/v1', ''),
          answer: async (status, body) => {
            done({ ok: status < 400, status, statusText: '', headers: new Headers(), json: async () => body } as Response) // prettier-ignore
            await new Promise((next) => setTimeout(next, 0))
          },
        })
      }),
  ) as typeof fetch
  followMe()
})
const SIGN_IN = { type: 'about:blank', title: 'Sign in first', status: 401, code: 'sign-in' }

test('who is asked when nobody was here yet does not turn away whoever has signed in since', async () => {
  await to('/me').answer(200, nobody)
  const shelf = api('/models').catch((e: unknown) => e)
  const signing = signIn('Edda', 'plum kettle')
  await to('/session').answer(200, edda)
  await signing
  expect(me()?.name).toBe('Edda')
  await to('/models').answer(401, SIGN_IN)
  await shelf
  expect(me()?.name).toBe('Edda')
})

test('an older answer to who is here does not take the place of a newer one', async () => {
  const old = to('/me')
  const signing = signIn('Edda', 'plum kettle')
  await to('/session').answer(200, edda)
  await signing
  await old.answer(200, nobody)
  expect(me()?.name).toBe('Edda')
})

test('whoever is turned away by what was asked since is out', async () => {
  await to('/me').answer(200, edda)
  const shelf = api('/models').catch((e: unknown) => e)
  await to('/models').answer(401, SIGN_IN)
  await shelf
  expect(me()).toBeNull()
})

test('nor does it leave anybody signed in who has signed out since', async () => {
  await to('/me').answer(200, edda)
  void queryClient.refetchQueries({ queryKey: ['me'] })
  const old = to('/me')
  const leaving = signOut()
  await to('/session').answer(204, {})
  await old.answer(200, edda)
  await to('/me').answer(200, nobody)
  await leaving
  expect(me()).toBeNull()
})
