import { fixed, isLopsided, showPercent, showWithInterval, showWithUncertainty } from './format'
import { findUnit, preferredUnit } from './dimensions'
import { moneyText } from './money'
import { parseQuantity, readNumber } from './parse'

const NARROW = '\u202f'
const refused = (text: string, options: Parameters<typeof parseQuantity>[1]): string => {
  try {
    parseQuantity(text, options)
  } catch (error) {
    return (error as Error).message
  }
  return 'taken'
}

describe('numbers as people write them', () => {
  test.each<[string, number]>([
    [' 1,5 ', 1.5],
    ['−3', -3],
    ['+2.5e-3', 0.0025],
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1,234,567', 1_234_567],
    ['1.234.567', 1_234_567],
    ['1 000', 1000],
    ['0,125', 0.125],
    ['12,5', 12.5],
    ['1234,567', 1234.567],
    ['1.234.567,8', 1_234_567.8],
  ])('%j is %d', (text, value) => {
    expect(readNumber(text)).toBe(value)
  })
  test.each(['12x', '1,2,3', '1.2.3', '1,23,456', '1,234.5.6', '1.234,5,6', '', '.', 'e3'])(
    '%j is no number',
    (text) => {
      expect(readNumber(text)).toBeNaN()
    },
  )
  test('one comma before three digits has two readings, unless a nought or four digits stand before it', () => {
    expect(['1,200', '-12,345', '999,000'].map((t) => readNumber(t))).toEqual([
      'ambiguous',
      'ambiguous',
      'ambiguous',
    ])
    expect([readNumber('0,200'), readNumber('1200,500')]).toEqual([0.2, 1200.5])
  })
})

describe('quantities', () => {
  const length = { dimension: 'length' } as const
  test.each<[string, number]>([
    ['6 ft 2 in', 74 * 0.0254],
    ['6 ft 2', 74 * 0.0254],
    ['6\'2"', 74 * 0.0254],
    ['−3 cm', -0.03],
    ['3 1/2 in', 3.5 * 0.0254],
    ['1/2 in', 0.0127],
    ['  45   cm  ', 0.45],
    ['45 cm.', 0.45],
    ['45 CM', 0.45],
  ])('%j', (text, si) => {
    expect(parseQuantity(text, length).si).toBeCloseTo(si, 9)
  })
  test('the value is in the first unit that was named: 6 ft 2 in are 6.1667 ft; below nothing the whole of it is', () => {
    const q = parseQuantity('6 ft 2 in', length)
    expect([q.value, q.unit]).toEqual([expect.closeTo(74 / 12, 9), 'ft'])
    expect(parseQuantity('-6 ft 2 in', length).si).toBeCloseTo(-74 * 0.0254, 9)
    expect(parseQuantity('-6 ft 2 in', length).value).toBeCloseTo(-74 / 12, 9)
  })
  test('a bare number is in the unit of its field, else in the one of the system; what is no unit falls back on it', () => {
    expect(parseQuantity('5', { ...length, bare: 'mm' }).si).toBeCloseTo(0.005, 12)
    expect(parseQuantity('5', length).si).toBeCloseTo(0.05, 12)
    expect(parseQuantity('5', { ...length, system: 'us' }).si).toBeCloseTo(5 * 0.0254, 12)
    expect(parseQuantity('5', { ...length, bare: 'furlongs' }).si).toBeCloseTo(0.05, 12)
  })
  test('a temperature is read on its own scale, below zero too: −4 °F is −20 °C', () => {
    expect(parseQuantity('-4 °F', { dimension: 'temperature' }).si).toBeCloseTo(parseQuantity('-20 °C', { dimension: 'temperature' }).si, 9) // prettier-ignore
    expect(parseQuantity('-4 °F', { dimension: 'temperature' })).toMatchObject({ value: -4, unit: '°F' })
  })
  test('what cannot be read is told with what would be: units by their names, an example of the system', () => {
    expect(refused('   ', length)).toBe('Type a number with a unit, e.g. 45 cm.')
    expect(refused('abc', { ...length, system: 'us' })).toBe('“abc” is not a number. Type a number with a unit, e.g. 6 ft 2 in.') // prettier-ignore
    expect(refused('3 parsecs', length)).toMatch(
      /“parsecs” is not a unit of length\. Use mm, cm, m, in, ft\./,
    )
    expect(refused('3 cm 4', length)).toBe('“3 cm 4” has a second number without a unit. Type a number with a unit, e.g. 45 cm.') // prettier-ignore
    expect(refused('1,200 cm', length)).toBe('Is “1,200” thousands or a decimal? Type 1200 or 1.200.')
    expect(refused('1.000 cm', length)).toBe('Is “1.000” thousands or a decimal? Type 1000 or 1.')
  })
  test('units are found by symbol, by alias, whatever their case, and with their spaces run together', () => {
    expect(findUnit('L/h', 'flow')?.symbol).toBe('L/h')
    expect(findUnit('l/H', 'flow')?.symbol).toBe('L/h')
    expect(findUnit('US  gal/h', 'flow')?.symbol).toBe('US gal/h')
    expect(findUnit('nonsense', 'flow')).toBeUndefined()
    // Milli and mega differ by their case alone, and the one that was written is meant.
    expect(findUnit('mm', 'length')?.symbol).toBe('mm')
    expect(preferredUnit('volume', 'imperial').symbol).toBe('imp gal')
  })
})

describe('what is shown', () => {
  const metric = (si: number, u: number) => showWithUncertainty(si, u, 'ratio', 'metric')
  test('nought is nought and never minus nought', () => {
    expect([fixed(-0.001, 2), fixed(-1.5, 1), fixed(0, 0)]).toEqual(['0.00', '−1.5', '0'])
  })
  test('an uncertainty of nothing shows three figures and no ±; one that vanishes at four figures is left out (GUM 7.2.6)', () => {
    expect(metric(1.2345, 0)).toMatchObject({ number: '1.23', uncertainty: undefined })
    expect(metric(123.456, 0.0001)).toMatchObject({ number: '123.5', uncertainty: undefined })
    expect(metric(0, 0.012)).toMatchObject({ number: '0.000', uncertainty: '0.012' })
    expect(metric(0, 0)).toMatchObject({ number: '0', uncertainty: undefined })
    expect(metric(1.2345, 0.31)).toMatchObject({ number: '1.2', uncertainty: '0.3' })
    expect(metric(1.2345, 0.29)).toMatchObject({ number: '1.23', uncertainty: '0.29' })
  })
  test('an interval is lopsided where its narrower half is less than three quarters of the wider', () => {
    expect(isLopsided(10, [9, 11])).toBe(false)
    expect(isLopsided(10, [9.25, 11])).toBe(false)
    expect(isLopsided(10, [9.26, 11])).toBe(true)
    expect(isLopsided(10, [9, 10.7])).toBe(true)
  })
  test('an interval by its ends, each to two or three figures, in the unit asked for or the system’s', () => {
    expect(showWithInterval(0.557, [0.069, 1.88], 'volume', 'metric')).toMatchObject({ number: '557', low: '69', high: `1${NARROW}880`, unit: 'L' }) // prettier-ignore
    expect(showWithInterval(0.5, [0, 1], 'length', 'metric', 'mm')).toMatchObject({ number: '500', low: '0', high: `1${NARROW}000`, unit: 'mm' }) // prettier-ignore
    expect(showWithInterval(0.05, [0.011, 0.2], 'ratio', 'metric')).toMatchObject({ number: '0.050', low: '0.011', high: '0.20' }) // prettier-ignore
  })
  test('a percentage has a decimal below ten', () => {
    expect([showPercent(0.0994), showPercent(0.0995), showPercent(-0.05), showPercent(0.845)]).toEqual([`9.9${NARROW}%`, `10${NARROW}%`, `−5.0${NARROW}%`, `85${NARROW}%`]) // prettier-ignore
  })
  test('money has the decimals of its currency (ISO 4217): two for the euro, none for the yen, three for the dinar of Kuwait', () => {
    expect([moneyText(1290, 'EUR'), moneyText(1290, 'JPY'), moneyText(1290, 'KWD')]).toEqual(['12.90 EUR', '1290 JPY', '1.290 KWD']) // prettier-ignore
  })
})
