import { dice, monteCarlo, shareAbove } from '.'

describe('distributions through a model (JCGM 101:2008, 9.2: the sum of four alike inputs; from memory)', () => {
  const N = 200_000
  test('four standard normal inputs: ± 3.92', () => {
    const d = monteCarlo((x) => x.normal() + x.normal() + x.normal() + x.normal(), N, 4680)
    expect(d.low).toBeCloseTo(-3.92, 1)
    expect(d.high).toBeCloseTo(3.92, 1)
    expect(d.middle).toBeCloseTo(0, 1)
  })
  test('four rectangular inputs of the same standard deviation: ± 3.88', () => {
    const half = Math.sqrt(3)
    const one = (u: () => number) => (2 * u() - 1) * half
    const d = monteCarlo(({ uniform: u }) => one(u) + one(u) + one(u) + one(u), N, 4680)
    expect(d.low).toBeCloseTo(-3.88, 1)
    expect(d.high).toBeCloseTo(3.88, 1)
    // Narrower than the normal case, which half a per cent of chance does not hide.
    expect(d.high).toBeLessThan(3.92)
  })
  test('the same seed gives the same draws; another gives others', () => {
    const of = (seed: number) => monteCarlo((x) => x.normal(), 100, seed).sorted
    expect(of(1)).toEqual(of(1))
    expect(of(1)).not.toEqual(of(2))
  })
  test('shares and ends by hand: a hundred draws of 1 to 100', () => {
    let i = 0
    const d = monteCarlo(() => ++i, 100, 1)
    expect([d.low, d.middle, d.high]).toEqual([3, 50, 98])
    expect(shareAbove(d, 90)).toBeCloseTo(0.1, 12)
    expect(shareAbove({ ...d, sorted: [] }, 1)).toBe(0)
    expect(() => monteCarlo(() => 1, 5, 1)).toThrow('n')
    expect(() => monteCarlo(() => 1, 2e6, 1)).toThrow('n')
  })
  test('normal numbers have mean 0 and deviation 1', () => {
    const { normal } = dice(7)
    const v = Array.from({ length: 50_000 }, normal)
    const mean = v.reduce((a, b) => a + b, 0) / v.length
    expect(mean).toBeCloseTo(0, 1)
    expect(v.reduce((a, b) => a + (b - mean) ** 2, 0) / v.length).toBeCloseTo(1, 1)
  })
})
