import { sentenceText } from '../figures'
import { auditOrder, HOUSE_RULES, type HouseRule, type OrderFinding } from './audit'
import { changesOf, differences, schoolViews } from './compare'
import { outcomeOf } from './outcome'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'

const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass rings')
const [STRAIN] = HOUSE_RULES as [HouseRule]
// Trays of 0.04 m²: a millimetre is 40 mL.
const of = (...layers: ReturnType<typeof layer>[]) => outcomeOf(caseWith(layers), NORMAL, true)
const before = of(layer('m', 'low', SINTERED, 50), layer('f', 'high', FINE, 20))
const now = of(layer('c', 'low', COARSE, 30), layer('f', 'low', FINE, 20), layer('m', 'high', SINTERED, 70))
const findings = (a: typeof now, b: typeof now) => ({
  now: auditOrder(a, STRAIN),
  before: auditOrder(b, STRAIN),
})
const text = (...s: Parameters<typeof changesOf>) => changesOf(...s).map((x) => sentenceText(x, 'metric'))
const none = { now: [], before: [] }

describe('what a fill changes, chamber by chamber', () => {
  test('litres more and less, in the order of the water; then what it mends and gives up, each once', () => {
    // 70 mm in the upper tray are 2.8 L, 50 in the lower 2 L; pads of 20 mm 0.8 L, foam of 30 mm 1.2 L.
    expect(text(now, before, none).map((s) => s.replace(/\s/g, ' '))).toEqual([
      'low: 2 L less of sintered glass rings.',
      'low: 0.8 L more of fine pad.',
      'low: 1.2 L more of coarse foam (10 ppi).',
      'high: 2.8 L more of sintered glass rings.',
      'high: 0.8 L less of fine pad.',
    ])
    expect(text(now, now, none)).toEqual([])
  })
  test('less than 0.02 L is no change; as much of it is', () => {
    const thicker = (mm: number) => of(layer('m', 'low', SINTERED, 50 + mm), layer('f', 'high', FINE, 20))
    expect(text(thicker(0.49), before, none)).toEqual([])
    expect(text(thicker(0.51), before, none)).toHaveLength(1)
  })
  test('two layers of one medium in a tray are one volume; each figure shows both fills', () => {
    const parted = of(
      layer('a', 'low', SINTERED, 20),
      layer('b', 'low', SINTERED, 30),
      layer('f', 'high', FINE, 20),
    )
    expect(text(parted, before, none)).toEqual([])
    const [first] = changesOf(now, before, none)
    const figure = first?.find((x) => typeof x !== 'string')?.figure
    expect(figure).toMatchObject({ id: `moved-low-${SINTERED.id}`, label: 'Sintered glass rings, low', dimension: 'volume', provenance: 'computed' }) // prettier-ignore
    expect(figure?.value).toBeCloseTo(0.002, 9)
    expect(figure?.working?.map((w) => [w.symbol, +w.value.toFixed(9)])).toEqual([['this', 0], ['other', 0.002]]) // prettier-ignore
  })
  test('what is mended and given up is named once, however many places it had', () => {
    const mended = text(now, before, findings(now, before)).filter((s) => s.startsWith('Fixed'))
    expect(mended).toContain('Fixed: all mechanical layers before the bio media.')
    expect(new Set(mended).size).toBe(mended.length)
    const given = text(before, now, findings(before, now)).filter((s) => s.startsWith('Lost'))
    expect(given).toEqual(mended.map((s) => s.replace('Fixed', 'Lost')))
    const twice = [{ rule: { id: 'a', title: 'Aaa' } }, { rule: { id: 'a', title: 'Aaa' } }, { rule: { id: 'b', title: 'Bbb' } }] as OrderFinding[] // prettier-ignore
    const [, ...one] = twice
    expect(text(now, now, { now: [], before: twice })).toEqual(['Fixed: aaa.', 'Fixed: bbb.'])
    expect(text(now, now, { now: twice, before: [] })).toEqual(['Lost: aaa.', 'Lost: bbb.'])
    expect(text(now, now, { now: one, before: twice })).toEqual([])
  })
})

describe('numbers of two fills', () => {
  const changes = differences(now, before, NORMAL)
  test('more flow, capacity, media and met water are better; less slipping past and head', () => {
    expect(changes.map((d) => [d.id.replace(/-f$/, ''), d.more])).toEqual([
      ['path-flow', true],
      ['carries-normal', true],
      ['fill-biological', true],
      ['meets-media', true],
      ['unstrained', false],
      ['path-media-head', false],
    ])
    // 2.8 L of media against 2 L (by hand).
    expect(changes[2]?.change).toMatchObject({ value: expect.closeTo(0.0008, 9) as unknown, label: 'Bio media, litres: the difference', provenance: 'computed' }) // prettier-ignore
    expect(changes[2]?.change).not.toHaveProperty('unit')
    expect(changes[5]?.change.unit).toBe('cm')
  })
  test('a fill of foam alone stands on the same scale as one of kilograms', () => {
    const foam = of(layer('c', 'low', COARSE, 80))
    const [a, b] = [differences(now, foam, NORMAL)[1], differences(now, before, NORMAL)[1]]
    expect([a?.now.id, a?.before.value]).toEqual([b?.now.id, foam.capacity.volume])
    // By hand: foam of 350 m²/m³ of which three quarters work, on the scale of 2.29 m² a kilogram and 100 L each.
    const volume = foam.layers[0]?.placed.volume ?? NaN
    expect((a?.before.value ?? NaN) * 1000).toBeCloseTo(((volume * 350 * 0.75) / (1100 / 480)) * 100, 6)
    expect([b?.now.value, b?.before.value]).toEqual([now.capacity.volume, before.capacity.volume])
  })
})

test('what each school finds, and makes of the body', () => {
  const small = caseWith([layer('m', 'low', SINTERED, 50), layer('f', 'low', FINE, 20)], { chambers: [chamber('low')] }) // prettier-ignore
  const outcome = outcomeOf(small, NORMAL, true)
  const views = schoolViews(small, outcome, { stock: NORMAL, minFlow: 0, maxCostMinor: null, media: [COARSE, FINE, SINTERED] }) // prettier-ignore
  expect(views.map((v) => v.house)).toEqual(HOUSE_RULES)
  for (const v of views) {
    expect(v.findings).toEqual(auditOrder(outcome, v.house))
    expect(v.burden).toBe(v.findings.reduce((sum, f) => sum + f.weight, 0))
  }
  const last = (i: number) => views[i]?.fitted.best.outcome.layers.at(-1)?.placed.medium.name
  expect([last(0), last(1)]).toEqual([SINTERED.name, FINE.name])
})
