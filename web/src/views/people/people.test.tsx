import '../../../tests/setup'
import type { Me, PersonRow, Problem } from '@ypsometer/contract'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { queryClient } from '../../api/cache'
import { Door } from '../../frame/Door'
import { People } from './People'
import { agentWords } from './words'

interface Sent {
  readonly method: string
  readonly path: string
  readonly body: unknown
}
const sent: Sent[] = []
let answers: (s: Sent) => { readonly status?: number; readonly body: unknown } | undefined
const ORLA = { id: '10000000-0000-4000-8000-000000000001', name: 'Orla', role: 'owner' } as const
const owner: Me = { person: ORLA, by: 'session', unowned: false }
const visitor: Me = {
  person: { id: '00000000-0000-4000-8000-000000000001', name: 'Demo editor', role: 'editor' },
  by: 'visitor',
  unowned: true,
}
const person = (more: Partial<PersonRow>): PersonRow => ({
  ...{
    id: '10000000-0000-4000-8000-000000000002',
    name: 'Edda',
    role: 'editor',
    createdAt: '2026-11-01T10:00:00Z',
  },
  ...{ joined: true, seenAt: '2026-11-26T09:30:00Z', sessions: 2 },
  ...more,
})
const EVERYONE = [
  person({ ...ORLA, sessions: 1 }),
  person({}),
  person({ id: '10000000-0000-4000-8000-000000000003', name: 'Rune', role: 'reader', joined: false, seenAt: null, sessions: 0 }), // prettier-ignore
]
const SESSIONS = [
  { id: 's1', createdAt: '', seenAt: '2026-11-26T09:30:00Z', endsAt: '', address: '10.0.0.1', agent: 'Mozilla/5.0 (X11; Linux x86_64) Firefox/140', here: true }, // prettier-ignore
  { id: 's2', createdAt: '', seenAt: '2026-11-25T08:00:00Z', endsAt: '', address: '10.0.0.2', agent: 'Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Safari/605', here: false }, // prettier-ignore
]
const refuse = (status: number, code: string, more: Partial<Problem> = {}) => ({
  status,
  body: { type: `urn:ypsometer:${code}`, title: 'No', status, code, ...more },
})

beforeEach(() => {
  sent.length = 0
  queryClient.clear()
  answers = () => undefined
  globalThis.fetch = jest.fn(async (url: string, init: RequestInit = {}) => {
    const s = {
      method: init.method ?? 'GET',
      path: url.replace('/api/v1', ''),
      body: typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
    }
    if (s.method !== 'GET') sent.push(s)
    const usual: Readonly<Record<string, unknown>> = {
      'GET /me': owner,
      'GET /people': { items: EVERYONE },
      'GET /sessions': { items: SESSIONS },
    }
    const { status = 200, body } = answers(s) ?? { body: usual[`${s.method} ${s.path}`] ?? null }
    return {
      ok: status < 400,
      status,
      statusText: '',
      headers: new Headers(),
      json: async () => body,
    } as Response
  }) as typeof fetch
})
afterEach(cleanup)

const show = (view = <People />) =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>{view}</MemoryRouter>
    </QueryClientProvider>,
  )
const fill = (label: string | RegExp, value: string): unknown =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }))
const rowOf = async (name: string): Promise<HTMLElement> =>
  screen.findByRole('row', { name: new RegExp(`^${name}`) })

describe('looking after people', () => {
  test('an owner sees who is here, when they were, and who has not come in yet', async () => {
    show()
    expect((await rowOf('Edda')).textContent).toMatch(/2 sessions/)
    expect((await rowOf('Orla')).textContent).toMatch(/\(you\)/)
    const rune = await rowOf('Rune')
    expect(rune.textContent).toMatch(/invited, not here yet/)
    expect(within(rune).getByRole('button', { name: /End all sessions/ })).toHaveProperty('disabled', true)
  })
  test('an editor sees names and roles, and no way to change them', async () => {
    answers = (s) =>
      s.path === '/me' ? { body: { ...owner, person: { ...ORLA, role: 'editor' } } } : undefined
    show()
    const edda = await rowOf('Edda')
    expect(within(edda).queryAllByRole('button')).toHaveLength(0)
    expect(within(edda).queryByRole('combobox')).toBeNull()
    expect(screen.queryByText('Invite somebody')).toBeNull()
  })
  test('an invitation gives a link that is shown this once, with its secret after the #', async () => {
    answers = (s) =>
      s.path === '/people' && s.method === 'POST'
        ? {
            status: 201,
            body: { person: person({ name: 'Nils' }), secret: 'SECRET', endsAt: '2026-11-28T10:00:00Z' },
          }
        : undefined
    show()
    await rowOf('Edda')
    fill('Their name', 'Nils')
    fireEvent.change(screen.getByLabelText('Role'), { target: { value: 'reader' } })
    press('Make the link')
    const link = (await screen.findByRole('textbox', { name: /For Nils alone/ })) as HTMLInputElement
    expect(new URL(link.value)).toMatchObject({ pathname: '/join', hash: '#SECRET', search: '' })
    expect(sent).toEqual([{ method: 'POST', path: '/people', body: { name: 'Nils', role: 'reader' } }])
    press('Done')
    expect(screen.queryByDisplayValue(/SECRET/)).toBeNull()
  })
  test('a name that is taken is said beside its field, and what was typed stays', async () => {
    answers = (s) =>
      s.method === 'POST'
        ? refuse(409, 'invalid-field', {
            errors: [{ field: 'name', message: 'a name that nobody here has' }],
          })
        : undefined
    show()
    await rowOf('Edda')
    press('Make the link')
    expect((await screen.findByRole('alert')).textContent).toMatch(/at least one character/)
    expect(sent).toEqual([])
    fill('Their name', 'Edda')
    press('Make the link')
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('a name that nobody here has'))
    expect((screen.getByLabelText('Their name') as HTMLInputElement).value).toBe('Edda')
  })
  test('nobody is removed by one press; a refusal is said in words', async () => {
    answers = (s) =>
      s.method === 'DELETE'
        ? refuse(409, 'last-owner', { detail: 'Make somebody else an owner first.' })
        : undefined
    show()
    await rowOf('Orla')
    press('Remove Orla …')
    expect(sent).toEqual([])
    press('Keep')
    press('Remove Orla …')
    press('Remove Orla')
    expect((await screen.findByRole('alert')).textContent).toBe('Make somebody else an owner first.')
    expect(sent.map((s) => [s.method, s.path])).toEqual([['DELETE', `/people/${ORLA.id}`]])
  })
  test('a role is changed by choosing it', async () => {
    show()
    await rowOf('Edda')
    fireEvent.change(screen.getByLabelText('Role of Edda'), { target: { value: 'reader' } })
    await waitFor(() => expect(sent[0]).toMatchObject({ method: 'PATCH', body: { role: 'reader' } }))
  })
})

describe('oneself', () => {
  test('sessions are told apart by browser and address; the others can be ended, this one is signed out', async () => {
    show()
    const phone = (await screen.findByText(/iPhone/)).closest('li') as HTMLElement
    const here = screen.getByText(/Firefox, Linux/).closest('li') as HTMLElement
    expect(here.textContent).toMatch(/here, now/)
    expect(within(here).queryByRole('button')).toBeNull()
    fireEvent.click(within(phone).getByRole('button', { name: 'Sign out this device' }))
    await waitFor(() => expect(sent).toEqual([{ method: 'DELETE', path: '/sessions/s2', body: undefined }]))
  })
  test('a new password that is short is refused before anything is sent; a wrong present one by the server', async () => {
    answers = (s) =>
      s.path === '/me/password'
        ? refuse(422, 'invalid-field', { errors: [{ field: 'password', message: 'your present password' }] })
        : undefined
    show()
    await rowOf('Edda')
    fill('Present password', 'whatever it was')
    fill('New password', 'short')
    press('Change it')
    await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/at least 12 characters/))
    expect(sent).toEqual([])
    fill('New password', 'kelp tundra violin 8')
    press('Change it')
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('your present password'))
  })
  test('a password can be looked at, and is known to what fills passwords in', async () => {
    show()
    await rowOf('Edda')
    const field = screen.getByLabelText('New password') as HTMLInputElement
    expect([field.type, field.autocomplete]).toEqual(['password', 'new-password'])
    fireEvent.click(screen.getAllByRole('button', { name: 'Show' })[1] as HTMLElement)
    expect(field.type).toBe('text')
  })
  test.each([
    ['Mozilla/5.0 (Windows NT 10.0) AppleWebKit Chrome/140 Safari/537 Edg/140', 'Edge, Windows'],
    ['Mozilla/5.0 (Linux; Android 16) Chrome/140 Mobile', 'Chrome, Android'],
    ['Mozilla/5.0 (Macintosh; Intel Mac OS X 15) Safari/605', 'Safari, Mac'],
    ['curl/8', 'A program'],
    ['', 'A program'],
  ])('the browser %s is told as %s', (agent, words) => expect(agentWords(agent)).toBe(words))
})

describe('a bench without an owner', () => {
  beforeEach(() => {
    answers = (s) => (s.path === '/me' ? { body: visitor } : undefined)
  })
  test('says who one is, what roles may do, and how to own it', async () => {
    show()
    expect((await screen.findByText('Demo editor')).textContent).toBe('Demo editor')
    expect(screen.getAllByRole('term').map((t) => t.textContent)).toEqual(['Owner', 'Editor', 'Reader'])
    expect(screen.queryByText('Everyone')).toBeNull()
  })
  test('the first owner is made; a password that is soon guessed is refused beside its field', async () => {
    answers = (s) => {
      if (s.path === '/people/first' && (s.body as { password: string }).password === 'password1234')
        return refuse(422, 'invalid-field', { errors: [{ field: 'password', message: 'harder to guess' }] })
      if (s.path === '/people/first') return { status: 201, body: owner }
      return s.path === '/me' ? { body: visitor } : undefined
    }
    show()
    await screen.findByRole('heading', { name: 'Create the owner account' })
    fill('Your name', ' Orla ')
    fill('A password', 'password1234')
    press('Create the owner account')
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('harder to guess'))
    fill('A password', 'otter granite nine lamp')
    press('Create the owner account')
    expect(await screen.findByText('Everyone')).toBeTruthy()
    expect(sent.at(-1)?.body).toEqual({ name: 'Orla', password: 'otter granite nine lamp' })
  })
})

describe('the door', () => {
  const nobody: Me = { person: null, by: null, unowned: false }
  test('who is not signed in sees the way in and nothing behind it', async () => {
    answers = (s) => (s.path === '/me' ? { body: nobody } : undefined)
    show(<Door>the bench</Door>)
    expect(await screen.findByRole('heading', { name: 'Sign in' })).toBeTruthy()
    expect(screen.queryByText('the bench')).toBeNull()
  })
  test('whose session ends keeps the view behind the way in, out of reach, and is back in it', async () => {
    show(<Door>the bench</Door>)
    const bench = await screen.findByText('the bench')
    await waitFor(() => expect(queryClient.getQueryData(['me'])).toEqual(owner))
    queryClient.setQueryData(['me'], nobody)
    expect(await screen.findByRole('heading', { name: 'Sign in to go on' })).toBeTruthy()
    expect(bench.isConnected).toBe(true)
    expect(bench.hasAttribute('inert') || bench.closest('[inert]')).toBeTruthy()
    expect(screen.getByText(/Everything you typed had reached the server/)).toBeTruthy()

    answers = (s) =>
      s.path === '/session'
        ? (s.body as { password: string }).password === 'right one, this'
          ? { status: 201, body: owner }
          : refuse(401, 'wrong-sign-in', {
              errors: [{ field: 'password', message: 'the password of this name' }],
            })
        : undefined
    press('Sign in')
    await waitFor(() => expect(screen.getAllByRole('alert').map((a) => a.textContent)).toEqual(['your name here', 'your password'])) // prettier-ignore
    fill('Name', 'Orla')
    fill('Password', 'wrong')
    press('Sign in')
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('the password of this name'))
    fill('Password', 'right one, this')
    press('Sign in')
    await waitFor(() => expect(screen.queryByRole('heading')).toBeNull())
    expect(screen.getByText('the bench')).toBe(bench)
  })
  test('too many tries are said with how long to wait', async () => {
    answers = (s) =>
      s.path === '/me'
        ? { body: nobody }
        : s.path === '/session'
          ? refuse(429, 'too-many-tries', {
              title: 'Too many tries to sign in',
              detail: 'Try again in 14 min.',
            })
          : undefined
    show(<Door>the bench</Door>)
    await screen.findByRole('heading', { name: 'Sign in' })
    fill('Name', 'Orla')
    fill('Password', 'x')
    press('Sign in')
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Too many tries to sign in. Try again in 14 min.',
    )
  })
})
