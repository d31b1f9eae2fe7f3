import {
  approachSpeed,
  gentleFrom,
  jetSpeed,
  leaving,
  stirsSurface,
  strongShare,
  surfaceSpeed,
  withHoles,
  type Outlet,
} from '.'

const lph = (v: number): number => v / 3.6e6

describe('how water comes back', () => {
  const nozzle: Outlet = {
    kind: 'nozzle',
    aim: 'along',
    depth: 0.02,
    diameter: 0.013,
    holes: 1,
    spacing: 0.02,
    width: 0.1,
  }
  const bar: Outlet = { ...nozzle, kind: 'spray-bar', diameter: 0.004, holes: 20, spacing: 0.02 }
  const lip: Outlet = { ...nozzle, kind: 'lip', width: 0.1 }
  const q = lph(600)
  test('a round jet falls as 6 D/x (Pope): 600 L/h from 13 mm leave at 1.256 m/s and are 9.8 cm/s after a metre', () => {
    expect(leaving(nozzle, q).speed).toBeCloseTo(1.2557, 4)
    expect(jetSpeed(nozzle, q, 1)).toBeCloseTo(0.0979, 4)
    expect(jetSpeed(nozzle, q, 0.05)).toBeCloseTo(1.2557, 4)
    // 0.2 m/s: x = 6 · 0.013 · 1.2557/0.2 = 0.4897 m.
    expect(gentleFrom(nozzle, q, 0.2)).toBeCloseTo(0.4897, 3)
    expect(strongShare(nozzle, q, 0.2, 0.8)).toBeCloseTo(0.612, 3)
    expect(strongShare(nozzle, q, 0.2, 0.3)).toBe(1)
    expect(gentleFrom(nozzle, q, 2)).toBe(0)
    expect(gentleFrom(nozzle, q, 1e-4)).toBe(Infinity)
  })
  test('a spray bar: single jets, then a plane jet of the same momentum (Rajaratnam), then a round one of the whole', () => {
    const { speed, momentum } = leaving(bar, q)
    expect(speed).toBeCloseTo(0.6631, 4)
    expect(momentum).toBeCloseTo(q * 0.6631, 7)
    // At 5 cm they have not met (0.02/(2 · 0.094) = 10.6 cm): 6 · 4 mm/50 mm.
    expect(jetSpeed(bar, q, 0.05)).toBeCloseTo(0.6631 * 0.48, 3)
    // At 0.3 m: slot π 4²/4/20 = 0.6283 mm: 2.475 √(0.6283/300) = 0.11327, above the single jet’s 0.08.
    expect(jetSpeed(bar, q, 0.3)).toBeCloseTo(0.6631 * 0.11327, 4)
    // At 3 m the whole as one: D = 4 mm · √20 = 17.9 mm, 6 · 17.9/3000 = 0.03578; the plane jet would be 0.0358.
    expect(jetSpeed(bar, q, 3)).toBeCloseTo(0.6631 * 0.03578, 4)
    expect(jetSpeed(bar, q, 0.6)).toBeLessThan(jetSpeed(nozzle, q, 0.6))
    // Half of the holes, twice the speed.
    expect(leaving(withHoles(bar, 10), q).speed / speed).toBeCloseTo(2, 12)
    expect(jetSpeed({ ...bar, holes: 1 }, q, 1)).toBeGreaterThan(jetSpeed(bar, q, 1))
    expect(() => withHoles(bar, 0)).toThrow('holes')
  })
  test('a lip lets go at critical speed: 600 L/h over 10 cm at 0.2538 m/s', () => {
    // (9.80665 · 1.6667e-4/0.1)^⅓.
    expect(leaving(lip, q).speed).toBeCloseTo(0.2538, 4)
    // Depth Q/(w u) = 6.567 mm: at 0.5 m 2.475 √(6.567/500) = 0.2836; as a round jet D = 28.9 mm: 0.347.
    expect(jetSpeed(lip, q, 0.5)).toBeCloseTo(0.2538 * 0.2836, 3)
    expect(jetSpeed({ ...lip, aim: 'glass' }, q, 0.5) / jetSpeed(lip, q, 0.5)).toBeCloseTo(0.4, 12)
    expect(() => leaving({ ...lip, width: 0 }, q)).toThrow('width')
  })
  test('what stirs the surface, and how much', () => {
    expect(stirsSurface(nozzle)).toBe(true)
    const deep = { ...nozzle, depth: 0.25 }
    expect(stirsSurface(deep)).toBe(false)
    expect(stirsSurface({ ...deep, aim: 'surface' })).toBe(true)
    expect(stirsSurface({ ...deep, kind: 'airlift' })).toBe(true)
    // 2 √(Q u₀)/W = 2 √(1.6667e-4 · 1.2557)/0.4 = 0.07233 m/s.
    expect(surfaceSpeed(nozzle, q, 0.4)).toBeCloseTo(0.07233, 4)
    expect(surfaceSpeed(deep, q, 0.4) / surfaceSpeed(nozzle, q, 0.4)).toBeCloseTo(0.3, 12)
    expect(jetSpeed(nozzle, 0, 1)).toBe(0)
    expect(approachSpeed(q, 2e-3)).toBeCloseTo(0.0833, 4)
    expect(() => approachSpeed(q, 0)).toThrow('openArea')
  })
})
