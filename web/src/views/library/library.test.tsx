import '../../../tests/setup'
import type { Medium } from '@ypsometer/contract'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { demoMedia, demoRules } from '../../../tests/dossier'

import { QueryClientProvider } from '@tanstack/react-query'
import { queryClient } from '../../api/cache'
import { emptyOutbox, haveLists, noServer, rowsMade, writes } from '../../../tests/backend'
import { units } from '../../settings/settings'
import { HouseRules } from '../rules/HouseRules'
import { permeabilityFigure, surfaceFigure, usualBypass } from '@ypsometer/core/path/mediumFigures'
import { Library } from './Library'

beforeEach(() => {
  noServer()
  emptyOutbox()
  haveLists({ media: demoMedia(), 'house-rules': demoRules() })
  localStorage.clear()
  units.set('metric')
})
afterEach(cleanup)

const show = (at: string) =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[at]}>
        <Routes>
          <Route path="/library/:id?" element={<Library />} />
          <Route path="/rules/:id?" element={<HouseRules />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
const type = (label: string, value: string): void => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value } })
  fireEvent.blur(field)
}
const named = (name: string): Medium => demoMedia().find((m) => m.name.startsWith(name)) as Medium

describe('Library', () => {
  test('lists media by name with job, origin and price; search and job narrow it', () => {
    show('/library')
    const list = screen.getByRole('navigation', { name: 'Media' })
    expect(within(list).getAllByRole('link')).toHaveLength(demoMedia().length)
    expect(list.textContent).toMatch(/Fine pad\s*mechanical, fine · generic\s*4\.90 EUR/)
    fireEvent.change(screen.getByPlaceholderText('Search'), { target: { value: 'sinter' } })
    expect(within(list).getAllByRole('link')).toHaveLength(2)
    fireEvent.change(screen.getByLabelText('Job'), { target: { value: 'chemical' } })
    expect(list.textContent).toContain('None has that in its name.')
  })
  test('the fields asked for follow the form: pores for foam, fibres for a pad, grains for the rest', () => {
    show(`/library/${named('Coarse foam').id}`)
    expect(screen.getByLabelText('Pores per inch')).toBeTruthy()
    expect(screen.queryByLabelText('Grain')).toBeNull()
    cleanup()
    show(`/library/${named('Fine pad').id}`)
    expect(screen.getByLabelText('Share that is fibre')).toBeTruthy()
    cleanup()
    show(`/library/${named('Lava').id}`)
    expect(screen.getByLabelText('Voidage')).toBeTruthy()
  })
  test('sizes are written in SI with what was typed; a voidage that cannot be is refused by name', () => {
    const lava = named('Lava')
    show(`/library/${lava.id}`)
    type('Grain', '0.25 in')
    expect(writes.at(-1)?.[2]).toMatchObject({
      grain: expect.closeTo(0.00635, 9),
      typed: { grain: '0.25 in' },
    })
    type('Voidage', '120 %')
    expect(document.body.textContent).toMatch(
      /Empty: from the sizes above\.Permeability, m²Its lower end, 95 %Its upper end, 95 %Note Duplicate to edit History/,
    )
    expect(writes).toHaveLength(1)
  })
  test('the price list keeps its day and its currency', () => {
    show(`/library/${named('House cartridge').id}`)
    type('Price of a pack', '8.40 GBP')
    expect(writes.at(-1)?.[2]).toEqual({ priceMinor: 840, currency: 'GBP' })
    fireEvent.change(screen.getByLabelText('Price noted on'), { target: { value: '2026-11-02' } })
    expect(writes.at(-1)?.[2]).toEqual({ pricedOn: '2026-11-02' })
    fireEvent.change(screen.getByLabelText('Price noted on'), { target: { value: '' } })
    expect(writes.at(-1)?.[2]).toEqual({ pricedOn: null })
  })
  test('a generic medium is copied, never deleted; an own one may be', () => {
    show(`/library/${named('Lava').id}`)
    expect(screen.queryByRole('button', { name: 'Delete' })).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'Duplicate to edit' }))
    expect(writes.at(-1)).toEqual(['create', 'media', expect.objectContaining({ name: 'Lava gravel, 8 mm, own', grain: 0.008 })])
    expect(Object.keys(writes.at(-1)?.[2] ?? {})).not.toContain('generic')
    cleanup()
    show(`/library/${named('House cartridge').id}`)
    fireEvent.click(screen.getByRole('button', { name: 'Delete' }))
    expect(writes.at(-1)?.[0]).toBe('delete')
  }) // prettier-ignore
  test('adding finds a name that is free; an unknown resistance is said with what to enter', () => {
    haveLists({ media: [...demoMedia(), { ...named('Lava'), id: 'n', name: 'New medium', grain: null }] })
    show('/library/n')
    expect(document.body.textContent).toContain('Unknown: enter grain and voidage')
    fireEvent.click(screen.getByRole('button', { name: 'Add a medium' }))
    expect(rowsMade.at(-1)).toMatchObject({ name: 'New medium 2', form: 'sintered' })
  })
  test('a medium that is gone is said, and a list not read yet waits', () => {
    show('/library/none')
    expect(document.body.textContent).toContain('This medium is not here.')
    cleanup()
    haveLists({ media: null })
    show('/library')
    expect(screen.queryByRole('navigation', { name: 'Media' })).toBeNull()
  })
})

describe('what follows from a medium', () => {
  test('the fine pad in a usual tray: the prototype shares of the science page, 55.6 and 84.5 %, with the prototype’s own k', () => {
    // The prototype's own k and C; the pad of the library is denser by Davies' expression.
    const pad = { ...named('Fine pad'), permeability: 8e-10, inertia: 3000 }
    expect(usualBypass(pad, 0.001)?.value).toBeCloseTo(0.556, 2)
    expect(usualBypass(pad, 0.002)?.value).toBeCloseTo(0.845, 2)
    // By hand, 30 µm at a solidity of 0.1: 0.421e-9 m².
    expect(permeabilityFigure(named('Fine pad'))?.value).toBeCloseTo(0.421, 3)
  })
  test('a calibrated medium says so and shows its model beside it', () => {
    const k = permeabilityFigure({ ...named('Fine pad'), permeability: 5e-10, permeabilityLow: 4e-10, permeabilityHigh: 6e-10 })
    expect(k).toMatchObject({ provenance: 'measured', value: expect.closeTo(0.5, 9), uncertainty: expect.closeTo(0.1, 9) })
    expect(k?.working?.map((w) => w.label)).toContain('by its model, 10⁻⁹ m²')
  }) // prettier-ignore
  test('nothing known, nothing said', () => {
    const unknown = { ...named('Lava'), grain: null }
    expect([permeabilityFigure(unknown), usualBypass(unknown, 0.001)]).toEqual([null, null])
    expect(surfaceFigure({ ...named('Fine pad'), fibre: null })).toBeNull()
    expect(surfaceFigure(named('Coarse foam'))?.provenance).toBe('rule')
  })
})

describe('House rules', () => {
  test('the chosen one is open; another is put in force and the old one let go', () => {
    show('/rules')
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Mechanical first')
    cleanup()
    show(`/rules/${demoRules()[1]?.id}`)
    fireEvent.click(screen.getByRole('button', { name: 'Use these rules' }))
    expect(writes.map((w) => w[2])).toEqual([{ chosen: false }, { chosen: true }])
  })
  test('rules are switched and weighed one by one; contradictions are said', () => {
    const [strain] = demoRules()
    show('/rules')
    fireEvent.click(screen.getByLabelText('A fine pad as the last layer'))
    expect(writes.at(-1)?.[2]).toEqual({ rules: { 'polish-last': { on: true } } })
    fireEvent.change(screen.getByLabelText('Weight of no layer above the rim'), { target: { value: '9' } })
    expect(writes.at(-1)?.[2]).toEqual({
      rules: { 'polish-last': { on: true }, 'above-rim': { weight: 9 } },
    })
    emptyOutbox()
    cleanup()
    haveLists({
      'house-rules': [{ ...(strain as NonNullable<typeof strain>), rules: { 'polish-last': { on: true } } }],
    })
    show('/rules')
    expect(screen.getByRole('alert').textContent).toMatch(/cannot both be kept: switch one of them off/)
  })
  test('a shipped one is copied, an own one deleted', () => {
    show('/rules')
    expect(screen.queryByRole('button', { name: 'Delete' })).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'Copy as our own' }))
    expect(writes.at(-1)?.[2]).toMatchObject({
      name: 'Mechanical first, our way',
      school: 'strain-first',
      chosen: false,
    })
    cleanup()
    haveLists({ 'house-rules': demoRules().map((r) => ({ ...r, shipped: false })) })
    show('/rules')
    fireEvent.click(screen.getByRole('button', { name: 'Delete' }))
    expect(writes.at(-1)?.[0]).toBe('delete')
  })
})
