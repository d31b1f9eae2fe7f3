import '../../../tests/setup'
import { modelRecord, pathRecord, type Dossier, type Fitted } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { fromInp, toInp } from '@ypsometer/core/network/inp'
import { solveNetwork, type Network } from '@ypsometer/core/network/solve'
import { asSecond } from '@ypsometer/core/path/second'
import { outcomeOf, type Outcome } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { demoDossier, demoMedia, demoRules, showStation } from '../../../tests/dossier'

jest.mock('../../workers/pathRemote', () => jest.requireActual<object>('../../../tests/pathRemote'))
const mockSaved: string[] = []
jest.mock('../../charts/ChartTools', () => ({
  ...jest.requireActual<object>('../../charts/ChartTools'),
  save: (name: string, _type: string, text: string) => mockSaved.push(name, text),
}))

import {
  emptyOutbox,
  haveLists,
  noServer,
  rowsMade,
  serverReads,
  writes,
  writtenIds,
} from '../../../tests/backend'
import { units } from '../../settings/settings'
import Path from '../../stations/path'

beforeEach(() => {
  noServer()
  emptyOutbox()
  haveLists({ media: demoMedia(), 'house-rules': demoRules() })
  mockSaved.length = 0
  units.set('metric')
})
afterEach(cleanup)

const shown = async (dossier: Dossier) => {
  showStation(<Path />, dossier)
  await waitFor(() => expect(screen.queryByText('Layer by layer')).not.toBeNull())
}
const section = (name: string | RegExp) => within(screen.getByRole('region', { name }))

/** What the core makes of a demo model with its first fill, apart from any screen. */
function outcome(name: string): Outcome {
  const dossier = demoDossier(name)
  const record = pathRecord(dossier, demoMedia(), assess(modelRecord(dossier)), null)
  const base = record && pathBase(record)
  const fill = record?.fills[0]
  if (base?.kind !== 'ready' || !fill) throw new Error(`no path for ${name}`)
  return outcomeOf({ ...base.base, fill }, STOCK_CLASSES[0] as StockClass)
}
const withFitted = (name: string, fitted: Fitted): Dossier => {
  const d = demoDossier(name)
  return { ...d, hookups: d.hookups.map((h) => ({ ...h, fitted })) }
}

describe('computed against the bucket', () => {
  test('each loaded trial is checked; the one that tells what the body takes says that it agrees by construction', async () => {
    await shown(demoDossier('Triptych 600'))
    const table = within(await screen.findByRole('region', { name: 'Calculated vs measured' }))
    await waitFor(() => expect(table.getAllByRole('row').length).toBeGreaterThan(2))
    expect(table.getAllByText(/agrees by construction/)).toHaveLength(1)
    expect(table.getAllByText(/agrees within both intervals/).length).toBeGreaterThan(0)
  })
  test('without a fill on record for any trial it says what to do', async () => {
    const d = demoDossier('Ledger 700')
    await shown({ ...d, trials: d.trials.map((t) => ({ ...t, fillId: null, state: 'empty' })) })
    expect(await screen.findByText(/No installed-flow test names its media setup/)).toBeTruthy()
  })
  test('a medium calibrated from two flows is kept as an own one, and the fills that hold it take it over', async () => {
    const d = demoDossier('Triptych 600')
    await shown(d)
    const table = within(await screen.findByRole('region', { name: 'Calculated vs measured' }))
    fireEvent.click(await table.findByRole('button', { name: 'Solve its permeability' }))
    await table.findByText(/the model says/)
    const chosen = demoMedia().find(
      (m) => m.id === (table.getByLabelText('Medium') as HTMLSelectElement).value,
    )
    fireEvent.click(table.getByRole('button', { name: 'Keep it in the library' }))
    const made = writes.find((w) => w[0] === 'create')?.[2] as Record<string, number | string>
    // The demo's pad was made with 0.303e-9 m², which no screen is told.
    expect(made.name).toBe(`${chosen?.name}, calibrated on Triptych 600`)
    expect(Number(made.permeabilityLow)).toBeLessThan(0.303e-9)
    expect(Number(made.permeabilityHigh)).toBeGreaterThan(0.303e-9)
    const changed = writes.filter((w) => w[1] === 'fills')
    expect(changed).toHaveLength(
      d.fills.filter((f) => f.layers.some((l) => l.mediumId === chosen?.id)).length,
    )
    for (const [, , body] of changed)
      expect((body.layers as { mediumId: string }[]).some((l) => l.mediumId === writtenIds[0])).toBe(true)
  })
})

test('three schools: each with its own arrangement, which can be kept as a variant', async () => {
  await shown(demoDossier('Plainbody 1000'))
  const schools = section('Three layering rules compared')
  fireEvent.click(schools.getByRole('button', { name: 'Compare them' }))
  await schools.findByRole('columnheader', { name: 'Findings here' }, { timeout: 90000 })
  const rows = schools.getAllByRole('row').slice(1)
  expect(rows).toHaveLength(3)
  for (const r of rows) expect(r.textContent).toMatch(/L\/h.*kg|L\/h.*L/)
  fireEvent.click(within(rows[1] as HTMLElement).getByRole('button', { name: 'Keep' }))
  expect(writes.at(-1)?.[1]).toBe('fills')
  expect(rowsMade.at(-1)).toMatchObject({
    basis: 'variant',
    name: expect.stringMatching(/^Fitted: /) as unknown,
  })
  expect((writes.at(-1)?.[2].layers as unknown[] | undefined)?.length).toBeGreaterThan(1)
}, 150000)

describe('also on the hoses', () => {
  test('a heater is put on with a usual size, and says what the real flow does for it', async () => {
    await shown(demoDossier('Ledger 700'))
    fireEvent.click(screen.getByRole('checkbox', { name: 'An inline heater' }))
    expect(writes.at(-1)).toEqual(['change', 'hookups', { fitted: { heater: { watts: 300 } } }])
    cleanup()
    await shown(withFitted('Ledger 700', { heater: { watts: 300 } }))
    const q = outcome('Ledger 700').flow
    // By hand: 300 W over 997 · 4182 J/(m³ K) times the flow.
    const warming = (300 / (997 * 4182 * q)).toPrecision(2)
    expect(screen.getByText(/The heater warms the water by/).textContent).toContain(warming)
    expect(screen.getByText(/Unplug the heater first/)).toBeTruthy()
    fireEvent.click(screen.getByRole('checkbox', { name: 'An inline heater' }))
    expect(writes.at(-1)?.[2]).toEqual({ fitted: {} })
  })
  test('a heater too strong for the flow is a fault, not a note', async () => {
    await shown(withFitted('Ledger 700', { heater: { watts: 5000 } }))
    expect(screen.getByText(/would boil in its sleeve/)).toBeTruthy()
  })
  test('a lamp that cannot be says so at its figures; a caution stands beside one that can', async () => {
    const lamp = { output: 2, lampLength: 0.15, sleeveRadius: 0.012, chamberRadius: 0.03, ageing: 0.7, sleeve: 0.9, transmittance: 0.9 } // prettier-ignore
    await shown(withFitted('Ledger 700', { lamp }))
    expect(screen.getByText(/Never look at a lit lamp/)).toBeTruthy()
    const radius = screen.getByLabelText('Chamber, inner radius')
    fireEvent.change(radius, { target: { value: '40 mm' } })
    fireEvent.keyDown(radius, { key: 'Enter' })
    expect((writes.at(-1)?.[2].fitted as Fitted | undefined)?.lamp?.chamberRadius).toBeCloseTo(0.04, 9)
    cleanup()
    await shown(withFitted('Ledger 700', { lamp: { ...lamp, chamberRadius: 0.005 } }))
    expect(section(/Also on the hoses/).getByText(/chamber/i, { selector: '.text-error' })).toBeTruthy()
  })
  test('a stopped second filter in a branch lets water run back; it is joined and started by its fields', async () => {
    const second = { label: 'Other', arrangement: 'beside', running: false, shutOffHead: 1.5, maxFlow: 2.2e-4, exponent: 1.75, lossCoefficient: 10 } as const // prettier-ignore
    await shown(withFitted('Plainbody 1000', { second }))
    expect(screen.getByText(/of the water run back round the loop/)).toBeTruthy()
    fireEvent.click(screen.getByRole('checkbox', { name: 'running' }))
    expect(writes.at(-1)?.[2]).toEqual({ fitted: { second: { ...second, running: true } } })
    fireEvent.change(screen.getByLabelText('How the second filter is joined'), {
      target: { value: 'series' },
    })
    expect(writes.at(-1)?.[2]).toEqual({ fitted: { second: { ...second, arrangement: 'series' } } })
  })
  test('a second filter is taken from the shelf: its pump, and its body with its fill', async () => {
    const second = { label: 'The other filter', arrangement: 'series', running: true, shutOffHead: 1.5, maxFlow: 2.2e-4, exponent: 1.75, lossCoefficient: 10 } as const // prettier-ignore
    const torrent = demoDossier('Torrent 1400')
    const bare = { ...demoDossier('Torrent 1400'), claims: [], trials: [], readings: [] }
    let answer: () => unknown = () => torrent
    serverReads((path) =>
      path.startsWith('/models?') ? { items: [{ model: torrent.model }], total: 1, next: null } : answer(),
    )
    haveLists({ media: demoMedia(), 'house-rules': demoRules() })
    await shown(withFitted('Plainbody 1000', { second }))
    const search = (): void =>
      void fireEvent.change(screen.getByLabelText('Choose one of your filters'), {
        target: { value: 'torrent' },
      })
    const take = async (): Promise<void> =>
      void fireEvent.click(await screen.findByText(/Torrent 1400/, { selector: 'button' }))
    search()
    await take()
    await screen.findByText(/added with its pump and media setup/)
    const taken = (writes.at(-1)?.[2].fitted as Fitted | undefined)?.second
    const expected = asSecond(outcome('Torrent 1400'), 'Torrent 1400')
    expect(taken).toMatchObject({ label: 'Torrent 1400', arrangement: 'series', running: true })
    expect(taken?.maxFlow).toBeCloseTo(expected.maxFlow, 9)
    expect(taken?.lossCoefficient).toBeCloseTo(expected.lossCoefficient, 4)
    answer = () => bare
    search()
    await take()
    expect(await screen.findByText(/has no pump yet. Add its rated flow/)).toBeTruthy()
    answer = () => Promise.reject(new Error('no road'))
    await take()
    expect(await screen.findByText(/could not be read: The server cannot be reached/)).toBeTruthy()
  })
})

describe('the circuit for other programs', () => {
  const open = async (name: string, text: string): Promise<void> => {
    const file = Object.assign(new File([text], name), { text: () => Promise.resolve(text) })
    await act(async () => {
      fireEvent.change(screen.getByLabelText('An EPANET file exported from here'), {
        target: { files: [file] },
      })
      await Promise.resolve()
    })
  }
  test('what is written comes back as the same network, and carries the flow on the screen', async () => {
    await shown(demoDossier('Ledger 700'))
    const circuit = section('The circuit for other programs')
    await act(async () => {
      fireEvent.click(circuit.getByRole('button', { name: /EPANET file/ }))
      await Promise.resolve()
    })
    await waitFor(() => expect(mockSaved).toHaveLength(2))
    expect(mockSaved[0]).toBe('ledger-700.inp')
    const { flows } = solveNetwork(fromInp(mockSaved[1] ?? ''))
    expect(Math.max(...flows)).toBeCloseTo(outcome('Ledger 700').flow, 9)
    await open('ledger-700.inp', mockSaved[1] ?? '')
    expect(await circuit.findByText('ledger-700.inp, solved again')).toBeTruthy()
    expect(circuit.getAllByRole('row')).toHaveLength(flows.length)
  })
  test('a file of another program, and one that cannot be solved, are refused with the reason', async () => {
    await shown(demoDossier('Ledger 700'))
    await open('other.inp', '[PIPES]\n P1 A B 1 2 3')
    expect((await screen.findByRole('alert')).textContent).toMatch(/a file exported from here/)
    const still: Network = {
      heads: { a: 0, b: 0 },
      fluid: { kinematicViscosity: 1e-6 },
      elements: [{ id: 'h', label: 'hose', kind: 'hose', from: 'a', to: 'b', length: 1, diameter: 0.016, roughness: 0 }],
    } // prettier-ignore
    await open('still.inp', toInp(still))
    await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/Nothing drives the water/))
  })
})

test('three outlets: the same fill on each is listed side by side', async () => {
  const d = demoDossier('Triptych 600')
  await shown(d)
  const outlets = await screen.findByRole('region', { name: 'This setup on each plumbing' })
  expect(within(outlets).getAllByRole('row')).toHaveLength(d.hookups.length)
})
