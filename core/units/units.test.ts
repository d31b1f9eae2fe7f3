import fc from 'fast-check'
import { UnreadableQuantity } from '../errors'
import {
  fromSI,
  parseQuantity,
  preferredUnit,
  showPercent,
  showQuantity,
  showWithUncertainty,
  UNITS,
} from '.'
import type { Dimension, UnitSystem } from '.'

const si = (text: string, dimension: Dimension, system: UnitSystem = 'metric') =>
  parseQuantity(text, { dimension, system }).si

describe('reading what people type', () => {
  // Factors exact by definition: foot, inch, pound (1959 agreement), US gallon (231 in³), imperial gallon (4.546 09 L).
  test.each<[string, Dimension, UnitSystem, number]>([
    ['2.5 gal', 'volume', 'us', 2.5 * 3.785411784e-3],
    ['2.5 gal', 'volume', 'imperial', 2.5 * 4.54609e-3],
    ['6 ft 2 in', 'length', 'metric', 74 * 0.0254],
    ['6 ft 2', 'length', 'us', 74 * 0.0254],
    [`6'2"`, 'length', 'us', 74 * 0.0254],
    ['3 1/2 in', 'length', 'us', 3.5 * 0.0254],
    ['1,5 l', 'volume', 'metric', 1.5e-3],
    ['120 gph', 'flow', 'us', (120 * 3.785411784e-3) / 3600],
    ['1 000 L/h', 'flow', 'metric', 1 / 3600],
    ['1 200,5 l', 'volume', 'metric', 1.2005],
    ['1.234,5 l', 'volume', 'metric', 1.2345],
    ['900', 'flow', 'metric', 0.9 / 3600],
    ['45', 'length', 'metric', 0.45],
    ['75 °F', 'temperature', 'us', (75 - 32) / 1.8],
    ['-3 °C', 'temperature', 'metric', -3],
    ['2 lb 8 oz', 'mass', 'us', 2.5 * 0.45359237],
    ['.5 m', 'head', 'metric', 0.5],
    ['40 %', 'ratio', 'metric', 0.4],
  ])('%s (%s, %s)', (text, dimension, system, expected) => {
    expect(si(text, dimension, system)).toBeCloseTo(expected, 12)
  })

  test.each(['abc', '12 parsecs', '', '1,2,3 l', '--4', '3 l 4', '12x'])(
    '%p is refused with what would be accepted',
    (text) => {
      try {
        si(text, 'volume')
        throw new Error('accepted')
      } catch (error) {
        expect(error).toBeInstanceOf(UnreadableQuantity)
        expect((error as UnreadableQuantity).allowed.words).toContain('120 L')
      }
    },
  )

  test('a comma with two readings is asked about, not guessed', () => {
    expect(() => si('1,200 l', 'volume')).toThrow('Type 1200 or 1.200')
  })

  test('what is shown can be read back, in every unit', () => {
    const dims = Object.keys(UNITS) as Dimension[]
    fc.assert(
      fc.property(
        fc.constantFrom(...dims),
        fc.constantFrom<UnitSystem>('metric', 'us', 'imperial'),
        fc.double({ min: 0.001, max: 99999, noNaN: true }),
        (dimension, system, value) => {
          const shown = showQuantity(value, dimension, system, 9)
          const back = parseQuantity(`${shown.number} ${shown.unit}`, { dimension, system })
          expect(Math.abs(back.si - value)).toBeLessThan(1e-5 * Math.max(1, value))
        },
      ),
    )
  })

  test('no text makes it hang or throw anything but its own error', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        try {
          expect(Number.isFinite(si(text, 'length'))).toBe(true)
        } catch (error) {
          expect(error).toBeInstanceOf(UnreadableQuantity)
        }
      }),
    )
  })
})

describe('showing', () => {
  test('uncertainty sets the figures', () => {
    const q = 612.3 / 3.6e6
    expect(showWithUncertainty(q, 14.2 / 3.6e6, 'flow', 'metric')).toEqual({
      number: '612',
      uncertainty: '14',
      unit: 'L/h',
    })
    expect(showWithUncertainty(1.8342, 0.052, 'head', 'metric')).toEqual({
      number: '1.83',
      uncertainty: '0.05',
      unit: 'm',
    })
  })
  test('thousands are set apart and minus is a minus', () => {
    expect(showQuantity(12.3456, 'volume', 'metric', 5).number).toBe('12\u202f346')
    expect(showQuantity(-0.00004, 'length', 'metric', 1).number).toBe('−0.004')
    expect(showPercent(0.8454)).toBe('85\u202f%')
    expect(showPercent(-0.052)).toBe('−5.2\u202f%')
  })
  test('temperature converts both ways', () => {
    expect(fromSI(25, preferredUnit('temperature', 'us'))).toBeCloseTo(77, 12)
  })
})

test('a point before three digits is asked about where it may part thousands: 1.000 always, 1.200 L/h, never 1.235 kg', () => {
  const read = (text: string, dimension: Dimension) => parseQuantity(text, { dimension }).si
  expect(() => read('1.000 l/h', 'flow')).toThrow('Type 1000 or 1')
  expect(() => read('1.200 L/h', 'flow')).toThrow('Type 1200 or 1.2')
  expect(() => read('1.000', 'volume')).toThrow('Type 1000 or 1')
  expect(read('1.235 kg', 'mass')).toBeCloseTo(1.235, 12)
  expect(read('0.250 L', 'volume')).toBeCloseTo(0.25e-3, 15)
  expect(read('1.2 L/h', 'flow') * 3.6e6).toBeCloseTo(1.2, 9)
  expect(read('1000 L/h', 'flow') * 3.6e6).toBeCloseTo(1000, 9)
})

test('gallons a minute are US ones unless said otherwise, whatever the system (231 in³, 1959)', () => {
  const read = (text: string, system: UnitSystem) =>
    parseQuantity(text, { dimension: 'flow', system }).si * 60
  for (const system of ['metric', 'us', 'imperial'] as const) {
    expect(read('10 us gpm', system)).toBeCloseTo(10 * 3.785411784e-3, 12)
    expect(read('10 US gal/min', system)).toBeCloseTo(10 * 3.785411784e-3, 12)
  }
})
