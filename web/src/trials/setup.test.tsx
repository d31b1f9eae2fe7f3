import '../../tests/setup'
import type { Trial, TrialSetup } from '@ypsometer/contract'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { demoDossier } from '../../tests/dossier'

import { emptyOutbox, noServer, written as wrote } from '../../tests/backend'
import { units } from '../settings/settings'
import { KINDS } from '.'

beforeEach(() => {
  noServer()
  emptyOutbox()
  units.set('metric')
})
afterEach(cleanup)

const show = (kind: Trial['kind'], setup: TrialSetup = {}): void => {
  const like = demoDossier('Triptych 600').trials[0] as Trial
  const { Setup } = KINDS[kind]
  if (Setup) render(<Setup trial={{ ...like, kind, setup }} />)
}
const type = (label: string, text: string): HTMLElement => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.keyDown(field, { key: 'Enter' })
  fireEvent.blur(field)
  return field
}
const written = (): unknown => wrote('change').at(-1)?.setup

test('a meter’s factor is asked for by the litre and kept by the cubic metre; what else was set stays', () => {
  show('meter', { kUncertainty: 0.02 })
  type('Meter factor, pulses per litre', '450')
  expect(written()).toEqual({ kFactor: 450000, kUncertainty: 0.02 })
  type('Standard uncertainty of the factor', '3 %')
  expect((written() as TrialSetup).kUncertainty).toBeCloseTo(0.03, 12)
})

test('a factor of nothing is refused with what would be taken, and stays in the field', () => {
  show('meter')
  const field = type('Meter factor, pulses per litre', '0')
  expect(wrote('change')).toHaveLength(0)
  expect((field as HTMLInputElement).value).toBe('0')
  expect(field.getAttribute('aria-invalid')).toBe('true')
})

test.each([
  ['weighed', 'Standard uncertainty of the scale', '10 g', { scale: 0.01 }],
  ['read', 'Standard uncertainty of the instrument', '3', { relative: 0.03 }],
  ['noise', 'Microphone from the filter', '50 cm', { distance: 0.5 }],
  ['dye', 'Water it spreads in', '26 US gal', { volume: 26 * 3.785411784e-3 }],
  ['air', 'Riser, inside', '1 in', { riserDiameter: 0.0254 }],
  ['air', 'Air enters below the water', '1 ft', { submergence: 0.3048 }],
] as const)('%s: “%s” takes %s as it is meant', (kind, label, text, expected) => {
  show(kind)
  type(label, text)
  const [[field, value] = ['', NaN]] = Object.entries(expected)
  expect(Object.keys(written() as object)).toEqual([field])
  expect((written() as Record<string, number>)[field]).toBeCloseTo(value, 9)
})

test.each([
  ['noise', 'Position', 'position'],
  ['holding', 'What hangs on it', 'load'],
  ['air', 'Stone or nozzle', 'stone'],
] as const)(
  '%s: words are kept when the field is left, once, and taken out when emptied',
  (kind, label, field) => {
    show(kind, { [field]: 'as before' })
    type(label, '  beside the sink ')
    expect(wrote('change')).toEqual([{ setup: { [field]: 'beside the sink' } }])
    type(label, '')
    expect(written()).toEqual({})
    fireEvent.blur(screen.getByLabelText(label))
    expect(wrote('change')).toHaveLength(2)
  },
)

test('points of a dye trial: parted by commas, none twice; too many or too long are named and stay', () => {
  show('dye')
  type('Points watched', 'far corner, intake,, far corner , surface')
  expect(written()).toEqual({ points: ['far corner', 'intake', 'surface'] })
  const many = Array.from({ length: 13 }, (_, i) => `p${i}`).join(',')
  const field = type('Points watched', many)
  expect(screen.getByRole('alert').textContent).toBe('13 points; at most 12 are taken.')
  expect((field as HTMLInputElement).value).toBe(many)
  type('Points watched', 'x'.repeat(41))
  expect(screen.getByRole('alert').textContent).toMatch(/is too long: at most 40 characters each/)
  expect(wrote('change')).toHaveLength(1)
  type('Points watched', '')
  expect(written()).toEqual({})
  expect(screen.queryByRole('alert')).toBeNull()
})

test('the price of a kilowatt-hour: an amount with its currency; what is no price is said; emptied it is gone', () => {
  show('power')
  type('Price of a kWh', 'cheap')
  expect(screen.getByRole('alert').textContent).toBe('“cheap” is not a price: write one such as 69.00 EUR.')
  expect(wrote('change')).toHaveLength(0)
  type('Price of a kWh', '0,31 EUR')
  expect(written()).toEqual({ pricePerKwhMinor: 31, currency: 'EUR' })
  cleanup()
  show('power', { pricePerKwhMinor: 31, currency: 'EUR', relative: 0.02 })
  type('Price of a kWh', '')
  expect(written()).toEqual({ relative: 0.02 })
})

test('a vessel and a stopwatch need nothing more', () => {
  show('vessel')
  expect(screen.queryByRole('textbox')).toBeNull()
})
