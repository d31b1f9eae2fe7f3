import fc from 'fast-check'
import { layer, medium } from '../path/tests/support'
import type { Medium } from '../media'
import { canister, clog, COARSE, FINE_FOAM, MEDIUM, PAD, sponge, STRAIN_FIRST, tankOf } from './cases.fixture'
import { answersOf } from './study'
import { forecast, type ClogCase } from './run'
import { intakeId } from './waterways'

const DAYS = 120
/** Days until the flow is down by 30 %; never within the run where it is not. */
const fallsAfter = (c: ClogCase): number => answersOf(forecast({ ...c, days: DAYS })).toFall ?? Infinity
/** No later, to what the steps of a run are worth; what falls at its very end may be just past it. */
const noLater = (a: number, b: number): boolean => a <= b * 1.02 + 0.1 || b > 0.97 * DAYS

const anyTank = fc.record({
  litres: fc.double({ min: 60, max: 500, noNaN: true }),
  code: fc.constantFrom('light', 'normal', 'heavy'),
})
const STACKS = {
  pad: [layer('p', 'a', PAD, 20)],
  'coarse and pad': [layer('c', 'a', COARSE, 30), layer('p', 'b', PAD, 20)],
  'strain first': STRAIN_FIRST,
}
const anyStack = fc.constantFrom(...(Object.keys(STACKS) as (keyof typeof STACKS)[]))

test('more dirt is never later, be it more of all or pieces added to the same fines: 40 cases', () => {
  fc.assert(
    fc.property(
      anyTank,
      anyStack,
      fc.double({ min: 1.05, max: 2, noNaN: true }),
      fc.boolean(),
      (t, s, times, pieces) => {
        const tank = tankOf(t.litres, t.code)
        const more = pieces
          ? {
              ...tank,
              feed: tank.feed * (1 + (times - 1) * 0.5),
              shares: tank.shares.map(
                (x, k) => (x + (k === 0 ? (times - 1) * 0.5 : 0)) / (1 + (times - 1) * 0.5),
              ),
            }
          : { ...tank, feed: tank.feed * times }
        const path = canister(STACKS[s])
        expect(noLater(fallsAfter(clog(path, more)), fallsAfter(clog(path, tank)))).toBe(true)
      },
    ),
    { numRuns: 40 },
  )
})

test('a coarse pre-filter rinsed weekly is never sooner: 30 cases', () => {
  const weekly = Array.from({ length: 17 }, (_, i) => ({
    day: 7 * (i + 1),
    layers: [intakeId(0)],
    share: 0.9,
  }))
  fc.assert(
    fc.property(anyTank, anyStack, fc.constantFrom(COARSE, MEDIUM), (t, s, m) => {
      const tank = tankOf(t.litres, t.code)
      const path = canister(STACKS[s])
      const without = fallsAfter(clog(path, tank))
      const behind = fallsAfter(clog(path, tank, { intake: [sponge(m, 0.03, 0.03)], services: weekly }))
      expect(noLater(without, behind)).toBe(true)
    }),
    { numRuns: 30 },
  )
})

test('finer foam is never later at one depth, and coarse ahead of fine never sooner: 20 tanks', () => {
  const of = (...layers: Parameters<typeof canister>[0]) => canister(layers)
  fc.assert(
    fc.property(anyTank, (t) => {
      const tank = tankOf(t.litres, t.code)
      const foams = [COARSE, MEDIUM, FINE_FOAM].map((m) => fallsAfter(clog(of(layer('x', 'a', m, 30)), tank)))
      const [coarse = 0, middle = 0, fine = 0] = foams
      expect([noLater(middle, coarse), noLater(fine, middle)]).toEqual([true, true])
      const pad = fallsAfter(clog(of(layer('p', 'b', PAD, 20)), tank))
      const ahead = fallsAfter(clog(of(layer('c', 'a', COARSE, 30), layer('p', 'b', PAD, 20)), tank))
      expect(noLater(pad, ahead)).toBe(true)
    }),
    { numRuns: 20 },
  )
})

describe('as the trade knows it (common practice, no source)', () => {
  const due = (c: ClogCase): number => answersOf(forecast(c)).due?.day ?? Infinity
  const body = canister(STRAIN_FIRST)
  const crowded = tankOf(300, 'heavy')
  const weekly = Array.from({ length: 52 }, (_, i) => ({
    day: 7 * (i + 1),
    layers: [intakeId(0)],
    share: 0.9,
  }))
  test('crowded: three to six weeks without a pre-filter, nine months and more behind one rinsed weekly', () => {
    const alone = due(clog(body, crowded, { days: 365 }))
    expect(alone).toBeGreaterThan(21)
    expect(alone).toBeLessThan(43)
    const pre = { days: 365, intake: [sponge(MEDIUM, 0.03, 0.02)], services: weekly }
    expect(due(clog(body, crowded, pre))).toBeGreaterThan(270)
  })
  test('a coarse intake sponge that nobody rinses is worth months', () => {
    const behind = (code: string, litres: number): readonly [number, number] => {
      const tank = tankOf(litres, code)
      const intake = [sponge(COARSE, 0.03, 0.02)]
      return [due(clog(body, tank, { days: 365 })), due(clog(body, tank, { days: 365, intake }))]
    }
    const [alone, over] = behind('heavy', 300)
    expect(over - alone).toBeGreaterThan(60)
    const [normal, guarded] = behind('normal', 200)
    expect(guarded - normal).toBeGreaterThan(90)
  })
  test('a fine intake sponge blinds in weeks where it is never rinsed', () => {
    const fine = { days: 365, intake: [sponge(FINE_FOAM, 0.03, 0.02)] }
    expect(due(clog(body, crowded, fine))).toBeLessThan(42)
    expect(due(clog(body, crowded, { ...fine, intake: [sponge(COARSE, 0.03, 0.02)] }))).toBeGreaterThan(90)
  })
  test('loose floss clogs in weeks; coarse, medium and fine outlast fine alone', () => {
    const floss = medium('Floss')
    const alone = (m: Medium, mm: number) =>
      due(clog(canister([layer('x', 'a', m, mm)]), tankOf(200, 'normal')))
    expect(alone(floss, 40)).toBeGreaterThan(14)
    expect(alone(floss, 40)).toBeLessThan(49)
    const three = due(clog(canister(STRAIN_FIRST.slice(0, 3)), tankOf(200, 'normal')))
    expect(three).toBeGreaterThan(1.5 * alone(PAD, 20))
  })
  test('behind coarse foam alone the water of a tank is clear: fines settle and floc in the tank itself', () => {
    const run = forecast(clog(canister([layer('c', 'a', COARSE, 30)]), tankOf(200, 'normal'), { days: 30 }))
    expect((run.days[30]?.haze ?? 1) * 1e3).toBeLessThan(2)
  })
})
