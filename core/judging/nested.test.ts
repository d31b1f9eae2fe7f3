import { GENERIC_MEDIA, type Medium } from '../media'
import { capacityFiguresOf, outcomeOf } from '../path'
import { caseWith, chamber, layer } from '../path/tests/support'
import { capacityInput, STOCK_CLASSES, supportedRange } from '../tanks'
import { assess } from '.'
import type { ModelRecord } from '../trials'
import { hookup, labelOnly, lph, trial } from './tests/support'

/** Normal deviates, the same every time: Box and Muller (1958) over a linear congruence (Numerical Recipes, ch. 7). */
function deviates(): () => number {
  let state = 20261201
  const even = (): number => {
    state = (1664525 * state + 1013904223) % 4294967296
    return (state + 0.5) / 4294967296
  }
  return () => Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even())
}
const CASES = 300
/** Share of cases in which what became known lies outside what was said before. */
const left = (outside: readonly boolean[]): number => outside.filter(Boolean).length / outside.length

test('knowing more: a flow measured later leaves the interval of the label in no more than 7 % of cases', () => {
  const next = deviates()
  const model = (label: number, more: Partial<ModelRecord> = {}): ModelRecord => ({
    ...labelOnly,
    claims: labelOnly.claims.map((c) => (c.quantity === 'rated-flow' ? { ...c, value: lph(label) } : c)),
    ...more,
  })
  const outside = Array.from({ length: CASES }, (_, i) => {
    const label = 400 + 5 * i
    const before = assess(model(label)).verdict.flow
    // Filters leave 50 to 60 % of their label as they are set up (common practice, no source).
    const real = label * (0.55 + 0.0255 * next())
    const loaded = trial('l', { flow: real, state: 'as-shipped', hookupId: 'h1' })
    const after = assess(model(label, { hookups: [hookup], trials: [loaded] })).verdict.flow
    expect(after?.provenance).toBe('measured')
    return Math.abs((after?.value ?? NaN) - (before?.value ?? NaN)) > (before?.uncertainty ?? 0)
  })
  expect(left(outside)).toBeLessThanOrEqual(0.07)
  // The band is not so wide that it says nothing.
  const { flow } = assess(model(1000)).verdict
  expect((flow?.uncertainty ?? 0) / (flow?.value ?? NaN)).toBeLessThan(0.6)
})

test('knowing more: a surface measured, media weighed, leave the interval of the litres in no more than 7 % of cases', () => {
  const next = deviates()
  const [normal] = STOCK_CLASSES.filter((c) => c.code === 'normal')
  if (!normal) throw new Error('no class')
  const solid = GENERIC_MEDIA.filter((m) => ['sintered', 'ceramic', 'foam'].includes(m.form))
  const range = (m: Medium, mm: number) => {
    const c = caseWith([layer('l', 'low', m, mm)], { media: [m], chambers: [chamber('low')] })
    return supportedRange(capacityInput(capacityFiguresOf(outcomeOf(c, normal, true)), 0.2), normal)
  }
  const outside = Array.from({ length: CASES }, (_, i) => {
    const m = solid[i % solid.length] as Medium
    const before = range(m, 20 + (i % 30))
    // Its usable surface, where nobody measured it, is known to about half of it (common practice, no source).
    const known = {
      ...m,
      effectiveSurface: (m.effectiveSurface ?? 0) * Math.max(0.05, 1 + 0.2 * next()),
      surfaceBand: 0.1,
    }
    const after = range(known, 20 + (i % 30))
    const [low, high] = before.maxInterval
    return after.max < low || after.max > high
  })
  expect(left(outside)).toBeLessThanOrEqual(0.07)
})
