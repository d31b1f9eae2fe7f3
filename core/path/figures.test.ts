import type { Figure } from '../figures'
import { waterProperties } from '../water'
import {
  asSecond, fillCapacityFigure, contactFigure, costFigure, differences, pathFlowFigure, freeFigure, fullFigure, headFigure, jobFigure, layerMassFigure, leftOverFigure, lineFigure, massFigure, mediaHeadFigure, meetsFigure, outcomeOf, bypassFigure, pumpHeadFigure, sideFigure, unstrainedFigure, velocityFigure,
} from '.' // prettier-ignore
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'

const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const RINGS = medium('Sintered glass rings')
const G = 9.80665

const o = outcomeOf(
  caseWith(
    [
      layer('coarse', 'low', COARSE, 30, { gap: 0.001 }),
      layer('fine', 'low', FINE, 20, { gap: 0.002 }),
      layer('rings', 'high', RINGS, 70, { gap: 0.003 }),
    ],
    { rest: 2e7 },
  ),
  NORMAL,
)
/** A line of a figure's working by its symbol. */
const of = (f: Figure, symbol: string): number => f.working?.find((w) => w.symbol === symbol)?.value ?? NaN
const sum = (f: Figure): number => f.working?.reduce((s, w) => s + w.value, 0) ?? NaN
const parts = (f: Figure, symbols: readonly string[]): readonly number[] => symbols.map((s) => of(f, s))

describe('every figure of the path, worked again from the numbers that its working shows', () => {
  const nu = waterProperties({ temperature: 25 }).kinematicViscosity
  test.each(o.layers.map((l) => [l.placed.medium.name, l] as const))('%s: head, share round it, velocity, time, weight', (_, l) => {
    const head = headFigure(l)
    const [L = NaN, v = NaN, k = NaN, c = NaN] = parts(head, ['L', 'v', 'k · 10⁹', 'C'])
    expect((L * ((nu * v) / (k * 1e-9) + c * v * v)) / G / head.value).toBeCloseTo(1, 6)
    const past = bypassFigure(l)
    const [through = NaN, round = NaN] = parts(past, ['through', 'past'])
    expect(round / (through + round)).toBeCloseTo(past.value, 9)
    // Both ways lose the same: plane Poiseuille flow with entry and exit through the gap, 1.5 velocity heads.
    const g = of(past, 'g')
    const perimeter = 4 * 0.2
    const u = round / (g * perimeter)
    const gapHead = (12 * nu * L * u) / (g * g * G) + (1.5 * u * u) / (2 * G)
    expect(gapHead / of(past, 'h')).toBeCloseTo(1, 2)
    const speed = velocityFigure(l)
    expect(of(speed, 'Q') / (of(speed, 'A') * 1e-4)).toBeCloseTo(speed.value, 9)
    const time = contactFigure(l)
    expect(of(time, 'V') / of(time, 'Q')).toBeCloseTo(time.value, 9)
    const mass = layerMassFigure(l)
    expect(of(mass, 'V') * of(mass, 'ρ')).toBeCloseTo(mass.value, 9)
  }) // prettier-ignore

  test('the pump’s head is spent to the last millimetre, and the flow’s working adds up to it', () => {
    const head = pumpHeadFigure(o)
    const [h0 = NaN, q0 = NaN, n = NaN, q = NaN] = parts(head, ['H0', 'Q0', 'n', 'Q'])
    expect(h0 * (1 - (q / q0) ** n)).toBeCloseTo(head.value, 6)
    const flow = pathFlowFigure(o)
    const spent = flow.working?.filter((w) => /^h\d+$/.test(w.symbol)).reduce((s, w) => s + w.value, 0)
    expect(spent).toBeCloseTo(head.value, 6)
    expect(sum(mediaHeadFigure(o))).toBeCloseTo(mediaHeadFigure(o).value, 12)
    for (const l of o.budget) expect(lineFigure(o, l).value).toBe(l.head)
  })

  test('with a second pump in the same run the figure names both, and gives both', () => {
    const second = { ...asSecond(o, 'Its like'), arrangement: 'series', running: true } as const
    const pair = outcomeOf({ ...o.case, second }, NORMAL)
    const head = pumpHeadFigure(pair)
    expect(head.label).toBe('Head both pumps give')
    const [h0 = NaN, q0 = NaN, n = NaN, h1 = NaN, q1 = NaN, m = NaN, q = NaN] = parts(head, ['H0', 'Q0', 'n', 'H0′', 'Q0′', 'n′', 'Q']) // prettier-ignore
    expect(h0 * (1 - (q / q0) ** n) + h1 * (1 - (q / q1) ** m)).toBeCloseTo(head.value, 6)
  })

  test('capacity is what the mass of its media carries', () => {
    const f = fillCapacityFigure(o, NORMAL)
    const [m = NaN, perKg = NaN] = parts(f, ['m', 'L/kg'])
    expect((m * perKg) / 1000).toBeCloseTo(f.value, 9)
    expect(meetsFigure(o).value).toBeCloseTo(1 - (o.layers[2]?.bypassFraction ?? NaN), 9)
  })

  test('what slips past the straining is what its worst fineness lets by at its tightest layer', () => {
    const f = unstrainedFigure(o)
    expect(f.value).toBeCloseTo(Math.max(of(f, 'p1'), of(f, 'p2')), 9)
    for (const s of o.sides) {
      const side = sideFigure(o, s)
      expect(of(side, 'q') / of(side, 'Q')).toBeCloseTo(side.value, 9)
    }
  })

  test('litres, kilograms and what is still free add up from their parts', () => {
    for (const job of ['coarse', 'fine', 'biological', 'all'] as const)
      expect(sum(jobFigure(o, job))).toBeCloseTo(jobFigure(o, job).value, 12)
    expect(sum(massFigure(o))).toBeCloseTo(massFigure(o).value, 12)
    for (const c of o.topology.chambers) {
      const f = freeFigure(c)
      expect(Math.abs(of(f, 'L') - (sum(f) - of(f, 'L')))).toBeCloseTo(f.value, 12)
    }
  })

  test('weight ready to run: the empty body, its media, and water where no solid matter stands', () => {
    const full = fullFigure(o)
    if (!full) throw new Error('the empty body was weighed')
    const water = (full.value - of(full, 'empty') - of(full, 'media')) / 998
    // Two trays and nothing else: what they hold, less the solids.
    const gross = 2 * 0.2 * 0.2 * 0.09
    expect(water).toBeCloseTo(gross - of(full, 'solid'), 6)
    expect(fullFigure(outcomeOf({ ...o.case, body: { ...o.case.body, emptyMass: null } }, NORMAL))).toBeNull()
  })

  test('a pack more than is needed is left over; what has no price is named', () => {
    const packed = o.shopping.filter((l) => l.packs !== null)
    expect(packed.length).toBeGreaterThan(1)
    for (const l of packed) {
      const f = leftOverFigure(l)
      expect(of(f, 'packs') * of(f, 'a pack') - of(f, 'needed')).toBeCloseTo(f.value, 12)
    }
    const cost = costFigure(o)
    expect(cost && sum(cost) - cost.value).toBeCloseTo(0, 9)
    const unpriced = {
      ...o.case,
      media: o.case.media.map((m) => ({ ...m, priceMinor: null, currency: null })),
    }
    expect(costFigure(outcomeOf(unpriced, NORMAL))).toBeNull()
  })

  test('differences are this fill’s figures less the other’s, in the figures’ own units', () => {
    const less = outcomeOf(
      { ...o.case, fill: { ...o.case.fill, layers: o.case.fill.layers.slice(1) } },
      NORMAL,
    )
    for (const d of differences(less, o, NORMAL)) {
      expect(of(d.change, 'this') - of(d.change, 'other')).toBeCloseTo(d.change.value, 12)
      expect([d.now.value, d.before.value]).toEqual(parts(d.change, ['this', 'other']))
    }
    // Without the coarse foam the media take less head, and the rest passes no worse.
    const change = (id: RegExp): number =>
      differences(less, o, NORMAL).find((d) => id.test(d.id))?.change.value ?? NaN
    expect(change(/^path-media-head/)).toBeLessThan(0)
    expect(change(/^path-flow/)).toBeGreaterThan(0)
    expect(differences(o, o, NORMAL).every((d) => d.change.value === 0)).toBe(true)
  })

  test('a chamber filled above its rim says by how much instead of a negative length', () => {
    const over = outcomeOf(caseWith([layer('l', 'low', COARSE, 100)], { chambers: [chamber('low')] }), NORMAL)
    const c = over.topology.chambers[0]
    if (!c) throw new Error('no chamber')
    expect(freeFigure(c)).toMatchObject({ label: 'Above the rim of low' })
    expect(freeFigure(c).value).toBeCloseTo(0.02, 9)
  })
})
