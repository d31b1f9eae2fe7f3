import { LABEL_EXPONENT } from '../hydraulics'
import { LOSS_UNCERTAINTY } from '../duty/dutyUncertainty'
import { resistanceOf, type Medium } from '../media'
import { studentQuantile } from '../statistics'
import { auditOrder, HOUSE_RULES, type HouseRule } from './audit'
import type { PathCase, CalibrationTrial } from './case'
import { HEATER_LIMIT, heaterCheck } from './fitted'
import { flowOfCase } from './flow'
import { pathSensitivity } from './helpful'
import { permeabilityFigure, usualBypass } from './mediumFigures'
import { outcomeOf } from './outcome'
import { outletOf } from './outlet'
import { atLift, restFrom } from './rest'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'

const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass rings')
const BAR = { kind: 'spray-bar', id: 'b', label: 'Bar', holes: 12, holeDiameter: 0.003, dischargeCoefficient: 0.6 } as const // prettier-ignore

/** Every piece of the run with so many times its loss: a hose as much longer, a hole as much narrower. */
function lossy(c: PathCase, by: number): PathCase {
  const segments = (c.hookup?.segments ?? []).map((x) => {
    if (x.kind === 'hose') return { ...x, length: x.length * by }
    if (x.kind === 'fitting') return { ...x, lossCoefficient: x.lossCoefficient * by }
    return x.kind === 'spray-bar' ? { ...x, dischargeCoefficient: x.dischargeCoefficient / Math.sqrt(by) } : x
  })
  return { ...c, hookup: c.hookup && { ...c.hookup, segments } }
}

/** A medium tighter by its relative standard uncertainty. */
function tight(c: PathCase, m: Medium): PathCase {
  const { permeability, inertia, relative } = resistanceOf(m)
  return { ...c, media: c.media.map((x) => (x.id === m.id ? { ...x, permeability: permeability / (1 + relative), inertia } : x)) } // prettier-ignore
}

describe('the doubt of a flow, told anew at the trial for each thing turned (GUM 5.1.3)', () => {
  const drive = { ...caseWith([]).drive, knowledge: { kind: 'label' }, from: 'label' } as const
  const shipped = caseWith([layer('m', 'low', SINTERED, 60)], { drive })
  const exact = { flow: 450 / 3.6e6, uncertainty: 0, lift: 0 }
  const layers = [layer('m', 'low', SINTERED, 60), layer('p', 'high', FINE, 20)]
  const rest = restFrom(shipped, exact)
  const byExact: CalibrationTrial = { case: { ...atLift(shipped, 0), rest }, knob: 'rest', flow: exact.flow, uncertainty: 0, degreesOfFreedom: 4 } // prettier-ignore
  test.each([
    ['on the level', 0, 0.8],
    ['lifted by 0.6 m', 0.6, 0.8],
    ['lifted by 1.2 m', 1.2, 9],
  ])(
    'curve, losses, media, the trial’s own doubt and the distance from it, in quadrature: %s',
    (_, lift, ownDoubt) => {
      const measured = { ...exact, uncertainty: ownDoubt / 3.6e6 }
      const told: CalibrationTrial = { ...byExact, uncertainty: measured.uncertainty }
      const there: PathCase = { ...atLift(shipped, lift), rest, told, fill: { ...shipped.fill, layers } }
      const o = outcomeOf(there, NORMAL)
      /** The flow once the body was told by the trial, both with the same things turned. */
      const flowWith = (turn: (c: PathCase) => PathCase, flow = measured.flow): number =>
        flowOfCase({ ...turn(there), rest: restFrom(turn(shipped), { ...measured, flow }) })
      const now = flowWith((c) => c)
      expect(o.flow / now).toBeCloseTo(1, 6)
      const exponent = (n: number) => flowWith((c) => ({ ...c, drive: { ...c.drive, pump: { ...c.drive.pump, exponent: n } } })) // prettier-ignore
      const byCurve = (exponent(LABEL_EXPONENT.high) - exponent(LABEL_EXPONENT.low)) / 2 / Math.sqrt(3)
      const losses = (by: number) => flowWith((c) => lossy(c, by))
      const byLosses = (losses(1 + LOSS_UNCERTAINTY) - losses(1 - LOSS_UNCERTAINTY)) / 2
      const denser = (m: Medium) => flowWith((c) => tight(c, m)) - now
      const own = flowWith((c) => c, measured.flow + measured.uncertainty) - now
      const away = 0.3 * (now - measured.flow)
      const variance = [byCurve, byLosses, denser(SINTERED), denser(FINE), own, away].reduce((s, u) => s + u * u, 0) // prettier-ignore
      const freedom = variance ** 2 / (own ** 4 / 4)
      expect(Math.abs(o.uncertainty / (studentQuantile(0.975, freedom) * Math.sqrt(variance)) - 1)).toBeLessThan(0.02) // prettier-ignore
    },
  )
  test.each([
    ['mostly losses', 1, {}, 20],
    ['mostly the pad', 0.01, { hookup: null }, 60],
    [
      'through a spray bar',
      1,
      { hookup: { ...(shipped.hookup as NonNullable<PathCase['hookup']>), segments: [BAR] } },
      20,
    ],
    ['mostly the curve', 25, { hookup: atLift(shipped, 0.8).hookup }, 2],
  ])(
    'told by nobody, curve, losses and media as they are; a fit’s with what its numbers have in common: %s',
    (_, doubt, more, pad) => {
      const covariance = [[4e-4, -3e-8, 1e-3], [-3e-8, 1.6e-11, -2e-7], [1e-3, -2e-7, 0.01]].map((r) => r.map((v) => v * doubt)) // prettier-ignore
      const fit = { covariance, scatter: covariance.map((r) => r.map(() => 0)), degreesOfFreedom: 3 } as never
      const c = caseWith([layer('f', 'low', FINE, pad), layer('m', 'high', SINTERED, 60)], { drive: { ...drive, knowledge: { kind: 'fit', fit } }, ...more }) // prettier-ignore
      const now = flowOfCase(c)
      const { pump } = c.drive
      const slope = (['shutOffHead', 'maxFlow', 'exponent'] as const).map((key) => {
        const at = (by: number) => flowOfCase({ ...c, drive: { ...c.drive, pump: { ...pump, [key]: pump[key] * by } } }) // prettier-ignore
        return (at(1.001) - at(0.999)) / (0.002 * pump[key])
      })
      const byCurve = covariance.reduce((sum, row, i) => sum + row.reduce((r, v, j) => r + v * (slope[i] ?? 0) * (slope[j] ?? 0), 0), 0) // prettier-ignore
      const losses = (by: number) => flowOfCase(lossy(c, by))
      const denser = (m: Medium) => flowOfCase(tight(c, m)) - now
      const variance = byCurve + ((losses(1.15) - losses(0.85)) / 2) ** 2 + denser(FINE) ** 2 + denser(SINTERED) ** 2 + (0.06 * now) ** 2 // prettier-ignore
      expect(outcomeOf(c, NORMAL).uncertainty / (1.95996 * Math.sqrt(variance))).toBeCloseTo(1, 3)
    },
  )
  test('a medium that is in neither fill adds nothing; one that was in the trial’s does', () => {
    // So many readings that the quantile does not move with what else is doubted.
    const sureTold = { ...byExact, uncertainty: 1e-6, degreesOfFreedom: 1e9 }
    const only = (media: readonly Medium[], list = layers) =>
      outcomeOf({ ...shipped, media, rest, told: { ...sureTold, case: { ...byExact.case, media } }, fill: { ...shipped.fill, layers: list } }, NORMAL).uncertainty // prettier-ignore
    const { media } = shipped
    const all = only(media)
    expect(only(media.filter((m) => [SINTERED.id, FINE.id].includes(m.id)))).toBe(all)
    const sure = (id: string) => media.map((m) => (m.id === id ? { ...m, permeability: resistanceOf(m).permeability, inertia: resistanceOf(m).inertia } : m)) // prettier-ignore
    expect(only(sure(COARSE.id))).toBe(all)
    expect(only(sure(FINE.id))).toBeLessThan(all)
    const pad = [layer('p', 'high', FINE, 20)]
    expect(only(media, pad)).not.toBe(only(sure(SINTERED.id), pad))
  })
})

describe('what one change would give', () => {
  const twice = [layer('c', 'low', COARSE, 30, { gap: 0.002 }), layer('f', 'low', FINE, 20, { fouled: 0.4 }), layer('g', 'high', FINE, 20)] // prettier-ignore
  const { hookup } = caseWith([])
  const c = caseWith(twice, { hookup: hookup && { ...hookup, outletAboveWater: 0.1 } })
  const o = outcomeOf(c, NORMAL, true)
  const changes = pathSensitivity(o)
  const with_ = (id: string, more: object) => outcomeOf({ ...c, fill: { ...c.fill, layers: twice.map((l) => (l.id === id ? { ...l, ...more } : l)) } }, NORMAL, true).flow // prettier-ignore
  const without = (id: string) => outcomeOf({ ...c, fill: { ...c.fill, layers: twice.filter((l) => l.id !== id) } }, NORMAL, true).flow // prettier-ignore
  test.each([
    ['without-c', 'Without coarse foam (10 ppi)', without('c')],
    ['without-f', 'Without fine pad in low', without('f')],
    ['without-g', 'Without fine pad in high', without('g')],
    ['closed-c', 'Gap at coarse foam (10 ppi) closed', with_('c', { gap: 0 })],
    ['half-c', 'Coarse foam, 10 ppi half full of dirt', with_('c', { fouled: 0.5 })],
    ['rinsed-f', 'Fine pad in low rinsed', with_('f', { fouled: 0 })],
    ['half-g', 'Fine pad in high half full of dirt', with_('g', { fouled: 0.5 })],
    ['lift', null, outcomeOf({ ...c, hookup }, NORMAL, true).flow],
  ])('%s: worked through whole, it comes to the same', (id, label, flow) => {
    const change = changes.find((x) => x.id === id)
    if (label) expect(change?.label).toBe(label)
    expect((change?.flow ?? NaN) / flow).toBeCloseTo(1, 6)
    expect(change?.change).toBeCloseTo(flow - o.flow, 9)
    expect(change?.figure).toMatchObject({ id: `path-change-${id}`, value: change?.change, conditions: ['only this change'] }) // prettier-ignore
    expect(change?.figure.working?.map((w) => [w.symbol, w.value])).toEqual([['Q(changed)', change?.flow], ['Q', o.flow]]) // prettier-ignore
  })
  test('no more than there is to change, the largest first', () => {
    const layersOf = changes.map((x) => x.id).filter((id) => /^(without|closed|half|rinsed)-[cfg]$/.test(id))
    expect(layersOf.sort()).toEqual(['closed-c', 'half-c', 'half-g', 'rinsed-f', 'without-c', 'without-f', 'without-g']) // prettier-ignore
    const sizes = changes.map((x) => Math.abs(x.change))
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a))
    expect(pathSensitivity(outcomeOf({ ...c, hookup: null }, NORMAL, true)).map((x) => x.id)).not.toContain('lift') // prettier-ignore
  })
})

describe('small sums', () => {
  test('permeability in 10⁻⁹ m² with twice its standard uncertainty, and what it follows from', () => {
    const { permeability, relative } = resistanceOf(FINE)
    const f = permeabilityFigure(FINE)
    expect(f?.uncertainty).toBeCloseTo(2 * relative * permeability * 1e9, 9)
    expect(f?.conditions).toEqual(['from fibre and solidity', 'clean'])
    const lines = (m: Medium) => permeabilityFigure(m)?.working?.map((w) => [w.symbol, w.value])
    expect(lines(FINE)).toEqual([['d_f', (FINE.fibre ?? 0) * 1e6], ['s', FINE.solidity], ['C', resistanceOf(FINE).inertia]]) // prettier-ignore
    expect(lines(COARSE)).toEqual([
      ['ppi', 10],
      ['C', resistanceOf(COARSE).inertia],
    ])
    const calibrated = { ...FINE, permeability: 2e-9, inertia: 300 }
    expect(lines(calibrated)?.at(-1)).toEqual(['k', expect.closeTo(permeability * 1e9, 9)])
    expect(permeabilityFigure(calibrated)?.provenance).toBe('measured')
    expect(usualBypass(FINE, 0.002)?.conditions?.slice(0, 3)).toEqual(['tray of 20 by 20 cm', '1000 L/h', 'layer of 20 mm']) // prettier-ignore
  })
  test('a lip takes four fifths of a hang-on-back’s usual 0.2 m', () => {
    expect(outletOf('hang-on-back', null).width).toBeCloseTo(0.16, 12)
  })
  test('a heater: 5 K at least flow, borderline within three tenths of it', () => {
    // 300 W over 997 · 4182 J/(m³ K) · 5 K are 1.439e-5 m³/s, 51.8 L/h.
    expect(HEATER_LIMIT).toBe(5)
    const at = (times: number) => heaterCheck(300, times * 1.43904e-5)
    expect(at(1).least.value).toBeCloseTo(1.43904e-5, 9)
    expect((at(1).least.uncertainty ?? 0) / at(1).least.value).toBeCloseTo(0.3, 12)
    expect([0.69, 0.71, 1.29, 1.31].map((t) => JSON.stringify(at(t).sentences[0]).includes('Borderline'))).toEqual([false, true, true, false]) // prettier-ignore
    expect([at(0.99).enough, at(1.01).enough]).toEqual([false, true])
    expect(at(1).rise.working?.map((w) => w.symbol)).toEqual(['P', 'Q'])
    expect(at(1).least.working?.map((w) => w.value)).toEqual([300])
  })
  test('findings: faults before cautions before notes, of one severity the heavier first', () => {
    const rules = HOUSE_RULES[0] as HouseRule
    const c = caseWith([layer('m', 'low', SINTERED, 95, { gap: 0.02 }), layer('f', 'high', FINE, 20)], { chambers: [chamber('void', { role: 'settling-void' }), chamber('low'), chamber('high')] }) // prettier-ignore
    const found = auditOrder(outcomeOf(c, NORMAL, true), { ...rules, rules: { 'diffuser-in-void': { on: true }, 'bypass-share': { weight: 9 } } }) // prettier-ignore
    const rank = { fault: 0, caution: 1, note: 2 }
    const order = found.map((f) => rank[f.rule.severity] * 100 - f.weight)
    expect(new Set(found.map((f) => f.rule.severity)).size).toBe(3)
    expect(order).toEqual([...order].sort((a, b) => a - b))
    expect(found.find((f) => f.rule.id === 'bypass-share')?.weight).toBe(9)
  })
})
