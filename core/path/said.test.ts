import { nameOf, sentenceText, type Figure } from '../figures'
import type { ReachResult } from '../teardown/reach'
import { auditOrder, HOUSE_RULES, type HouseRule } from './audit'
import type { PathCase } from './case'
import {
  contactFigure,
  costFigure,
  pathFlowFigure,
  freeFigure,
  headFigure,
  jobFigure,
  lineFigure,
  massFigure,
  mediaHeadFigure,
  bypassFigure,
  pumpHeadFigure,
  sideFigure,
  unstrainedFigure,
  velocityFigure,
  worthFigure,
} from './figures'
import { outcomeOf, type Outcome } from './outcome'
import { RULES } from './rules'
import { asSecond } from './second'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'

const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass rings')
const CARBON = medium('Activated carbon')
const RESIN = medium('Exchange resin')

const LAYERS = [
  layer('c', 'low', COARSE, 30, { gap: 0.001 }),
  layer('f', 'low', FINE, 20, { gap: 0.002, fouled: 0.5 }),
  layer('m', 'high', SINTERED, 70),
]
const worked = (layers = LAYERS, more: Partial<PathCase> = {}, quick = true): Outcome =>
  outcomeOf(caseWith(layers, more), NORMAL, quick)
const o = worked()
const at = (id: string, of: Outcome = o) => {
  const found = of.layers.find((l) => l.placed.layer.id === id)
  if (!found) throw new Error(id)
  return found
}
/** What a figure is called, under which conditions it holds, and the lines it is worked out from. */
const told = (f: Figure | null) => [f?.label, ...(f?.conditions ?? []), ...(f?.working ?? []).map((w) => `${w.symbol}: ${w.label}`)] // prettier-ignore

describe('what a figure says of itself', () => {
  test('flow: fill, hookup, curve and temperature; its doubt only where there is one', () => {
    expect(told(pathFlowFigure(o)).slice(0, 8)).toEqual([
      'Installed flow with this setup',
      'As tried',
      'Own hoses',
      'pump curve from measurements',
      '25 °C',
      'H0: maximum head',
      'Q0: flow at zero head',
      'n: curve exponent',
    ])
    expect(told(pathFlowFigure(o)).slice(8)).toEqual(o.budget.map((l, i) => `h${i + 1}: ${l.label}`))
    expect(pathFlowFigure(o)).not.toHaveProperty('uncertainty')
    const whole = worked(LAYERS, {}, false)
    expect(pathFlowFigure(whole).uncertainty).toBe(whole.uncertainty)
    expect(whole.uncertainty).toBeGreaterThan(0)
    expect(pathFlowFigure(worked(LAYERS, { hookup: null })).conditions?.[1]).toBe('no plumbing')
  })
  test('head of the pump: of both only where both run in one row', () => {
    const with_ = (more: object) =>
      worked(LAYERS, {
        second: { ...asSecond(o, 'Its like'), arrangement: 'series', running: true, ...more },
      })
    const label = (x: Outcome) => pumpHeadFigure(x).label
    expect([label(o), label(with_({})), label(with_({ running: false })), label(with_({ arrangement: 'beside' }))]).toEqual([
      'Head the pump gives', 'Head both pumps give', 'Head the pump gives', 'Head the pump gives',
    ]) // prettier-ignore
    expect(told(pumpHeadFigure(o))).toEqual(['Head the pump gives', 'H0: maximum head', 'Q0: flow at zero head', 'n: curve exponent', 'Q: installed flow with this setup']) // prettier-ignore
  })
  test('head of the media is of the layers alone', () => {
    expect(told(mediaHeadFigure(o))).toEqual(['Head loss in the media', ...o.layers.map((l, i) => `h${i + 1}: ${l.placed.medium.name}`)]) // prettier-ignore
    expect(mediaHeadFigure(o).value).toBeCloseTo(
      o.layers.reduce((s, l) => s + l.head, 0),
      9,
    )
  })
  test('each line of the budget by what it is', () => {
    const lifted = worked(LAYERS, { rest: 2e7, hookup: { ...(o.case.hookup as NonNullable<PathCase['hookup']>), outletAboveWater: 0.1 } }) // prettier-ignore
    const line = (id: string) => {
      const l = lifted.budget.find((x) => x.id === id)
      if (!l) throw new Error(id)
      return lineFigure(lifted, l)
    }
    expect(line('lift')).toMatchObject({ provenance: 'measured', formula: 'level of the return − level of the intake', value: 0.1 }) // prettier-ignore
    expect(line('lift')).not.toHaveProperty('working')
    expect(told(line('rest'))).toEqual(['Head loss: filter body', 'by difference, from the installed-flow test: loss that hoses and media do not explain', 'D: reference bore']) // prettier-ignore
    expect(line('layer:m')).toEqual(headFigure(at('m', lifted)))
    expect([line('seg:suction').formula, told(line('seg:suction'))]).toEqual(['h = f (L/D) v²/2g,  or K v²/2g', ['Head loss: suction hose', 'Q: flow']]) // prettier-ignore
    const pair = worked(LAYERS, { second: { ...asSecond(o, 'Its like'), arrangement: 'series', running: true } }) // prettier-ignore
    const body = pair.budget.find((l) => l.id === 'second-body')
    expect(body && lineFigure(pair, body).formula).toBe('h = K v²/2g')
  })
  test('head of a layer: where its permeability comes from, and how dirty it is', () => {
    const lines = ['L: up, its thickness', 'v: velocity before it', 'k · 10⁹: permeability, clean (10⁻⁹ m²)', 'C: inertial coefficient (1/m)', 'u(k): relative standard uncertainty of k', 'ν · 10⁶: kinematic viscosity of the water (10⁻⁶ m²/s)'] // prettier-ignore
    const [label, words, dirt, ...rest] = told(headFigure(at('f')))
    expect([label, words, dirt]).toEqual(['Head loss: fine pad', 'from fibre and solidity', '50 % full of dirt: k falls with the cube of what is left']) // prettier-ignore
    expect(rest.slice(1)).toEqual(lines.slice(1))
    expect(headFigure(at('c')).conditions).toEqual(['from pores per inch, a proxy from metal foams'])
    const origin = (f: Figure) => [f.working?.[2]?.provenance, f.working?.[4]?.provenance]
    expect(origin(headFigure(at('c')))).toEqual(['computed', 'rule'])
    const media = o.case.media.map((m) => (m.id === FINE.id ? { ...m, permeability: 2e-9, inertia: 500 } : m))
    expect(origin(headFigure(at('f', worked(LAYERS, { media }))))).toEqual(['measured', 'measured'])
  })
  test('what goes round, how long and how fast', () => {
    expect(told(bypassFigure(at('f')))).toEqual(['Bypasses fine pad', 'through: through the layer', 'past: gap, wall and overflow beside it', 'g: gap beside it', 'h: head both share']) // prettier-ignore
    const walled = worked([layer('m', 'low', SINTERED, 70)], {
      chambers: [chamber('low', { wallGap: 0.003 })],
    })
    expect(bypassFigure(at('m', walled)).working?.[2]?.value).toBe(0.003)
    expect(bypassFigure(at('m')).working?.[2]?.value).toBe(0)
    expect([contactFigure(at('f')).label, velocityFigure(at('f')).label]).toEqual(['Contact time in fine pad', 'Velocity before fine pad']) // prettier-ignore
    const [gap] = o.sides
    expect(gap && told(sideFigure(o, gap))).toEqual(['Gap at coarse foam (10 ppi)', 'q: gap at coarse foam (10 ppi)', 'Q: all of it']) // prettier-ignore
    expect(told(unstrainedFigure(o))).toEqual(['Bypasses mechanical filtration', 'for the worst fineness, at its tightest layer', ...o.layers.map((l, i) => `p${i + 1}: bypasses ${nameOf(l.placed.medium.name)}`)]) // prettier-ignore
  })
  test('litres by their job, kilograms, what is free', () => {
    expect(told(jobFigure(o, 'all'))).toEqual(['Media', '1: Coarse foam, 10 ppi, low', '2: Fine pad, low', '3: Sintered glass rings, high']) // prettier-ignore
    expect(told(jobFigure(o, 'biological'))).toEqual(['Bio media, litres', '1: Sintered glass rings, high']) // prettier-ignore
    expect(told(massFigure(o)).slice(1)).toEqual(['1: Sintered glass rings'])
    const [low, high] = o.topology.chambers
    expect(low && told(freeFigure(low))).toEqual(['Free in low', 'L: fill height', 't1: Coarse foam, 10 ppi', 't2: Fine pad']) // prettier-ignore
    expect(high && freeFigure(high).value).toBeCloseTo(0.01, 12)
    const full = worked([layer('m', 'low', SINTERED, 80)]).topology.chambers[0]
    expect(full && [full.free, freeFigure(full).label]).toEqual([0, 'Free in low'])
  })
  test('a price names what has none', () => {
    const media = o.case.media.map((m) => (m.id === FINE.id ? { ...m, priceMinor: null } : m))
    expect(told(costFigure(worked(LAYERS, { media })))).toEqual(['Media cost, whole packs, EUR', 'Fine pad not priced', '1 ×: Coarse foam, 10 ppi', '3 ×: Sintered glass rings']) // prettier-ignore
    expect(costFigure(o)?.conditions).toEqual([])
  })
  test('weighed media calibrate what their litres are worth, and say by how much they differ', () => {
    const { biologicalMass } = o.weights
    const weighed = (factor: number, fillId = 'f') =>
      worked(LAYERS, { weighed: { fillId, mass: biologicalMass * factor } })
    const [plain, more] = [worthFigure(o), worthFigure(weighed(1.2))]
    const areas = ['A1: Coarse foam, 10 ppi, working surface', 'A2: Sintered glass rings, working surface', 'A_s: of it, supplied with water'] // prettier-ignore
    expect(told(plain)).toEqual([plain.label, 'As tried', '9 % of it is foam', ...areas])
    expect(plain.formula).toBe('m = Σ V · effective surface · working share ÷ 2.29 m² per kg')
    // Only what was weighed is calibrated: the foam stays.
    const foam = o.worth.foam
    expect(more.value / plain.value).toBeCloseTo(foam + 1.2 * (1 - foam), 9)
    expect(told(more).slice(1)).toEqual(['As tried', '8 % of it is foam', 'calibrated by weight: 20 % more than their volume gives', ...areas, 'weighed: media as weighed', 'computed: litres · bulk density']) // prettier-ignore
    expect(more.formula).toBe(`${plain.formula} · weighed ÷ calculated`)
    expect(more.working?.map((w) => w.value).slice(3)).toEqual([expect.closeTo(biologicalMass * 1.2, 9), biologicalMass]) // prettier-ignore
    expect(worthFigure(weighed(0.9)).conditions?.[2]).toMatch(/10 % less/)
    expect(worthFigure(weighed(1.001)).conditions?.[2]).toBe('weight and volume agree')
    expect(worthFigure(weighed(1.2, 'another'))).toEqual(plain)
  })
})

const EVERYTHING: HouseRule = {
  ...(HOUSE_RULES[0] as HouseRule),
  rules: Object.fromEntries(RULES.map((r) => [r.id, { on: true }])),
}
/** What a rule says of a fill, with its cure and where. */
const says = (
  rule: string,
  c: PathCase,
  house: Partial<HouseRule> = {},
  reaches: readonly ReachResult[] = [],
) =>
  auditOrder(outcomeOf(c, NORMAL, true), { ...EVERYTHING, ...house }, reaches)
    .filter((f) => f.rule.id === rule)
    .map((f) =>
      [f.layerId ?? f.chamberId ?? '', sentenceText(f.sentence, 'metric'), f.cure ? sentenceText(f.cure, 'metric') : '']
        .join(' | ')
        .replace(/\s/g, ' '),
    ) // prettier-ignore
const c30 = layer('c', 'low', COARSE, 30)
const f20 = layer('f', 'low', FINE, 20)
const n30 = layer('n', 'low', medium('Medium foam'), 30)
const m70 = layer('m', 'high', SINTERED, 70)
const of = (...layers: ReturnType<typeof layer>[]) => caseWith(layers)

describe('what a rule says, and how it is cured', () => {
  test('straining ahead of the media', () => {
    expect(says('strain-before-media', of(m70))).toEqual(['m | No mechanical layer before the sintered glass rings, so all dirt goes into the media. | Put a coarse and a fine pad before it.']) // prettier-ignore
    expect(says('strain-before-media', of(c30, m70))).toEqual(['m | No fine layer before the sintered glass rings, so fine dirt ends in the media. | Put a fine pad between them.']) // prettier-ignore
    expect(says('strain-before-media', of(c30, layer('m', 'low', SINTERED, 30), layer('f', 'high', FINE, 20)))).toEqual(['f | Fine pad sits after the bio media: 100 % of the dirt it should catch reaches the media first. | Put the fine pad before the media.']) // prettier-ignore
    const [past] = says('strain-before-media', of(c30, layer('m', 'low', SINTERED, 30, { gap: 0.01 }), layer('f', 'high', FINE, 20))) // prettier-ignore
    const share = outcomeOf(of(c30, layer('m', 'low', SINTERED, 30, { gap: 0.01 }), layer('f', 'high', FINE, 20)), NORMAL, true).layers[1]?.bypassFraction ?? NaN // prettier-ignore
    expect(share).toBeGreaterThan(0.2)
    expect(Math.abs(parseFloat(/: ([\d.]+) %/.exec(past ?? '')?.[1] ?? '') / 100 - (1 - share))).toBeLessThan(0.006) // prettier-ignore
    // A chemical medium ahead strains nothing; a second pad of the same fineness behind is not missed ahead.
    expect(says('strain-before-media', of(layer('k', 'low', CARBON, 20), m70))).toHaveLength(1)
    expect(says('strain-before-media', of(c30, f20, layer('m', 'high', SINTERED, 50), layer('g', 'high', FINE, 20)))).toEqual([]) // prettier-ignore
  })
  test('nothing fine after, or a fine pad as the last thing', () => {
    const after = of(c30, layer('m', 'low', SINTERED, 30), layer('d', 'high', COARSE, 30), layer('f', 'high', FINE, 20)) // prettier-ignore
    expect(says('nothing-fine-after', after)).toEqual(['f | Fine pad sits after the bio media: too late for the dirt that has passed them. | Move it before the media, or remove it.']) // prettier-ignore
    expect(says('nothing-fine-after', of(c30, f20))).toEqual([])
    expect(says('nothing-fine-after', of(layer('m', 'low', SINTERED, 40), layer('f', 'high', FINE, 20)))).toHaveLength(1) // prettier-ignore
    expect(says('polish-last', of(c30, m70))).toEqual(['m | The last layer is sintered glass rings, not a fine pad. | Put a fine pad on top.']) // prettier-ignore
  })
  test('coarse to fine', () => {
    expect(says('coarse-to-fine', of(f20, m70))).toEqual(['f | No coarse layer before the fine pad, so it clogs first. | Put a coarse foam before it.']) // prettier-ignore
    expect(says('coarse-to-fine', of(n30, f20, layer('d', 'high', COARSE, 30)))).toEqual(['d | Coarse foam (10 ppi) sits after the finer medium foam (20 ppi) with nothing left to catch. | Put the coarse foam (10 ppi) before the medium foam (20 ppi).']) // prettier-ignore
    // A cartridge is the only straining a small filter has, and a pre-filter is rinsed by itself.
    expect(says('coarse-to-fine', of(layer('k', 'low', medium('Floss cartridge'), 14), m70))).toEqual([])
    const outside = { chambers: [chamber('low', { role: 'pre-filter' }), chamber('high')] }
    expect(says('coarse-to-fine', caseWith([f20, m70], outside))).toEqual([])
  })
  test('media low, and foam in place of media', () => {
    expect(says('media-low', of(c30, m70))).toEqual(['c | Mechanical layer inside the filter: coarse foam (10 ppi). | Use the pre-filter, and fill its place with bio media.']) // prettier-ignore
    const foam = (low: 'tray' | 'compartment' | 'cartridge-slot') =>
      says('foam-for-media', caseWith([layer('c', 'low', COARSE, 30), layer('d', 'low', COARSE, 48), m70], { chambers: [chamber('low', { role: low }), chamber('high')] })) // prettier-ignore
    const [said] = foam('tray')
    // 78 of 160 mm.
    expect(said).toBe('d | Mechanical layers take 49 % of the media space. Borderline (limit 45 %). | One coarse and one fine layer are enough. Give the rest to bio media.') // prettier-ignore
    expect(foam('compartment')).toEqual([said])
    expect(foam('cartridge-slot')).toEqual([])
    expect(says('foam-for-media', of(layer('c', 'low', COARSE, 72), m70))).toEqual([])
    expect(says('foam-for-media', of(layer('c', 'low', COARSE, 80), layer('d', 'high', COARSE, 80)))[0]).toMatch(/c \| Mechanical layers take 100 % of the media space\. \| One coarse and one fine layer are enough\./) // prettier-ignore
  })
  test('water that goes round', () => {
    const [fine] = says('fine-sealed', of(c30, { ...f20, gap: 0.002 }, m70))
    expect(fine).toMatch(/f \| [\d.,\s]+ % of the water bypasses the fine pad through a 2 mm gap\. \| Cut the fine pad to fit, or seal its edge\./) // prettier-ignore
    expect(says('fine-sealed', of(c30, f20, m70))).toEqual([])
    const bag = (more: object) => says('bypass-share', of(layer('m', 'low', SINTERED, 40, { gap: 0.01, ...more }), layer('n', 'low', SINTERED, 30))) // prettier-ignore
    // A bag in its tray: nothing to cut where the next layer crosses its gap; a stiff layer is cut, a bag with an open gap as well.
    expect(bag({ bagged: true })).toEqual([])
    expect(bag({ bagged: false })).toHaveLength(1)
    expect(bag({ bagged: true, crossed: false }).length).toBeGreaterThan(0)
    expect(says('bypass-share', of(layer('m', 'low', SINTERED, 40, { gap: 0.01, bagged: true })))).toHaveLength(1) // prettier-ignore
    const walls = { chambers: [chamber('low', { wallGap: 0.01 }), chamber('high', { wallGap: 0.01 })] }
    // Said once of each tray.
    expect(says('bypass-share', caseWith([layer('a', 'low', SINTERED, 30), layer('b', 'low', SINTERED, 30), layer('m', 'high', SINTERED, 70)], walls)).map((s) => s[0])).toEqual(['a', 'm']) // prettier-ignore
  })
  test('above the rim, beside a bag, over a cartridge, past the media', () => {
    expect(says('above-rim', of(layer('m', 'low', SINTERED, 95)))).toEqual(['m | Sintered glass rings stand 15 mm above the rim of low. | Use less of it, or a thinner pad.']) // prettier-ignore
    const open = of(layer('b', 'low', SINTERED, 40, { bagged: true, gap: 0.003, crossed: false }), f20)
    expect(says('gap-crossed', open)[0]).toMatch(/b \| The gap beside the bag of sintered glass rings runs on past fine pad: [\d.,\s]+ % of the water bypasses that too\. \| Cut the fine pad to cover the gap\./) // prettier-ignore
    expect(says('gap-crossed', of(layer('b', 'low', SINTERED, 40, { gap: 0.003, crossed: false }), f20))).toEqual([]) // prettier-ignore
    const weir = (fouled: number) =>
      says('cartridge-overflow', caseWith([layer('k', 'low', medium('Floss cartridge'), 14, { fouled })], { chambers: [chamber('low', { overflowSill: 0.5 })] })) // prettier-ignore
    expect(weir(0)).toEqual([])
    expect(weir(0.98)[0]).toMatch(/low \| [\d.,\s]+ % of the water spills over the cartridge unfiltered\. \| Rinse or replace it\. A coarse sponge on the intake keeps it open longer\./) // prettier-ignore
    expect(says('cartridge-overflow', of({ ...f20, gap: 0.005 }))).toEqual([])
    expect(says('water-meets-media', of(layer('m', 'low', SINTERED, 70, { gap: 0.02 })))[0]).toMatch(/ \| Only [\d.,\s]+ % of the water reaches the bio media\. \| /) // prettier-ignore
  })
  test('chemical media by the choice of the house', () => {
    const place = (chemical: HouseRule['chemical'], ...layers: ReturnType<typeof layer>[]) => says('chemical-place', of(...layers), { chemical }) // prettier-ignore
    const k = (id: string, m = CARBON) => layer('k', id, m, 20)
    expect(place('none', c30, k('high'))).toEqual(['k | Activated carbon (3 mm) is not needed in an established tank (house rule). | Use the space for bio media.']) // prettier-ignore
    expect(place('last', c30, k('low'), m70)).toEqual(['k | Activated carbon (3 mm) is not the last layer. | Activated carbon (3 mm) last.']) // prettier-ignore
    expect(place('last', c30, k('low'), layer('r', 'high', RESIN, 20))).toEqual([])
    expect(place('after-straining', c30, k('low'), layer('f', 'high', FINE, 20))).toEqual(['k | Activated carbon (3 mm) sits before the mechanical layers, so dirt clogs it. | Activated carbon (3 mm) after all mechanical layers.']) // prettier-ignore
    expect(place('after-straining', c30, k('low'), m70)).toEqual([])
    expect(place('after-fine', c30, f20, layer('m', 'high', SINTERED, 40), k('high'))).toEqual(['k | Activated carbon, 3 mm is not right after the fine pad. | Activated carbon, 3 mm right after the fine pad; resin last.']) // prettier-ignore
    expect(place('after-fine', c30, f20, k('high'), layer('r', 'high', RESIN, 20))).toEqual([])
    expect(place('after-fine', c30, f20, layer('r', 'high', RESIN, 20), layer('m', 'high', SINTERED, 40))).toEqual(['r | Exchange resin, 0.7 mm is not the last layer. | Exchange resin, 0.7 mm last.']) // prettier-ignore
    expect(place('after-fine', f20, layer('r', 'high', RESIN, 20), layer('k', 'high', CARBON, 20))).toEqual(
      [],
    )
  })
  test('the body: its settling space, its pump, its intake, how quick it is to reach', () => {
    const empty = chamber('void', { role: 'settling-void', solid: { shape: 'box', width: 0.2, depth: 0.2, height: 0.05 }, usableHeight: null }) // prettier-ignore
    const found = auditOrder(outcomeOf(caseWith([c30, m70], { chambers: [empty, chamber('low'), chamber('high'), chamber('spare')] }), NORMAL, true), EVERYTHING).filter((f) => f.rule.id === 'diffuser-in-void') // prettier-ignore
    expect(found.map((f) => f.chamberId)).toEqual(['void'])
    const litres = found[0]?.sentence.find((s) => typeof s !== 'string')?.figure
    // 0.2 × 0.2 m, 50 mm deep.
    expect(litres?.working?.map((w) => +w.value.toFixed(6))).toEqual([0.05, 400])
    const pump = [chamber('well', { role: 'pump-well', use: 'machinery' }), chamber('low'), chamber('high')]
    const bare = { ...(o.case.hookup as NonNullable<PathCase['hookup']>), segments: o.case.hookup?.segments.slice(1) ?? [] } // prettier-ignore
    expect(says('pump-grit', caseWith([c30, m70], { chambers: pump, hookup: bare }))).toEqual(['well | Nothing protects the pump: grit reaches the impeller. | Add a strainer or a coarse sponge on the intake.']) // prettier-ignore
    expect(says('pump-grit', caseWith([c30, m70], { chambers: pump, hookup: null }))).toHaveLength(1)
    expect(says('pump-grit', caseWith([c30, m70], { chambers: pump }))).toEqual([])
    const between = [chamber('low'), ...pump.slice(0, 1), chamber('high')]
    // A strainer is one guard of several; a layer that strains, one of several layers.
    expect(says('pump-grit', caseWith([c30, layer('r', 'low', SINTERED, 30)], { chambers: between, hookup: bare }))).toEqual([]) // prettier-ignore
    expect(says('open-inlet', of(c30))).toEqual([' | Open intake: add a sponge before keeping shrimp or fry. | Fit a coarse sponge on the intake.']) // prettier-ignore
    const outside = { chambers: [chamber('low', { role: 'pre-filter' }), chamber('high')] }
    expect([says('open-inlet', caseWith([c30], outside)).length, says('open-inlet', caseWith([m70], outside)).length]).toEqual([0, 1]) // prettier-ignore
    expect(says('some-media', of(c30))).toEqual([' | 0 L of bio media: water stays clear but not safe. | Fill the free space with sintered media.']) // prettier-ignore
    const reach = (what: string, seconds: number) => ({ reach: what, part: 'Top Pad', parts: 3, moves: 4, seconds, back: null, cleaning: null, way: [] }) as unknown as ReachResult // prettier-ignore
    const slow = says('prefilter-reach', of(c30, m70), {}, [reach('impeller', 200), reach('pad', 70)])
    expect(slow).toEqual([
      'c | Slow to service: the first mechanical layer takes 70 s and 4 hand movements to reach. | ',
    ])
    expect(says('prefilter-reach', of(m70), {}, [reach('pad', 70)])[0]).toMatch(
      / \| Slow to service: the first mechanical layer takes 70 s and 4 hand movements to reach\. \| /,
    )
    expect(says('prefilter-reach', of(c30), {}, [reach('pad', 60)])).toEqual([])
    expect(says('prefilter-reach', of(c30), {}, [reach('impeller', 200)])).toEqual([])
    expect(says('prefilter-reach', of(c30), {}, [reach('pad', 200), reach('pre-filter', 20)])).toEqual([])
    const time = auditOrder(outcomeOf(of(c30), NORMAL, true), EVERYTHING, [reach('pad', 70)]).find((f) => f.rule.id === 'prefilter-reach')?.sentence.find((s) => typeof s !== 'string')?.figure // prettier-ignore
    expect([time?.label, ...(time?.conditions ?? [])]).toEqual(['To top Pad', '4 hand movements', 'from the teardown log']) // prettier-ignore
  })
})
