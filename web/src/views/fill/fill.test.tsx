import { quickTank } from '@ypsometer/core/advice/quickTank'
import '../../../tests/setup'
import type { Fill as FillRow } from '@ypsometer/contract'
import { HOUSE_RULES } from '@ypsometer/core/path/audit'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { reaches } from '@ypsometer/core/teardown/reach'
import { modelRecord, pathRecord } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { demoDossier, demoMedia, demoModels, demoRules, showStation } from '../../../tests/dossier'
import { figuresIn, mute } from '../../../tests/numbers'
import { pathWork, type PathQuestion } from '../../workers/pathWork'

jest.mock('../../workers/pathRemote', () => jest.requireActual<object>('../../../tests/pathRemote'))

import { layerBox, targetAt } from '../../cutaway/layers'
import { moveLayer } from '@ypsometer/core/fills/move'
import { emptyOutbox, haveLists, noServer, rowsMade, writes } from '../../../tests/backend'
import { units } from '../../settings/settings'
import Path from '../../stations/path'
import Fill from '../../stations/fill'

beforeEach(() => {
  noServer()
  emptyOutbox()
  haveLists({ media: demoMedia(), 'house-rules': demoRules() })
  units.set('metric')
})
afterEach(cleanup)

const layersWritten = (): FillRow['layers'] => (writes.at(-1)?.[2].layers ?? []) as FillRow['layers']
const shown = async (view: React.ReactNode, name: string) => {
  const dossier = demoDossier(name)
  const result = showStation(view, dossier)
  await waitFor(() => expect(screen.queryByText(/Results|Layer by layer/)).not.toBeNull())
  return { dossier, ...result }
}

const TYPED = '[aria-expanded], svg, input, select, label, li > .num, [data-plain]'

const ask = (name: string) => {
  const dossier = demoDossier(name)
  const record = pathRecord(dossier, demoMedia(), assess(modelRecord(dossier)), null)
  if (!record) throw new Error('no interior')
  const work = pathWork()
  work.prepare(record)
  const question = (fill: number, more: Partial<PathQuestion> = {}): PathQuestion => ({
    fill: record.fills[fill] as NonNullable<(typeof record.fills)[0]>,
    against: record.fills[0] ?? null,
    house: HOUSE_RULES[0] as NonNullable<(typeof HOUSE_RULES)[0]>,
    stock: STOCK_CLASSES[1] as NonNullable<(typeof STOCK_CLASSES)[1]>,
    reaches: reaches(dossier.parts),
    quick: false,
    ...more,
  })
  return { work, question, record }
}

describe('between threads', () => {
  test.each(demoModels())('%s: every fill is answered by plain data, each figure with an origin and a formula', (name) => {
    const { work, question, record } = ask(name)
    record.fills.forEach((_, i) => {
      const answer = work.solve(question(i))
      expect(answer.kind).toBe('ready')
      expect(() => structuredClone(answer)).not.toThrow()
      for (const f of figuresIn(answer)) {
        expect([f.id, Number.isFinite(f.value)]).toEqual([f.id, true])
        if (f.provenance === 'computed') expect([f.id, Boolean(f.formula)]).toEqual([f.id, true])
      }
    })
  }) // prettier-ignore
  test('a trial whose fill is noted by hand tells what the body takes as well as one that goes by its state', () => {
    const { work, question, record } = ask('Ledger 700')
    const told = (): string | null => {
      const answer = work.solve(question(0))
      return answer.kind === 'ready' ? answer.rest.trialId : null
    }
    const byState = told()
    expect(byState).not.toBeNull()
    work.prepare({ ...record, fillOfTrial: { [byState ?? '']: record.fills[0]?.id ?? null } })
    expect(told()).toBe(byState)
  })
  test('a fill that cannot be is answered by its field, with the rest of it drawn', () => {
    const { work, question, record } = ask('Ledger 700')
    const fill = record.fills[0] as NonNullable<(typeof record.fills)[0]>
    const layers = fill.layers.map((l, i) => (i === 1 ? { ...l, gap: 0.4 } : l))
    const answer = work.solve(question(0, { fill: { ...fill, layers } }))
    expect(answer).toMatchObject({ kind: 'wrong', field: `layers[${layers[1]?.id}].gap` })
    expect(answer.kind === 'wrong' && answer.outcome?.layers).toHaveLength(layers.length - 1)
  })
  test('the search, the schools, the checks and the EPANET file come back whole', () => {
    const { work, question } = ask('Triptych 600')
    const fit = work.fit(question(0, { quick: true }), { minFlow: 0, maxCostMinor: null })
    expect(fit?.tried).toBeGreaterThan(10)
    expect(structuredClone(fit)?.outcome.capacity.volume).toBeGreaterThan(0.005)
    expect(work.schools(question(0), { minFlow: 0, maxCostMinor: null })).toHaveLength(3)
    const checks = work.checks(question(0))
    const told = checks.filter((c) => c.told)
    expect(told.map((c) => [c.fill, c.lift])).toEqual([['Supplied', 0]])
    const pad = demoMedia().find((m) => m.name === 'Fine pad')
    const without = checks.find((c) => c.fill === 'Fine pad out')
    const k = work.calibrate(pad?.id ?? '', without?.trialId ?? '', told[0]?.trialId ?? '')
    expect(k.kind).toBe('ready')
    expect(work.calibrate(pad?.id ?? '', 'none', 'none')).toMatchObject({ kind: 'wrong' })
    expect(work.hookups(question(0)).length).toBeGreaterThan(0)
    expect(work.inp(question(0))).toContain('[VALVES]')
  })
  test.each(['Plainbody 1000', 'Triptych 600'])('%s fitted with the dirt of a tank: no pinch of floss', (name) => {
    const { work, question, record } = ask(name)
    const tank = quickTank(0.1, question(0).stock)
    const on = { tank, days: 365, sponge: false }
    const fit = work.fit(question(0, { quick: true }), { minFlow: 0, maxCostMinor: null }, on)
    // What it says it carries is what the variant will: nothing of it has been weighed.
    const kept = { ...(question(0).fill), id: 'kept', basis: 'variant', layers: fit?.layers ?? [] } as PathQuestion['fill']
    const again = work.solve(question(0, { fill: kept }))
    expect(again.kind === 'ready' && again.outcome.capacity.volume).toBeCloseTo(fit?.carries.value ?? NaN, 2)
    const forms = fit?.layers.map((l) => record.media.find((m) => m.id === l.mediumId)?.form)
    expect(forms).not.toContain('floss')
    expect(fit?.dirt.best?.days ?? 365).toBeGreaterThan(14)
  }) // prettier-ignore
})

describe('places in the section', () => {
  const { work, question } = ask('Torrent 1400')
  const answer = work.solve(question(0))
  if (answer.kind !== 'ready') throw new Error('not ready')
  const { chambers } = answer.outcome.topology
  const layers = answer.outcome.case.fill.layers
  const boxOf = (id: string) => {
    const l = answer.outcome.layers.find((x) => x.placed.layer.id === id)
    if (!l) throw new Error(id)
    return layerBox(l.chamber, l.placed)
  }
  test('layers of a tray lie on each other from below, within its walls', () => {
    const [a, b] = [boxOf('l1'), boxOf('l2')]
    expect(b.y0).toBeCloseTo(a.y1, 9)
    expect(a.y1 - a.y0).toBeCloseTo(0.03, 9)
  })
  test('the place under a point: below the first, between, above the last, and nowhere outside', () => {
    const [a, b] = [boxOf('l1'), boxOf('l2')]
    const x = (a.x0 + a.x1) / 2
    const index = (y: number): number | undefined => targetAt(chambers, 'l5', x, y)?.index
    expect([index(a.y0 + 0.002), index(a.y1 + 0.002), index(b.y1 + 0.005)]).toEqual([0, 1, 2])
    expect(targetAt(chambers, 'l5', -1, 0)).toBeNull()
  })
  test('moving puts a layer where it was let go and loses none', () => {
    const lower = layers[0]?.chamberId ?? ''
    const moved = moveLayer(layers, 'l5', { chamberId: lower, index: 1 })
    expect(moved.filter((l) => l.chamberId === lower).map((l) => l.id)).toEqual(['l1', 'l5', 'l2'])
    expect(new Set(moved.map((l) => l.id))).toEqual(new Set(layers.map((l) => l.id)))
    expect(moveLayer(layers, 'none', { chamberId: lower, index: 0 })).toBe(layers)
  })
})

describe('Fill', () => {
  test.each(['Torrent 1400', 'Gale HB', 'Bellows S2', 'Undercroft 90'])('%s: every number can show its working', async (name) => {
    const { container } = await shown(<Fill />, name)
    expect(mute(container, TYPED)).toEqual([])
  }) // prettier-ignore
  test('a layer’s amount, gap, dirt and medium are written as typed; a wrong one says what is accepted', async () => {
    await shown(<Fill />, 'Plainbody 1000')
    fireEvent.click(screen.getByRole('button', { name: /^Coarse foam, 10 ppi in lower tray/ }))
    const list = screen.getByRole('region', { name: 'Layers, in flow order' })
    const amount = within(list).getByLabelText('Amount of Coarse foam, 10 ppi')
    fireEvent.change(amount, { target: { value: '25 mm' } })
    fireEvent.blur(amount)
    expect(layersWritten()[0]).toMatchObject({ amount: 0.025, measure: 'height' })
    fireEvent.change(amount, { target: { value: 'thick' } })
    fireEvent.blur(amount)
    expect(within(list).getByRole('alert').textContent.length).toBeGreaterThan(10)
    fireEvent.change(within(list).getByLabelText('Unit of the amount'), { target: { value: 'mass' } })
    expect(layersWritten()[0]?.measure).toBe('mass')
    fireEvent.change(within(list).getByLabelText(/^Dirt in Coarse foam/), { target: { value: '40' } })
    expect(layersWritten()[0]?.fouled).toBe(0.4)
    fireEvent.click(within(list).getByLabelText('In a mesh bag'))
    expect(layersWritten()[0]?.bagged).toBe(true)
  })
  test('a fill is copied, taken back to as shipped, and started where there is none', async () => {
    const { unmount } = await shown(<Fill />, 'Plainbody 1000')
    fireEvent.click(screen.getByRole('button', { name: 'Copy' }))
    expect(rowsMade.at(-1)).toMatchObject({ name: 'Supplied, changed', basis: 'variant' })
    unmount()
    const dossier = { ...demoDossier('Plainbody 1000'), fills: [] }
    showStation(<Fill />, dossier)
    fireEvent.click(screen.getByRole('button', { name: 'Add the supplied media' }))
    expect(writes.at(-1)?.slice(0, 2)).toEqual(['create', 'fills'])
    expect(rowsMade.at(-1)).toMatchObject({ basis: 'as-shipped', layers: [] })
  })
  test('a medium nothing is known of: said at its layer, and it can still be taken out', async () => {
    const foam = demoMedia().find((m) => m.name === 'Coarse foam, 10 ppi')
    haveLists({ media: demoMedia().map((m) => (m.id === foam?.id ? { ...m, poresPerInch: null } : m)) })
    await shown(<Fill />, 'Plainbody 1000')
    await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/Coarse foam/))
    fireEvent.click(screen.getByRole('button', { name: 'Remove Coarse foam, 10 ppi' }))
    expect(layersWritten().some((l) => l.mediumId === foam?.id)).toBe(false)
  })
  test('fit it for me: within a price, with what it changed; a price that is none is refused', async () => {
    await shown(<Fill />, 'Triptych 600')
    fireEvent.change(screen.getByLabelText('Media budget'), { target: { value: 'cheap' } })
    expect(screen.getByText(/is not a price/)).toBeTruthy()
    fireEvent.change(screen.getByLabelText('Media budget'), { target: { value: '30 EUR' } })
    await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Fit it' })))
    await waitFor(() => expect(screen.getByText(/combinations tried\. The best supports/)).toBeTruthy())
    fireEvent.click(screen.getByRole('button', { name: 'Save as a variant' }))
    expect(writes.at(-1)).toEqual([
      'create',
      'fills',
      expect.objectContaining({ name: 'Best setup: Mechanical first' }),
    ])
  })
})

describe('Path', () => {
  test.each(['Terrace 1200', 'Gale HB', 'Triptych 600', 'Coracle A1', 'Whirlpot F1'])('%s: every number can show its working', async (name) => {
    const { container } = await shown(<Path />, name)
    expect(mute(container, TYPED)).toEqual([])
  }) // prettier-ignore
  test('the bypass fault is found, pinned where it is, and mended by pads cut to the wall', async () => {
    await shown(<Path />, 'Terrace 1200')
    expect(document.body.textContent).toMatch(/\d+\s% of the water bypasses the fine pad through a 2\smm gap/)
    fireEvent.change(screen.getByLabelText('Media setup'), {
      target: { value: demoDossier('Terrace 1200').fills[1]?.id },
    })
    await waitFor(() => expect(document.body.textContent).not.toMatch(/of the water bypasses the fine pad/))
  })
  test('a review chooses its own house rule', async () => {
    await shown(<Path />, 'Terrace 1200')
    fireEvent.change(screen.getByLabelText('House rules for this review'), {
      target: { value: demoRules()[1]?.id },
    })
    expect(writes.at(-1)).toEqual(['change', 'models', { houseRuleId: demoRules()[1]?.id }])
  })
  test('what is fitted on the hoses is written with the hookup', async () => {
    await shown(<Path />, 'Ledger 700')
    fireEvent.click(screen.getByLabelText('An inline heater'))
    expect(writes.at(-1)).toEqual(['change', 'hookups', { fitted: { heater: { watts: 300 } } }])
  })
})
