import '../../tests/setup'
import { placeBetween } from '../views/strip/PartTable'
import { readMoney, showMoney } from './MoneyField'

jest.mock('../frame/dossier', () => ({ useDossierContext: () => ({}) }))

test.each<[string, string | null, unknown]>([
  ['69.00 EUR', null, { minor: 6900, currency: 'EUR' }],
  ['69', 'GBP', { minor: 6900, currency: 'GBP' }],
  ['4,90 eur', null, { minor: 490, currency: 'EUR' }],
  ['1200 JPY', null, { minor: 1200, currency: 'JPY' }],
  ['1 299.50 USD', null, { minor: 129950, currency: 'USD' }],
])('%s is read in minor units', (text, fallback, money) => {
  expect(readMoney(text, fallback)).toEqual(money)
})

test.each(['cheap', '-5 EUR', '1,200 EUR', '5 EURO', ''])('“%s” is refused with an example', (text) => {
  expect(readMoney(text, null)).toMatch(/write one such as/)
})

test('shown with the digits of its currency', () => {
  expect([showMoney(6900, 'EUR'), showMoney(1200, 'JPY'), showMoney(null, 'EUR')]).toEqual([
    '69.00 EUR',
    '1200 JPY',
    '',
  ])
})

test('a moved part takes a place between its new neighbours', () => {
  expect([
    placeBetween(1, 2),
    placeBetween(undefined, 1),
    placeBetween(4, undefined),
    placeBetween(undefined, undefined),
  ]).toEqual([1.5, 0, 5, 0])
})
