import '../../tests/setup'
import { modelRecord, type Dossier } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { startTrial } from '../trials/startTrial'
import { QueryClientProvider } from '@tanstack/react-query'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { demoDossier } from '../../tests/dossier'
import { toasts } from '../frame/toastStore'
import { removeRow } from '../frame/removed'
import { outbox } from './app'
import { queryClient, startWriting } from './cache'
import { useDossier } from './dossier'
import { useTanks } from './lists'
import { addPhoto, changeRow, createRow } from './rows'

/** A server that knows one dossier and answers writes; `away` cuts it off. */
let away = false
const server = demoDossier('Ledger 700')
const sent: [method: string, path: string, body: unknown][] = []
const answerTo = (method: string, path: string, body: Record<string, unknown>): [number, unknown] => {
  if (method === 'GET') {
    if (path === `/models/${server.model.id}/dossier`) return [200, server]
    if (path.startsWith('/tanks')) return [200, { items: [], next: null }]
    return [404, { status: 404, title: 'not here', code: 'not-found' }]
  }
  const [, collection = '', id = ''] = path.split('/')
  if (path.includes('/photos'))
    return [
      201,
      {
        id: new URLSearchParams(path.split('?')[1]).get('id'),
        partId: id,
        version: 1,
        deletedAt: null,
        width: 10,
        height: 10,
        caption: '',
      },
    ]
  const known = (server as unknown as Record<string, { id: string }[]>)[collection]
  const row = Array.isArray(known)
    ? known.find((r) => r.id === id)
    : collection === 'models' && id === server.model.id
      ? server.model
      : {}
  return [
    method === 'POST' ? 201 : 200,
    {
      ...row,
      ...body,
      version: method === 'POST' ? 1 : 2,
      deletedAt: method === 'DELETE' ? '2026-11-25' : null,
    },
  ]
}

beforeAll(() => {
  startWriting(() => undefined)
  globalThis.fetch = jest.fn(async (url: string, init: RequestInit = {}) => {
    if (away) throw new TypeError('network')
    const path = url.replace('/api/v1', '')
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as Record<string, unknown>) : {}
    if (init.method !== 'GET')
      sent.push([init.method ?? 'GET', path, init.body instanceof Blob ? 'blob' : body])
    const [status, json] = answerTo(init.method ?? 'GET', path, body)
    return { ok: status < 400, status, statusText: '', json: async () => json } as Response
  }) as typeof fetch
})
beforeEach(async () => {
  away = false
  queryClient.clear()
  window.dispatchEvent(new Event('online'))
  await waitFor(() => expect(outbox.held.get().mine).toHaveLength(0))
  sent.length = 0
})
afterEach(cleanup)

const wrapper = ({ children }: { readonly children: React.ReactNode }) => (
  <QueryClientProvider client={queryClient}>{children}</QueryClientProvider>
)
const open = async (id = server.model.id) => {
  const hook = renderHook(() => useDossier(id), { wrapper })
  if (id === server.model.id)
    await waitFor(() => expect(hook.result.current.dossier?.claims.length).toBeGreaterThan(0))
  return hook
}
const settled = (): Promise<void> =>
  waitFor(() => expect(outbox.held.get().mine).toHaveLength(0), { timeout: 4000 })

test('a change shows at once, before the server has said anything, and stays when it has', async () => {
  const { result } = await open()
  away = true
  const row = result.current.dossier?.model
  if (!row) throw new Error('no model')
  act(() => changeRow('models', row, { note: 'mine' }))
  expect(result.current.dossier?.model.note).toBe('mine')
  away = false
  window.dispatchEvent(new Event('online'))
  await settled()
  expect(result.current.dossier?.model).toMatchObject({ note: 'mine', version: 2 })
})

test('a new timing and its runs hang together while neither has reached the server', async () => {
  const { result } = await open()
  away = true
  const trialId = createRow('trials', { modelId: server.model.id, state: 'empty' })
  act(
    () =>
      void createRow('readings', { trialId, seconds: 30, volume: 0.005, takenAt: '2026-11-25T10:00:00Z' }),
  )
  const mine = () => result.current.dossier?.readings.filter((r) => r.trialId === trialId)
  expect(mine()).toHaveLength(1)
  away = false
  window.dispatchEvent(new Event('online'))
  await settled()
  expect(sent.map((s) => s[1])).toEqual(['/trials', '/readings'])
  expect(mine()).toHaveLength(1)
})

test('rows of another model stay out of this dossier', async () => {
  const { result } = await open()
  const before = result.current.dossier?.claims.length
  act(() => void createRow('claims', { modelId: 'another', quantity: 'noise', value: 30 }))
  expect(result.current.dossier?.claims).toHaveLength(before ?? -1)
  await settled()
  expect(result.current.dossier?.claims).toHaveLength(before ?? -1)
})

test('a model made a moment ago opens before the server knows it, and after', async () => {
  away = true
  const id = createRow('models', { maker: 'Quillon', name: 'Kettle', kind: 'internal' })
  const { result } = await open(id)
  expect(result.current.dossier?.model.name).toBe('Kettle')
  expect(result.current.dossier?.parts).toEqual([])
  away = false
  window.dispatchEvent(new Event('online'))
  await settled()
  expect(result.current.dossier?.model).toMatchObject({ name: 'Kettle', version: 1 })
})

test('deleting a timing takes its runs out of sight and offers an undo that brings it back', async () => {
  const { result } = await open()
  const trial = result.current.dossier?.trials[0]
  if (!trial) throw new Error('no trial')
  act(() => removeRow('trials', trial, 'Timing'))
  expect(result.current.dossier?.readings.some((r) => r.trialId === trial.id)).toBe(false)
  const toast = toasts.get().at(-1)
  expect(toast).toMatchObject({ text: 'Timing deleted.', action: { label: 'Undo' } })
  await settled()
  act(() => toast?.action?.run())
  await settled()
  expect(sent.map((s) => [s[0], s[1]])).toEqual([
    ['DELETE', `/trials/${trial.id}`],
    ['POST', `/trials/${trial.id}/restore`],
  ])
  expect(result.current.dossier?.trials.some((t) => t.id === trial.id)).toBe(true)
})

test('a photo follows its part as a file and shows under it while it waits', async () => {
  const { result } = await open()
  away = true
  const partId = server.parts[0]?.id ?? ''
  const id = addPhoto({ partId }, new Blob(['x'], { type: 'image/jpeg' }), 'seal')
  await waitFor(() => expect(result.current.dossier?.photos.map((p) => p.id)).toEqual([id]))
  expect(outbox.held.get().mine[0]).toMatchObject({ blob: expect.any(Blob) as Blob })
})

test('tanks are in the order of their names, waiting ones among them', async () => {
  away = true
  const { result } = renderHook(() => useTanks(), { wrapper })
  queryClient.setQueryData(['tanks'], { items: [{ id: 'b', name: 'Beta' }, { id: 'd', name: 'Delta' }], next: null }) // prettier-ignore
  act(() => void createRow('tanks', { name: 'Alpha' }))
  await waitFor(() => expect(result.current.tanks?.map((t) => t.name)).toEqual(['Alpha', 'Beta', 'Delta']))
})

test('a model made from its label and benched before the server has answered has a whole curve', async () => {
  away = true
  const modelId = createRow('models', { maker: 'Quillon', name: 'Offline', kind: 'canister' })
  const { result } = await open(modelId)
  const dossier = (): Dossier => result.current.dossier as Dossier
  // By hand, H = 1.8 m (1 − (Q/1000 L/h)^1.75), of which the water keeps v²/2g in its outlet of 16 mm: lifts that leave
  // 1000, 847.5, 673.4 and 453.3 L/h.
  for (const [lift, flow] of [
    [0, 970.57],
    [0.3826, 847.5],
    [0.8548, 673.4],
    [1.3292, 453.3],
  ] as const)
    act(() => {
      const trialId = startTrial(dossier(), 'vessel', { lift })
      for (let i = 0; i < 3; i++)
        createRow('readings', {
          trialId,
          takenAt: new Date(Date.UTC(2026, 10, 25, 10, i)).toISOString(),
          volume: 0.005,
          seconds: (5 / flow) * 3600 + 0.05 * (i - 1),
        })
    })
  expect(dossier().model.mainsFrequency).toBe(50)
  const fit = assess(modelRecord(dossier())).pump?.fitFigures
  expect(fit?.shutOff.value).toBeCloseTo(1.8, 1)
  expect((fit?.maxFlow.value ?? NaN) * 3.6e6).toBeCloseTo(1000, -1)
})

test('an answer asked for before a write and given after it does not put the old state in its place', async () => {
  const usual = globalThis.fetch
  const note = (text: string): Dossier => ({
    ...server,
    model: { ...server.model, version: text ? 2 : 1, note: text },
  })
  let release = (): void => undefined
  let asked = 0
  globalThis.fetch = jest.fn(async (url: string, init: RequestInit = {}) => {
    if (init.method === 'GET' && url.endsWith('/dossier')) {
      const first = ++asked === 1
      if (first) await new Promise<void>((r) => (release = r))
      return { ok: true, status: 200, json: async () => note(first ? '' : 'written meanwhile') } as Response
    }
    return usual(url, init)
  }) as typeof fetch
  const { result } = renderHook(() => useDossier(server.model.id), {
    wrapper: ({ children }) => <QueryClientProvider client={queryClient}>{children}</QueryClientProvider>,
  })
  await waitFor(() => expect(asked).toBe(1))
  act(() => changeRow('models', server.model, { note: 'written meanwhile' }))
  await waitFor(() => expect(outbox.held.get().mine).toHaveLength(0))
  await act(async () => release())
  await waitFor(() => expect(result.current.dossier?.model.note).toBe('written meanwhile'))
  await act(async () => void (await new Promise((r) => setTimeout(r, 50))))
  expect(result.current.dossier?.model.note).toBe('written meanwhile')
  globalThis.fetch = usual
})
