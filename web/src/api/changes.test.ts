/** @jest-environment jsdom */
import '../../tests/setup'
import { QueryClient } from '@tanstack/react-query'
import { followChanges } from './changes'
import { PAGE } from './client'

class Source {
  static readonly all: Source[] = []
  onopen: (() => void) | null = null
  onmessage: ((e: { data: string }) => void) | null = null
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
