import '../../tests/setup'
import { QueryClient } from '@tanstack/react-query'
import { followChanges } from './changes'
import { act, renderHook } from '@testing-library/react'
import { PAGE } from './client'
import { useOtherIn, useOthersAt, usePresence } from './presence'

class Source {
  static readonly all: Source[] = []
  onopen: (() => void) | null = null
  onmessage: ((e: { data: string }) => void) | null = null
  onerror: ((e: { target: { readyState: number } }) => void) | null = null
  static readonly CLOSED = 2
  closed = false
  constructor(readonly url: string) {
    Source.all.push(this)
  }
  close(): void {
    this.closed = true
  }
  tell(change: object): void {
    this.onmessage?.({ data: JSON.stringify(change) })
  }
}

const KEYS = [['shelf', {}], ['dossier', 'a'], ['dossier', 'b'], ['tanks'], ['log', 'x']]
let client: QueryClient
let stop: () => void
let hidden = false
const old = (): unknown[] =>
  KEYS.filter((k) => client.getQueryState(k)?.isInvalidated).map((k) => k.join(' ').trim())
const fresh = (): void => KEYS.forEach((k) => void client.setQueryData(k, 1))

beforeEach(() => {
  jest.useFakeTimers()
  Object.assign(globalThis, { EventSource: Source })
  Object.defineProperty(document, 'hidden', { configurable: true, get: () => hidden })
  hidden = false
  Source.all.length = 0
  client = new QueryClient()
  fresh()
  stop = followChanges(client)
})
afterEach(() => {
  stop()
  jest.useRealTimers()
})
const source = (): Source => Source.all.at(-1) as Source

test('what others wrote is old at once, with what it shows in; what this page wrote is not', () => {
  source().tell({ model: 'a', by: PAGE })
  jest.advanceTimersByTime(1000)
  expect(old()).toEqual([])
  source().tell({ model: 'a', by: 'another page' })
  jest.advanceTimersByTime(1000)
  expect(old()).toEqual(['shelf [object Object]', 'dossier a'])
  fresh()
  source().tell({ list: 'tanks' })
  jest.advanceTimersByTime(1000)
  expect(old()).toEqual(['tanks'])
})

test('after a gap anything may be old; a page nobody looks at listens to nothing', () => {
  source().onopen?.()
  jest.advanceTimersByTime(1000)
  expect(old()).toEqual([])
  hidden = true
  document.dispatchEvent(new Event('visibilitychange'))
  expect(Source.all.map((s) => s.closed)).toEqual([true])
  hidden = false
  document.dispatchEvent(new Event('visibilitychange'))
  expect(Source.all).toHaveLength(2)
  source().onopen?.()
  jest.advanceTimersByTime(1000)
  expect(old()).toHaveLength(KEYS.length)
})

test('a page that came while the server was away reads again what it asked for in vain, once it can listen', () => {
  source().onerror?.({ target: { readyState: 0 } })
  source().onopen?.()
  jest.advanceTimersByTime(1000)
  expect(old()).toHaveLength(KEYS.length)
})

test('a page opened behind others asks anew when it is first looked at', () => {
  stop()
  hidden = true
  stop = followChanges(client)
  expect(Source.all).toHaveLength(1)
  hidden = false
  document.dispatchEvent(new Event('visibilitychange'))
  source().onopen?.()
  jest.advanceTimersByTime(1000)
  expect(old()).toHaveLength(KEYS.length)
})

describe('who is here', () => {
  const here = (page: string, more: object = {}) => ({
    here: { page, at: 'm', row: 'r', field: 'note', hello: false, who: { id: 'e', name: 'Edda' }, ...more },
  })
  const said: { body: { at: string | null; hello: boolean } }[] = []
  beforeEach(() => {
    said.length = 0
    globalThis.fetch = jest.fn(async (_url: string, init: RequestInit) => {
      said.push({ body: JSON.parse(String(init.body)) as (typeof said)[number]['body'] })
      return { ok: true, status: 204, statusText: '', json: async () => null } as unknown as Response
    }) as typeof fetch
  })

  test('another page is seen where it is, follows its field, and is forgotten when it leaves or falls silent', () => {
    const at = renderHook(() => useOthersAt('m'))
    const inField = renderHook(() => useOtherIn('r', 'note'))
    act(() => source().tell(here('p1')))
    expect(at.result.current.map((h) => h.who.name)).toEqual(['Edda'])
    expect(inField.result.current).toBe('Edda')
    act(() => source().tell(here('p1', { field: 'name' })))
    expect(inField.result.current).toBeNull()
    act(() => source().tell(here('p1', { at: null })))
    expect(at.result.current).toEqual([])
    // One that was cut off says nothing more: it is forgotten by itself.
    act(() => source().tell(here('p2')))
    act(() => jest.advanceTimersByTime(60_000))
    expect(at.result.current).toEqual([])
    act(() => source().tell(here('p3')))
    expect(at.result.current.map((h) => h.page)).toEqual(['p3'])
    act(() => source().tell(here('p3', { at: null })))
  })

  test('this page says where it is, answers one that has just come, and says that it leaves', () => {
    const page = renderHook(() => usePresence('m'))
    expect(said.map((s) => s.body)).toMatchObject([{ page: PAGE, at: 'm', hello: true }])
    act(() => source().tell(here('p1', { hello: true })))
    expect(said.at(-1)?.body).toMatchObject({ at: 'm', hello: false })
    jest.advanceTimersByTime(20_500)
    expect(said).toHaveLength(3)
    page.unmount()
    expect(said.at(-1)?.body).toMatchObject({ at: null })
    act(() => source().tell(here('p1', { at: null })))
  })

  test('a presence is no change: nothing is read again for it', () => {
    source().tell(here('p1'))
    jest.advanceTimersByTime(1000)
    expect(old()).toEqual([])
    act(() => source().tell(here('p1', { at: null })))
  })
})

test('once it is known who is here the stream goes on: nothing is read twice', async () => {
  const first = source()
  const many = Source.all.length
  await client.prefetchQuery({
    queryKey: ['me'],
    queryFn: async () => ({ person: { id: 'a', name: 'A', role: 'editor' }, by: 'session', unowned: false }),
  })
  expect([first.closed, Source.all.length]).toEqual([false, many])
})

test('turned away, it asks who is here and listens again once somebody is', () => {
  client.setQueryData(['me'], {
    person: { id: 'a', name: 'A', role: 'editor' },
    by: 'session',
    unowned: false,
  })
  const first = source()
  first.onerror?.({ target: { readyState: 2 } })
  expect(client.getQueryState(['me'])?.isInvalidated).toBe(true)
  client.setQueryData(['me'], { person: null, by: null, unowned: false })
  expect(first.closed).toBe(true)
  const many = Source.all.length
  jest.advanceTimersByTime(60_000)
  expect(Source.all).toHaveLength(many)
  client.setQueryData(['me'], {
    person: { id: 'b', name: 'B', role: 'editor' },
    by: 'session',
    unowned: false,
  })
  expect(Source.all).toHaveLength(many + 1)
})
