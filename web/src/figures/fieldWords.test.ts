/** @jest-environment node */
import type { Change } from '@ypsometer/contract'
import { fieldsOf, fieldWords, oneOf, showField } from './fieldWords'

test.each([
  // 1 L/h is 1/3.6e6 m³/s, and 1 in 25.4 mm, by definition.
  ['specimens', 'mediaMass', 1.25, 'metric', '1.25 kg'],
  ['tanks', 'length', 0.508, 'us', '20 in'],
  ['tanks', 'waterTemperature', 25, 'us', '77 °F'],
  ['readings', 'volume', 0.005, 'metric', '5 L'],
  ['visits', 'minutes', 30, 'metric', '30 min'],
  ['tanks', 'pH', 7.5, 'metric', '7.5'],
  ['models', 'mainsFrequency', 60, 'metric', '60'],
  ['tanks', 'covered', true, 'metric', 'yes'],
  ['claims', 'pricedOn', '2026-11-26', 'metric', '26 Nov 2026'],
  ['claims', 'amountMinor', 1990, 'metric', '19.90'],
  ['models', 'note', '', 'metric', 'nothing'],
  ['models', 'kinId', '3f0c2a54-9d1e-4f7a-8b61-1d2e3f405162', 'metric', 'another one'],
  ['parts', 'findings', [], 'metric', 'none'],
  ['hookups', 'segments', [{ label: 'hose' }, { label: 'elbow' }], 'metric', '2: hose, elbow'],
  ['no-such', 'thing', 3, 'metric', '3'],
] as const)('%s.%s of %j reads, in %s, “%s”', (resource, field, value, system, words) => {
  expect(showField(resource, field, { [field]: value }, system)).toBe(words)
})

test('a claim is in the unit of its quantity', () => {
  // 1 L/h is 1/3.6e6 m³/s.
  expect(showField('claims', 'value', { value: 320 / 3.6e6 }, 'metric', 'rated-flow')).toBe('320 L/h')
  expect(showField('claims', 'value', { value: 0.015 }, 'metric', 'tank-min')).toBe('15 L')
})

test('money with its currency, where that is told too: the yen has no smaller unit', () => {
  expect(showField('claims', 'amountMinor', { amountMinor: 1990, currency: 'EUR' }, 'metric')).toBe(
    '19.90 EUR',
  )
  expect(showField('claims', 'amountMinor', { amountMinor: 1990, currency: 'JPY' }, 'metric')).toBe(
    '1990 JPY',
  )
})

test('as it was typed, where that is known; long words are cut', () => {
  expect(showField('claims', 'value', { value: 1e-4, typed: { value: '95 gph' } }, 'metric')).toBe('95 gph')
  expect(showField('models', 'note', { note: 'x'.repeat(500) }, 'metric')).toHaveLength(162)
})

test('fields and rows have their words; texts as typed are no field', () => {
  expect(fieldWords('outletAboveWater')).toBe('outlet above water')
  expect(fieldWords('stockClassId')).toBe('stocking')
  expect(oneOf('house-rules')).toBe('house rule')
  expect(oneOf('hookups')).toBe('plumbing')
  expect(oneOf('change-overs')).toBe('filter swap')
  const change = { before: { value: 1, typed: {} }, after: { value: 2, typed: {} } } as unknown as Change
  expect(fieldsOf(change)).toEqual(['value'])
})
