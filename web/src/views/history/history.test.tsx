import '../../../tests/setup'
import type { Change, HistoryPage } from '@ypsometer/contract'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { outbox } from '../../api/app'
import { queryClient } from '../../api/cache'
import { units } from '../../settings/settings'
import { History } from './History'

const MODEL = '20000000-0000-4000-8000-000000000001'
let asked: string[] = []
let pages: readonly HistoryPage[] = []
let undo: { status: number; body: unknown } = { status: 200, body: { undone: true } }
const change = (id: number, more: Partial<Change> = {}): Change => ({
  ...{ id, at: `2026-11-2${id % 7}T10:0${id % 10}:00Z`, who: { id: 'e', name: 'Edda' }, action: 'changed' },
  ...{ resource: 'claims', rowId: '30000000-0000-4000-8000-000000000001', name: 'rated-flow' },
  ...{ before: { value: 300 / 3.6e6 }, after: { value: 320 / 3.6e6 } },
  ...{ undoes: null, undoneBy: null, undoable: true },
  ...more,
})

beforeEach(() => {
  asked = []
  queryClient.clear()
  units.set('metric')
  undo = { status: 200, body: { undone: true } }
  globalThis.fetch = jest.fn(async (url: string, init: RequestInit = {}) => {
    asked.push(`${init.method ?? 'GET'} ${url.replace('/api/v1', '')}`)
    const before = Number(new URL(url, 'http://x').searchParams.get('before') ?? 0)
    const page = pages[pages.findIndex((p) => p.next === before) + 1] ?? pages[0]
    const body = url.includes('/undo')
      ? undo.body
      : url.includes('/history')
        ? page
        : { items: [], next: null }
    const status = url.includes('/undo') ? undo.status : 200
    return {
      ok: status < 400,
      status,
      statusText: '',
      headers: new Headers(),
      json: async () => body,
    } as Response
  }) as typeof fetch
})
afterEach(() => {
  cleanup()
  outbox.setWriter({ id: 'e', name: 'Edda', visitor: false, reads: false })
})

const show = (query = '') =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/history${query}`]}>
        <History />
      </MemoryRouter>
    </QueryClientProvider>,
  )
const items = async (): Promise<HTMLElement[]> => screen.findAllByRole('listitem')

test('each change says who did what to which row, and the fields as they were and became', async () => {
  pages = [{ items: [change(9)], next: null }]
  show(`?model=${MODEL}`)
  const [first] = await items()
  // 1 L/h is 1/3.6e6 m³/s.
  expect(first?.textContent).toMatch(/Edda changed claim Rated flowvalue300 L\/h → became320 L\/h/)
  expect(asked.some((a) => a.includes(`model=${MODEL}`))).toBe(true)
})

test('in the reader’s units; a deletion or a return has no fields; the program itself is nobody', async () => {
  units.set('us')
  pages = [
    {
      items: [
        change(9, {
          before: { value: 3.785411784e-3 / 3600 },
          after: { value: 2 * (3.785411784e-3 / 3600) },
        }),
        change(8, { action: 'deleted', before: {}, after: {}, who: null }),
        change(7, { action: 'restored', before: {}, after: {}, undoes: 8 }),
      ],
      next: null,
    },
  ]
  show()
  const [flow, deleted, restored] = await items()
  // The US gallon is 231 cubic inches of 25.4 mm, by definition: 3.785411784 L.
  expect(flow?.textContent).toMatch(/1 US gal\/h → became2 US gal\/h/)
  expect(deleted?.textContent).toMatch(/The program deleted claim/)
  expect(restored?.textContent).toMatch(/Edda undid: restored claim/)
})

test('by the day, newest first; more is read when it is asked for', async () => {
  pages = [
    {
      items: [change(9, { at: '2026-11-26T10:00:00Z' }), change(8, { at: '2026-11-25T10:00:00Z' })],
      next: 8,
    },
    { items: [change(7, { at: '2026-11-25T09:00:00Z' })], next: null },
  ]
  show()
  await items()
  expect(screen.getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual([
    'Thursday, 26 November 2026',
    'Wednesday, 25 November 2026',
  ])
  fireEvent.click(screen.getByRole('button', { name: 'Earlier' }))
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(3))
  expect(asked.at(-1)).toContain('before=8')
  expect(screen.queryByRole('button', { name: 'Earlier' })).toBeNull()
})

test('a change is taken back under a key; what stands against it is said beside it', async () => {
  pages = [{ items: [change(9), change(8, { undoable: false, undoneBy: 9 })], next: null }]
  show()
  const [first, second] = await items()
  expect(second?.textContent).toMatch(/undone since/)
  expect(within(second as HTMLElement).queryByRole('button')).toBeNull()
  undo = {
    status: 409,
    body: { type: '', title: 'It was changed again since', status: 409, code: 'changed-since', detail: 'The field value holds something else by now.' }, // prettier-ignore
  }
  fireEvent.click(within(first as HTMLElement).getByRole('button', { name: /^Undo/ }))
  expect((await screen.findByRole('alert')).textContent).toBe('The field value holds something else by now.')
  undo = { status: 200, body: { undone: true } }
  fireEvent.click(within(first as HTMLElement).getByRole('button', { name: /^Undo/ }))
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull())
  expect(asked.filter((a) => a === 'POST /history/9/undo')).toHaveLength(2)
})

test('a reader sees it all and takes nothing back', async () => {
  outbox.setWriter({ id: 'r', name: 'Rune', visitor: false, reads: true })
  pages = [{ items: [change(9)], next: null }]
  show()
  await items()
  expect(screen.queryByRole('button', { name: /^Undo/ })).toBeNull()
})

test('a row is led to its own history; where nothing was changed, that is said', async () => {
  pages = [{ items: [change(9)], next: null }]
  const shown = show()
  const [first] = await items()
  expect(
    within(first as HTMLElement)
      .getByRole('link')
      .getAttribute('href'),
  ).toBe(`/history?row=${change(9).rowId}`)
  shown.unmount()
  queryClient.clear()
  pages = [{ items: [], next: null }]
  show(`?row=${change(9).rowId}`)
  expect(await screen.findByText(/No changes yet/)).toBeTruthy()
})
