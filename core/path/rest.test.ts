import { resistanceOf } from '../media'
import type { PathCase } from './case'
import { flowOfCase } from './flow'
import { atLift, calibrateMedium, reachFrom, restFrom } from './rest'
import { caseWith, layer, medium } from './tests/support'

const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const bare = caseWith([layer('c', 'low', COARSE, 30)])
const padded = caseWith([layer('c', 'low', COARSE, 30), layer('f', 'low', FINE, 40)])
const told = (flow: number, lift = 0, uncertainty = 0) => ({ flow, lift, uncertainty })

describe('what the body takes, and how far the curve reaches', () => {
  test.each([0.9, 0.5, 0.2, 0.05])(
    'at %f of the flow: put back, it gives the flow that was measured',
    (share) => {
      const free = flowOfCase(atLift(bare, 0))
      const rest = restFrom(bare, told(share * free))
      expect(flowOfCase(atLift({ ...bare, rest }, 0)) / (share * free)).toBeCloseTo(1, 6)
    },
  )
  test.each([0.3, 0.9, 1.2])('a curve that reaches so that %f of the flow comes through', (share) => {
    const flow = share * flowOfCase(atLift(bare, 0))
    const reach = reachFrom(bare, told(flow))
    const { drive } = bare
    const pump = { ...drive.pump, maxFlow: drive.pump.maxFlow * reach }
    expect(flowOfCase(atLift({ ...bare, drive: { ...drive, pump } }, 0)) / flow).toBeCloseTo(1, 5)
  })
  test('no reach gives what no curve could', () => {
    expect(reachFrom(bare, told(1))).toBe(1)
    expect(reachFrom(bare, told(1e-9))).toBe(1)
  })
  test('nothing where nothing is left to take: the flow itself, a lift past the shut-off head, no hookup', () => {
    const free = flowOfCase(atLift(bare, 0.5))
    expect(restFrom(bare, told(free, 0.5))).toBe(0)
    expect(restFrom(bare, told(1e-5, 1.7))).toBe(0)
    expect(restFrom(bare, told(1e-5, 2))).toBe(0)
    // What a body took before is told anew.
    expect(restFrom({ ...bare, rest: 1e9 }, told(0.5 * free, 0.5))).toBeCloseTo(restFrom(bare, told(0.5 * free, 0.5)), -2) // prettier-ignore
    const loose: PathCase = { ...bare, hookup: null }
    expect(atLift(loose, 0.3).hookup).toEqual({ id: 'bare', name: 'no plumbing', bodyBelowWater: 0, segments: [], outletAboveWater: 0.3, sourceBelowWater: 0 }) // prettier-ignore
    expect(restFrom(loose, told(0.5 * flowOfCase(atLift(loose, 0))))).toBeGreaterThan(0)
  })
})

describe('a medium’s permeability and its interval', () => {
  const free = flowOfCase(atLift({ ...bare, rest: 6e6 }, 0))
  const slow = 0.6 * free
  const calibrate = (a: number, b: number, ua = 0, ub = 0, media = padded.media) =>
    calibrateMedium({ without: { case: bare, measured: told(a, 0, ua) }, with: { case: { ...padded, media }, measured: told(b, 0, ub) } }, FINE.id) // prettier-ignore
  test('both flows turned by their doubt and worked out again, in quadrature on ln k, twice over (GUM 5.1.3)', () => {
    const [ua, ub] = [0.01 * free, 0.02 * slow]
    const best = calibrate(free, slow, ua, ub)
    const by = Math.hypot(Math.log(calibrate(free + ua, slow).permeability / best.permeability), Math.log(calibrate(free, slow + ub).permeability / best.permeability)) // prettier-ignore
    expect(Math.log(best.interval[1] / best.permeability)).toBeCloseTo(2 * by, 9)
    expect(Math.log(best.permeability / best.interval[0])).toBeCloseTo(2 * by, 9)
    expect(by).toBeGreaterThan(0.01)
    expect(calibrate(free, slow).interval).toEqual([best.permeability, best.permeability])
  })
  test('where a turned flow shows no loss any more, the doubt of ln k is 2', () => {
    const { permeability, interval } = calibrate(free, slow, 0, free)
    expect(Math.log(interval[1] / permeability)).toBeCloseTo(4, 6)
  })
  test('the inertia is the model’s, else the medium’s own, else none', () => {
    expect(calibrate(free, slow)).toMatchObject({ inertia: resistanceOf(FINE).inertia, model: resistanceOf(FINE).permeability }) // prettier-ignore
    const unknown = { fibre: null, solidity: null, grain: null, voidage: null, poresPerInch: null }
    const own = (inertia: number | null) => calibrate(free, slow, 0, 0, padded.media.map((m) => (m.id === FINE.id ? { ...m, ...unknown, permeability: 1e-9, inertia } : m))) // prettier-ignore
    expect([own(300).inertia, own(null).inertia, own(300).model]).toEqual([300, 0, null])
  })
})
