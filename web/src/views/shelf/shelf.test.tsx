import '../../../tests/setup'
import type { ShelfRow } from '@ypsometer/contract'
import type { Figure } from '@ypsometer/core/figures/figure'
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { QueryClientProvider } from '@tanstack/react-query'
import { MemoryRouter, useLocation } from 'react-router'

let rows: ShelfRow[] = []
let asked: URLSearchParams[] = []

import { emptyOutbox, noServer, serverReads, writes, writtenIds } from '../../../tests/backend'
import { queryClient } from '../../api/cache'
import { units } from '../../settings/settings'
import NewModel from './NewModel'
import { Shelf } from './Shelf'

const lph = (q: number): number => q / 3.6e6
const figure = (id: string, value: number, dimension: Figure['dimension'], provenance: Figure['provenance']): Figure => ({ id, label: id, value, dimension, provenance }) // prettier-ignore
const row = (name: string, more: Partial<ShelfRow> = {}): ShelfRow => ({
  model: { id: name, version: 1, createdAt: '', updatedAt: '', deletedAt: null, maker: 'Quillon', name, kind: 'canister', mainsFrequency: 50, primedBy: null, houseRuleId: null, kinId: null, kinship: 'sibling', offers: [], errata: [], note: '' },
  ratedFlow: figure('rated', lph(1000), 'flow', 'printed'),
  flow: { ...figure('real', lph(612), 'flow', 'measured'), uncertainty: lph(14) }, basis: 'measured',
  supportedMax: figure('supported', 0.153, 'volume', 'rule'), claimedMax: figure('claimed', 0.3, 'volume', 'printed'), overclaim: figure('overclaim', 1.96, 'ratio', 'computed'),
  level: 'overclaimed', borderline: false, split: null, claimsDone: 1, benchDone: 1, problem: null, next: null, missing: [], old: false, ...more,
}) // prettier-ignore

let where = ''
function Where() {
  const { pathname, search } = useLocation()
  where = pathname + search
  return null
}
const show = (view: React.ReactNode, at = '/') =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[at]}>
        {view}
        <Where />
      </MemoryRouter>
    </QueryClientProvider>,
  )

beforeEach(() => {
  noServer()
  emptyOutbox()
  rows = []
  asked = []
  serverReads((path) => {
    asked.push(new URL(path, 'http://shelf').searchParams)
    return { items: rows, total: rows.length, next: null }
  })
  localStorage.clear()
  units.set('metric')
  HTMLDialogElement.prototype.showModal = function () {
    this.open = true
  }
  HTMLDialogElement.prototype.close = function () {
    this.open = false
    this.dispatchEvent(new Event('close'))
  }
})
afterEach(cleanup)

describe('the shelf', () => {
  test('it is narrowed to those that lack something, in the address too', async () => {
    rows = [row('A')]
    show(<Shelf />)
    fireEvent.change(await screen.findByLabelText('Missing'), { target: { value: 'installed-flow' } })
    await waitFor(() => expect(asked.at(-1)?.get('missing')).toBe('installed-flow'))
    expect(where).toBe('/?missing=installed-flow')
  })
  test('each row says rated, real and where from, claimed against supported, the word and the next thing to do', async () => {
    rows = [
      row('Kettle'),
      row('Teapot', {
        flow: null,
        basis: 'none',
        supportedMax: null,
        overclaim: null,
        level: 'open',
        next: 'Add the label’s rated flow',
      }),
    ]
    show(<Shelf />)
    const kettle = (await screen.findByRole('row', { name: /Kettle/ })).textContent
    for (const words of [
      /1\s?000\sL\/h/,
      /612 ± 14\sL\/h/,
      /measured/,
      /label 300\s?L · supports 153\s?L/,
      /too high/,
      /× 1\.96/,
    ])
      expect(kettle).toMatch(words)
    expect(screen.getByRole('row', { name: /Teapot/ }).textContent).toContain('not tested yet')
    expect(screen.getByRole('row', { name: /Teapot/ }).textContent).toContain('Add the label’s rated flow')
  })
  test('search, kind and order are in the address, so a view can be shared and found again', async () => {
    show(<Shelf />, '/?q=tea&kind=internal')
    await waitFor(() => expect(asked).toHaveLength(1))
    expect(asked[0]?.toString()).toBe('sort=name&limit=40&search=tea&kind=internal')
    fireEvent.change(screen.getByLabelText('Sort by'), { target: { value: 'rated-flow' } })
    await waitFor(() => expect(where).toBe('/?q=tea&kind=internal&sort=rated-flow'))
    await waitFor(() => expect(asked.at(-1)?.get('sort')).toBe('rated-flow'))
    expect(await screen.findByText(/No filter matches/)).toBeTruthy()
  })
  test('an empty shelf says what to do first and why', async () => {
    show(<Shelf />)
    expect(await screen.findByText(/your tests will be compared with it/)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Add your first filter' })).toBeTruthy()
  })
})

describe('copying a label', () => {
  const fill = (label: string, value: string): void =>
    void fireEvent.change(screen.getByLabelText(label), { target: { value } })
  const submit = (): Promise<void> =>
    act(async () => void fireEvent.submit(screen.getByRole('button', { name: /^Add filter$|^Yes/ })))
  const start = () => {
    const shown = show(<NewModel onClose={() => undefined} />)
    fill('Maker', 'Quillon')
    fill('Model', 'Kettle')
    return shown
  }

  test('makes the model and one claim a figure, with what was typed, and opens it', async () => {
    start()
    fill('Rated flow', '240 gph')
    fill('Maximum head', '5 ft 11')
    await submit()
    await waitFor(() => expect(writes).toHaveLength(3))
    expect(writes[0]).toEqual(['create', 'models', { maker: 'Quillon', name: 'Kettle', kind: 'canister' }])
    expect(writes[1]?.[2]).toMatchObject({ quantity: 'rated-flow', typed: { value: '240 gph' } })
    expect(writes[1]?.[2].value).toBeCloseTo((240 * 3.785411784e-3) / 3600, 12)
    expect(writes[2]?.[2].value).toBeCloseTo(71 * 0.0254, 12)
    expect(where).toBe(`/models/${writtenIds[0]}/claims`)
  })
  test('an unreadable figure and a range the wrong way round are said at the field; nothing is made', async () => {
    start()
    fill('Rated flow', 'plenty')
    fill('Label’s tank size: from', '300')
    fill('to', '60')
    await submit()
    expect(await screen.findByText(/“plenty” is not a number/)).toBeTruthy()
    expect(screen.getByText(/“From” is larger than “to”/)).toBeTruthy()
    expect(writes).toEqual([])
  })
  test('nothing, and more than can be, are said at the field in its own words', async () => {
    start()
    fill('Rated flow', '0')
    fill('Maximum head', '200 m')
    await submit()
    expect(screen.getByText('Enter more than zero.')).toBeTruthy()
    expect(screen.getByText(/^Maximum 100.m\.$/)).toBeTruthy()
    expect(writes).toEqual([])
  })
  test('an odd figure is asked about once, and taken when confirmed', async () => {
    start()
    fill('Rated flow', '40000')
    await submit()
    expect(await screen.findByText(/Check the unit/)).toBeTruthy()
    expect(writes).toEqual([])
    await submit()
    await waitFor(() => expect(writes).toHaveLength(2))
  })
  test('what is typed survives closing and comes back', async () => {
    const first = start()
    fill('Power', '14 W')
    await act(async () => undefined)
    first.unmount()
    show(<NewModel onClose={() => undefined} />)
    expect(screen.getByLabelText<HTMLInputElement>('Maker').value).toBe('Quillon')
    expect(screen.getByLabelText<HTMLInputElement>('Power').value).toBe('14 W')
  })
})
