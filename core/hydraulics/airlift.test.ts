import fc from 'fast-check'
import { airlift, voidFraction, type Riser } from '.'
import { STANDARD_GRAVITY } from '../water'

const lph = (q: number): number => q * 3.6e6
const riser: Riser = { diameter: 0.016, submergence: 0.3, lift: 0.02 }

test('the least air that lifts at all (theory): j_g = 0.35 √(gD) (1 − s) / (1 − 1.2 (1 − s)), s = S/(S + L)', () => {
  for (const lift of [0.02, 0.05, 0.08]) {
    const s = 0.3 / (0.3 + lift)
    const onset = (0.35 * Math.sqrt(STANDARD_GRAVITY * 0.016) * (1 - s)) / (1 - 1.2 * (1 - s))
    const air = onset * (Math.PI / 4) * 0.016 ** 2
    expect(airlift({ ...riser, lift }, air * 0.999).stalled).toBe(true)
    const just = airlift({ ...riser, lift }, air * 1.01)
    expect(just.stalled).toBe(false)
    expect(just.flow).toBeGreaterThan(0)
  }
})

test('slug rise in still water is 0.35 √(gD) (Nicklin 1962; from memory): the air share of a slow stream is j_g over it', () => {
  const rise = 0.35 * Math.sqrt(STANDARD_GRAVITY * 0.016)
  expect(voidFraction(1e-6, 0, 0.016)).toBeCloseTo(1e-6 / rise, 9)
})

test('an ordinary riser moves one to eight times the air it is given at this small lift (common practice, no source)', () => {
  for (const air of [40, 60, 90, 120]) {
    const times = lph(airlift(riser, air / 3.6e6).flow) / air
    expect(times).toBeGreaterThan(1)
    expect(times).toBeLessThan(8)
  }
})

const any = fc.record({
  diameter: fc.double({ min: 0.008, max: 0.03, noNaN: true }),
  submergence: fc.double({ min: 0.1, max: 0.8, noNaN: true }),
  lift: fc.double({ min: 0, max: 0.1, noNaN: true }),
})

test('more lift never moves more water, deeper air never less at the same height of lift', () => {
  fc.assert(
    fc.property(any, fc.double({ min: 1e-6, max: 6e-5, noNaN: true }), (r, air) => {
      const now = airlift(r, air).flow
      expect(airlift({ ...r, lift: r.lift + 0.02 }, air).flow).toBeLessThanOrEqual(now + 1e-12)
      expect(now).toBeGreaterThanOrEqual(0)
    }),
  )
})

test('at the answer the submergence carries column, friction and entry exactly', () => {
  fc.assert(
    fc.property(any, fc.double({ min: 1e-5, max: 4e-5, noNaN: true }), (r, air) => {
      const a = airlift(r, air)
      if (a.stalled) return
      const area = (Math.PI / 4) * r.diameter ** 2
      // The column alone must leave something for friction and entry.
      expect((1 - a.voidFraction) * (r.submergence + r.lift)).toBeLessThan(r.submergence)
      expect(a.voidFraction).toBeCloseTo(voidFraction(air / area, a.flow / area, r.diameter), 12)
    }),
  )
})

test('a riser or an air flow that cannot be is named', () => {
  expect(() => airlift({ ...riser, diameter: 0 }, 1e-5)).toThrow('diameter')
  expect(() => airlift({ ...riser, lift: -1 }, 1e-5)).toThrow('lift')
  expect(() => airlift(riser, -1)).toThrow('airFlow')
  expect(airlift(riser, 0)).toMatchObject({ flow: 0, stalled: true })
})
