import { volumeBySchool } from '../../tanks'
import type { FittingId } from '../../hydraulics/tables'
import { sentenceText } from '../../figures'
import { CHEMICAL_PLACES, RULES, SCHOOLS, SEVERITIES, type ChemicalPlace } from '.'
import { auditOrder, HOUSE_RULES, settingOf, type HouseRule } from '../audit'
import { outcomeOf } from '../outcome'
import { caseWith, chamber, layer, medium, NORMAL } from '../tests/support'
import type { PathCase } from '../case'
import type { ReachResult } from '../../teardown/reach'

const COARSE = medium('Coarse foam')
const MEDIUM = medium('Medium foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass')
const CARBON = medium('Activated carbon')
const WHEEL = medium('Turning contactor')

const GOOD = [layer('c', 'low', COARSE, 30), layer('f', 'low', FINE, 20), layer('m', 'high', SINTERED, 80)]
const EVERYTHING: HouseRule = {
  ...(HOUSE_RULES[0] as HouseRule),
  rules: Object.fromEntries(RULES.map((r) => [r.id, { on: true }])),
}
const found = (
  c: PathCase,
  id: string,
  house: HouseRule = EVERYTHING,
  reaches: readonly ReachResult[] = [],
) => auditOrder(outcomeOf(c, NORMAL, true), house, reaches).filter((f) => f.rule.id === id)
const says = (c: PathCase, id: string, house?: HouseRule, reaches?: readonly ReachResult[]): string[] =>
  found(c, id, house, reaches).map((f) => sentenceText(f.sentence, 'metric'))
/** A hookup of such pieces; what they are called is the user's own affair. */
const hookup = (pieces: readonly FittingId[], label = 'Ansaugkorb'): NonNullable<PathCase['hookup']> => ({
  id: 'h',
  name: 'hoses',
  outletAboveWater: -0.05,
  sourceBelowWater: 0,
  bodyBelowWater: 0,
  segments: pieces.map((catalogue, i) => ({
    kind: 'fitting', id: `s${i}`, label, catalogue, lossCoefficient: 1, diameter: 0.016, count: 1,
  })),
}) // prettier-ignore

test('each rule is whole: its own id, a school, a severity, a weight, words that end like sentences', () => {
  expect(new Set(RULES.map((r) => r.id)).size).toBe(RULES.length)
  for (const r of RULES) {
    expect(r.schools.every((s) => SCHOOLS.includes(s))).toBe(true)
    expect(SEVERITIES).toContain(r.severity)
    expect(r.weight).toBeGreaterThan(0)
    expect(r.why).toMatch(/\.$/)
    expect(r.looksAt).not.toMatch(/\.$/)
    for (const other of r.excludes ?? []) expect(RULES.some((x) => x.id === other)).toBe(true)
  }
  for (const house of HOUSE_RULES)
    expect(RULES.filter((r) => settingOf(house, r).on).length).toBeGreaterThan(10)
})

test('a good fill in a good body breaks no rule of its school but notes', () => {
  const quiet = auditOrder(outcomeOf(caseWith(GOOD), NORMAL, true), HOUSE_RULES[0] as HouseRule)
  expect(quiet.filter((f) => f.rule.severity !== 'note')).toEqual([])
})

describe('chemical media, where each house rule has them', () => {
  const at = (place: 'first' | 'middle' | 'last'): PathCase => {
    const k = layer('k', place === 'last' ? 'high' : 'low', CARBON, 20)
    const [c, f, m] = [
      layer('c', 'low', COARSE, 30),
      layer('f', 'low', FINE, 20),
      layer('m', 'high', SINTERED, 40),
    ]
    return caseWith(place === 'first' ? [k, c, f, m] : place === 'middle' ? [c, f, k, m] : [c, f, m, k])
  }
  const house = (chemical: ChemicalPlace): HouseRule => ({ ...(HOUSE_RULES[0] as HouseRule), chemical })
  const broken = (place: 'first' | 'middle' | 'last', chemical: ChemicalPlace): boolean =>
    found(at(place), 'chemical-place', house(chemical)).length > 0
  test.each([
    ['none', [true, true, true]],
    ['last', [true, true, false]],
    ['after-straining', [true, false, false]],
    ['after-fine', [true, false, true]],
  ] as const)('%s', (chemical, expected) => {
    expect(CHEMICAL_PLACES).toContain(chemical)
    expect((['first', 'middle', 'last'] as const).map((p) => broken(p, chemical))).toEqual(expected)
  })
})

describe('what else a body holds', () => {
  const empty = chamber('void', { role: 'settling-void', y: 0.02, solid: { shape: 'box', width: 0.2, depth: 0.2, height: 0.05 }, usableHeight: null }) // prettier-ignore
  const chambers = [empty, chamber('low'), chamber('high')]
  test('an empty settling space is noted with its litres; rings in it, or a pot that turns, are not', () => {
    expect(says(caseWith(GOOD, { chambers }), 'diffuser-in-void')[0]).toMatch(
      /void is empty: 2 L are free for rings that slow the swirl\./,
    )
    const rings = [layer('r', 'void', medium('Ceramic rings'), 40), ...GOOD]
    expect(says(caseWith(rings, { chambers }), 'diffuser-in-void')).toEqual([])
    expect(says(caseWith(GOOD, { chambers, kind: 'fluidised' }), 'diffuser-in-void')).toEqual([])
  })
  test('a turning wheel is a bonus: it adds nothing to the capacity, and that is said', () => {
    const c = caseWith([...GOOD.slice(0, 2), layer('m', 'high', SINTERED, 40), layer('w', 'high', WHEEL, 40)])
    expect(says(c, 'contactor-bonus')).toHaveLength(1)
    const without = caseWith([...GOOD.slice(0, 2), layer('m', 'high', SINTERED, 40)])
    expect(volumeBySchool(outcomeOf(c, NORMAL, true).capacity, 'media-mass') ?? NaN).toBeCloseTo(
      volumeBySchool(outcomeOf(without, NORMAL, true).capacity, 'media-mass') ?? NaN,
      9,
    )
  })
  test('grit: nothing between intake and pump is said; a strainer, or straining ahead of the pump, is enough', () => {
    const pump = chamber('pump', { role: 'pump-well', use: 'machinery' })
    const first = { chambers: [pump, chamber('low'), chamber('high')], kind: 'hang-on-back' } as const
    expect(says(caseWith(GOOD, { ...first, hookup: hookup(['exit-open']) }), 'pump-grit')).toHaveLength(1)
    expect(says(caseWith(GOOD, { ...first, hookup: hookup(['entrance-strainer']) }), 'pump-grit')).toEqual([])
    const last = { chambers: [chamber('low'), chamber('high'), pump], hookup: hookup(['exit-open']) }
    expect(says(caseWith(GOOD, last), 'pump-grit')).toEqual([])
  })
  test('a pre-filter that takes a minute to reach is noted with its seconds and moves', () => {
    const reach = (seconds: number): readonly ReachResult[] => [{ reach: 'pre-filter', part: 'Lid', parts: 3, moves: 11, seconds, back: null, cleaning: null, way: [] }] // prettier-ignore
    expect(says(caseWith(GOOD), 'prefilter-reach', EVERYTHING, reach(84))[0]).toMatch(
      /Slow to service: the first mechanical layer takes 84 s and 11 hand movements to reach\./,
    )
    expect(says(caseWith(GOOD), 'prefilter-reach', EVERYTHING, reach(40))).toEqual([])
    expect(says(caseWith(GOOD), 'prefilter-reach')).toEqual([])
  })
  test('an open intake is noted for delicate animals; a sponge on it, or an air filter, is not', () => {
    expect(says(caseWith(GOOD, { hookup: hookup(['entrance-strainer']) }), 'open-inlet')).toHaveLength(1)
    expect(says(caseWith(GOOD, { hookup: hookup(['entrance-sponge']) }), 'open-inlet')).toEqual([])
    expect(says(caseWith(GOOD, { kind: 'air-box' }), 'open-inlet')).toEqual([])
  })
})

describe('what strains', () => {
  test('what a piece is called is not what it is', () => {
    const named = caseWith(GOOD, { hookup: hookup(['entrance-open'], 'Intake with a sponge') })
    expect(says(named, 'open-inlet')).toHaveLength(1)
  })
  test('a sponge on the intake counts as straining ahead, so that bare media are no fault', () => {
    const bare = [layer('m', 'low', SINTERED, 70)]
    expect(says(caseWith(bare), 'strain-before-media')[0]).toMatch(
      /No mechanical layer before the sintered glass rings, so all dirt goes into the media\./,
    )
    expect(says(caseWith(bare, { hookup: hookup(['entrance-sponge']) }), 'strain-before-media')).toEqual([])
  })
  test('a finer layer behind the media is a fault with the share that meets the media first', () => {
    const c = caseWith([
      layer('c', 'low', COARSE, 30),
      layer('m', 'low', SINTERED, 40),
      layer('f', 'high', FINE, 20),
    ])
    expect(says(c, 'strain-before-media')[0]).toMatch(
      /Fine pad sits after the bio media: 100\s?% of the dirt it should catch reaches the media first\./,
    )
  })
  test('medium foam between coarse and fine is in order; a second coarse one after the fine is not', () => {
    const row = (last: typeof COARSE) =>
      caseWith([layer('c', 'low', COARSE, 30), layer('d', 'low', MEDIUM, 20), layer('f', 'low', FINE, 20), layer('x', 'high', last, 20), layer('m', 'high', SINTERED, 40)]) // prettier-ignore
    expect(says(row(FINE), 'coarse-to-fine')).toEqual([])
    expect(says(row(COARSE), 'coarse-to-fine')[0]).toMatch(
      /Coarse foam \([\d.,\s]+ ppi\) sits after the finer medium foam \([\d.,\s]+ ppi\) with nothing left to catch\./,
    )
  })
  test('polish last asks for a fine pad at the very end, and is content with one', () => {
    expect(says(caseWith(GOOD), 'polish-last')[0]).toMatch(/is sintered glass rings, not a fine pad/)
    expect(says(caseWith([...GOOD.slice(0, 2), layer('m', 'high', SINTERED, 50), layer('p', 'high', FINE, 20)]), 'polish-last')).toEqual([]) // prettier-ignore
  })
  test('media low: straining inside the body is found layer by layer, in a pre-filter chamber it is not', () => {
    expect(says(caseWith(GOOD), 'media-low')).toHaveLength(2)
    const outside = [chamber('low', { role: 'pre-filter' }), chamber('high')]
    expect(says(caseWith(GOOD, { chambers: outside }), 'media-low')).toEqual([])
  })
  test('foam for media: past 45 % of what fill height, at the largest of them', () => {
    const share = (mm: number) => caseWith([layer('c', 'low', COARSE, mm), layer('m', 'high', SINTERED, 80)])
    expect(found(share(70), 'foam-for-media')).toEqual([])
    expect(found(share(79), 'foam-for-media')[0]).toMatchObject({ layerId: 'c' })
  })
})

describe('what goes round', () => {
  test('a fine pad may lose 5 %, anything else 10 %', () => {
    const gap = (m: typeof FINE, mm: number) => caseWith([layer('x', 'low', m, 20, { gap: mm / 1000 })])
    expect(says(gap(FINE, 0.2), 'fine-sealed')).toEqual([])
    expect(says(gap(FINE, 1), 'fine-sealed')).toHaveLength(1)
    expect(says(gap(COARSE, 1), 'bypass-share')).toEqual([])
    expect(says(gap(COARSE, 3), 'bypass-share')).toHaveLength(1)
  })
  test('one gap round a tray is said once, of its fine pad where it has one', () => {
    const wall = { chambers: [chamber('low', { wallGap: 0.002 }), chamber('high')] }
    const both = caseWith([layer('c', 'low', COARSE, 30), layer('f', 'low', FINE, 20)], wall)
    expect([says(both, 'fine-sealed').length, says(both, 'bypass-share').length]).toEqual([1, 0])
    const foams = caseWith([layer('c', 'low', COARSE, 30), layer('d', 'low', medium('Fine foam'), 30)], {
      chambers: [chamber('low', { wallGap: 0.006 }), chamber('high')],
    })
    expect(says(foams, 'bypass-share')).toHaveLength(1)
  })
  test('a bag’s gap is said only where it runs on past a layer of the same chamber', () => {
    const bag = { bagged: true, gap: 0.003, crossed: false }
    const next = caseWith([layer('b', 'low', SINTERED, 40, bag), layer('f', 'low', FINE, 20)])
    expect(says(next, 'gap-crossed')).toHaveLength(1)
    const apart = caseWith([layer('b', 'low', SINTERED, 40, bag), layer('f', 'high', FINE, 20)])
    expect(says(apart, 'gap-crossed')).toEqual([])
  })
})
