import { volumeBySchool } from '../tanks'
import fc from 'fast-check'
import { sentenceText } from '../figures'
import { MEASURES, type FillLayer } from '../fills'
import { GENERIC_MEDIA } from '../media'
import { auditOrder, HOUSE_RULES, lineFigure, outcomeOf, topologyOf, type Outcome } from '.'
import { caseWith, chamber, NORMAL } from './tests/support'

const CHAMBERS = [
  chamber('void', { role: 'settling-void', y: 0.02, solid: { shape: 'box', width: 0.2, depth: 0.2, height: 0.04 }, usableHeight: null }),
  chamber('low', { y: 0.07 }),
  chamber('mid', { y: 0.17, wallGap: 0.001 }),
  chamber('high', { y: 0.27, overflowSill: 0.02 }),
] // prettier-ignore

/** Any layer a person may lay in, sensible or not. */
const anyLayer: fc.Arbitrary<Omit<FillLayer, 'id'>> = fc
  .record({
    chamberId: fc.constantFrom('void', 'low', 'mid', 'high'),
    medium: fc.constantFrom(...GENERIC_MEDIA),
    measure: fc.constantFrom(...MEASURES),
    size: fc.double({ min: 0.05, max: 1, noNaN: true }),
    bagged: fc.boolean(),
    gap: fc.constantFrom(0, 0, 0, 0.001, 0.003, 0.01),
    crossed: fc.boolean(),
    sealed: fc.boolean(),
    fouled: fc.constantFrom(0, 0, 0.3, 0.8),
  })
  .map(({ medium, measure, size, ...rest }) => ({
    ...rest,
    mediumId: medium.id,
    measure:
      measure === 'packs' && medium.packVolume === null && medium.sheetThickness === null
        ? 'height'
        : measure,
    amount: { height: 0.06 * size, volume: 0.0024 * size, mass: 1.2 * size, packs: 1 + Math.round(2 * size) }[
      measure === 'packs' && medium.packVolume === null && medium.sheetThickness === null ? 'height' : measure
    ],
  }))
const anyFill = fc
  .array(anyLayer, { maxLength: 9 })
  .map((list) => list.map((l, i): FillLayer => ({ ...l, id: `l${i}` })))
const worked = (layers: readonly FillLayer[]): Outcome =>
  outcomeOf(caseWith(layers, { chambers: CHAMBERS }), NORMAL, true)
const runs = { numRuns: 120 }

test('whatever is laid in: shares are shares, the budget adds up, litres and kilograms are not lost', () => {
  fc.assert(
    fc.property(anyFill, (layers) => {
      const o = worked(layers)
      expect(o.flow).toBeGreaterThan(0)
      expect(o.flow).toBeLessThanOrEqual(o.case.drive.pump.maxFlow * (1 + 1e-9))
      for (const l of o.layers) {
        expect(l.bypassFraction).toBeGreaterThanOrEqual(0)
        expect(l.bypassFraction).toBeLessThanOrEqual(1)
        expect(l.through + l.past).toBeLessThanOrEqual(o.flow * (1 + 1e-5))
        // All that passes a chamber passes each of its layers, or goes round it.
        expect(l.through + l.past).toBeGreaterThan(o.flow * 0.999)
      }
      expect(o.budget.reduce((s, l) => s + l.head, 0)).toBeCloseTo(o.pumpHead, 5)
      expect(Object.values(o.weights.byJob).reduce((a, b) => a + b, 0)).toBeCloseTo(o.weights.volume, 12)
      expect(o.layers.reduce((s, l) => s + l.placed.mass, 0)).toBeCloseTo(o.weights.mass, 9)
      expect(o.meetsMedia).toBeGreaterThanOrEqual(0)
      expect(o.meetsMedia).toBeLessThanOrEqual(1 + 1e-9)
      expect(o.capacity.volume).toBe(volumeBySchool(o.capacity, o.capacity.leading))
    }),
    runs,
  )
})

test('more dirt anywhere never gives more flow, and never less water round the dirty layer', () => {
  fc.assert(
    fc.property(anyFill, fc.nat(), (layers, pick) => {
      const dirty = layers[pick % Math.max(1, layers.length)]
      if (!dirty) return
      const [clean, fouled] = [0, 0.7].map((d) =>
        worked(layers.map((l) => (l === dirty ? { ...l, fouled: d } : l))),
      ) as [Outcome, Outcome]
      expect(fouled.flow).toBeLessThanOrEqual(clean.flow * (1 + 1e-7))
      const past = (o: Outcome): number =>
        o.layers.find((l) => l.placed.layer.id === dirty.id)?.bypassFraction ?? NaN
      expect(past(fouled)).toBeGreaterThanOrEqual(past(clean) - 1e-7)
    }),
    runs,
  )
})

test('a gap closed never lets more water round its layer, where no other gap runs on beside it', () => {
  fc.assert(
    fc.property(anyFill, fc.nat(), (layers, pick) => {
      const gapped = layers[pick % Math.max(1, layers.length)]
      if (!gapped) return
      const at = (gap: number): number =>
        worked(layers.map((l) => ({ ...l, crossed: true, gap: l === gapped ? gap : 0 }))).layers.find(
          (l) => l.placed.layer.id === gapped.id,
        )?.bypassFraction ?? NaN
      expect(at(0)).toBeLessThanOrEqual(at(0.004) + 1e-7)
    }),
    runs,
  )
})

test('the audit of any fill under any school is finite, placed, and said in whole sentences', () => {
  fc.assert(
    fc.property(anyFill, fc.constantFrom(...HOUSE_RULES), (layers, house) => {
      const o = worked(layers)
      const ids = new Set(o.layers.map((l) => l.placed.layer.id))
      for (const f of auditOrder(o, house)) {
        const text = sentenceText(f.sentence, 'metric')
        expect(text).toMatch(/^\S.*[.]$/)
        expect(text).not.toMatch(/NaN|undefined|Infinity/)
        if (f.layerId) expect(ids.has(f.layerId)).toBe(true)
        if (f.chamberId) expect(CHAMBERS.some((c) => c.id === f.chamberId)).toBe(true)
      }
    }),
    runs,
  )
})

test('every line of the budget has a working whose numbers are numbers', () => {
  fc.assert(
    fc.property(anyFill, (layers) => {
      const o = worked(layers)
      for (const line of o.budget) {
        const f = lineFigure(o, line)
        expect(f.value).toBe(line.head)
        for (const w of f.working ?? [])
          expect([w.symbol, Number.isFinite(w.value)]).toEqual([w.symbol, true])
      }
    }),
    { numRuns: 60 },
  )
})

test('each element of the network stands for something of the fill or the hookup', () => {
  fc.assert(
    fc.property(anyFill, (layers) => {
      const t = topologyOf(caseWith(layers, { chambers: CHAMBERS }))
      for (const e of t.pumped.elements) expect(t.parts.has(e.id)).toBe(true)
      expect([...t.parts.values()].filter((p) => p.what === 'layer')).toHaveLength(layers.length)
    }),
    { numRuns: 60 },
  )
})
