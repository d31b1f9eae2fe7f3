import { DAY } from '../biology'
import { sentenceText } from '../figures'
import type { Outlet } from '../hydraulics'
import { capacityInput, supportedRange, type CapacityFigures, type StockClass } from '../tanks'
import { claimChances } from './chances'
import { fitFindings, type FittingModel } from './fitting'
import type { JudgedFill } from './fills'
import { redundancySentences } from './redundancy'
import { oxygenWithout, hoursWithout } from './withoutFilter'
import {
  besideSentence,
  bindingSentence,
  floorSentence,
  leverageSentence,
  takesSentence,
} from './schoolReasons'
import { strengthOf } from './strength'
import { closedBodyFigure, tankBalance } from './tankBalance'
import { balanceWords } from './balanceWords'
import { keepingOfTank, type TankRecord } from '../tanks/tankRecord'
import { together } from './together'
import { lph } from './tests/support'
import { classOf, figure, FILL, NOZZLE, TANK } from './tests/tank'

const says = (list: readonly { readonly sentence: Parameters<typeof sentenceText>[0] }[]): string =>
  list.map((s) => sentenceText(s.sentence, 'metric')).join(' ')

describe('a tank and a fill at rest', () => {
  const study = (tank: Partial<TankRecord> = {}, fill: JudgedFill | null = FILL) => {
    const found = tankBalance({ ...TANK, ...tank }, fill)
    if (!found) throw new Error('no balance')
    return found
  }
  test('feed is the class’s for its litres, or what is noted, and the band goes with it', () => {
    const [fed, made] = study().lines.map((l) => l.figure)
    // 15 mg for each litre: 1.5 g a day, ± 40 %; 55.2 mg N.
    expect((fed?.value ?? 0) * DAY).toBeCloseTo(1.5e-3, 9)
    expect((fed?.uncertainty ?? 0) / (fed?.value ?? 1)).toBeCloseTo(0.4, 9)
    expect((made?.value ?? 0) * DAY * 1e6).toBeCloseTo(55.2, 6)
    const noted = study({ feed: 1e-3 / DAY }).lines[0]?.figure
    expect([noted?.provenance, (noted?.uncertainty ?? 0) / (noted?.value ?? 1)]).toEqual(['measured', expect.closeTo(0.15, 9)]) // prettier-ignore
    expect(keepingOfTank(TANK, { outlet: NOZZLE, flow: lph(600) }).stirred).toBeCloseTo(
      (2 * Math.sqrt(lph(600) * 1.2557)) / 0.35,
      3,
    )
    expect(keepingOfTank(TANK, { outlet: null, flow: lph(600) }).stirred).toBe(0)
    expect(keepingOfTank({ ...TANK, plantShare: 0.2 }).plantShare).toBe(0.2)
  })
  test('every limit kept says so with its reserve; the film’s floor is named', () => {
    const s = study()
    expect(s.lines.filter((l) => l.limit && !l.limit.met)).toEqual([])
    // Fed as its class, 6.4 ± 1.4 mg/L of oxygen may be under 5; noted and little fed it is not.
    expect(says(s.sentences)).toContain('Oxygen at night is borderline. Limit: at least 5 mg/L.')
    expect(s.lines.find((l) => l.figure.id === 'tank-oxygen')?.limit).toMatchObject({
      met: true,
      doubtful: true,
      said: 'maybe below the limit',
    })
    expect(says(study({ feed: 0.5e-3 / DAY }).sentences)).toContain(
      'Bacteria on glass, substrate and décor process 16 ± 15 mg/d of the 18.4 ± 2.8 mg/d of ammonia.',
    )
    expect(sentenceText(balanceWords(study({ feed: 0.5e-3 / DAY })), 'metric')).toContain('ammonia 0.07')
    expect(s.lines.find((l) => l.figure.id === 'tank-ammonia')?.figure.conditions?.[0]).toBe(
      'minimum level that keeps bacteria alive',
    )
    expect(sentenceText(balanceWords(s), 'metric')).toBe('oxygen at night borderline')
    // 2.75 m² · 1859 · 1.05^−2 · 0.12/2.05 mg a day less what one pass leaves, times what is left of the rate: 0.65 by
    // organic carbon (Zhu and Chen 2001), and by alkalinity 100 + (3.57 · 55.2 − 7.14 · 54.9) · 7/30 = 54.5 mg/L,
    // 54.5/79.5; and what the tank’s own films take there, little less: (0.33 m · 2.3 m + 3 · 0.27 m²) · 17 to 20.9 mg.
    const reserve = s.lines.find((l) => l.figure.id === 'tank-reserve')?.figure.value ?? 0
    const kept = (0.65 * 54.5) / 79.5
    expect(reserve).toBeGreaterThan(4.2 * kept + (1.569 * 17) / 55.2)
    expect(reserve).toBeLessThan((kept * 2.75 * 98.7) / 55.2 + (1.569 * 20.9) / 55.2)
    expect(says(s.sentences)).toMatch(
      /Bacteria on glass, substrate and décor process [\d.,\s]+ ± [\d.,\s]+ mg\/d of the 55 ± 22 mg\/d of ammonia\./,
    )
  })
  test('no animals, no changes, soft water, cold, sour: each is said in words', () => {
    expect(says(study({ feed: 0 }).sentences)).toContain('No feed, no animals')
    expect(says(study({ changeShare: 0 }).sentences)).toContain('Nitrate keeps rising.')
    expect(says(study({ alkalinity: 0.02 }).sentences)).toMatch(
      /Hardness \(KH\) is used up faster than water changes replace it\./,
    )
    expect(says(study({ alkalinity: 0.1 }).sentences)).toContain(
      'Between water changes pH drops by about 0.26, because the bacteria use up hardness (KH).',
    )
    expect(says(study({ temperature: 2 }).sentences)).toContain('cold')
    expect(says(study({ pH: 5 }).sentences)).toContain('At pH 5')
    expect(says(study({ pH: 10 }).sentences)).toContain('Un-ionised ammonia too high.')
    expect(says(study({ pH: 8 }).sentences)).not.toContain('At pH')
    expect(says(study({ conditioner: true }).sentences)).toContain(
      'The water conditioner leaves the bacteria about half of the ammonia.',
    )
    // A kilogram of feed a day is beyond what glass and gravel take of any water.
    const bare = study(
      { changeShare: 0, feed: 1 / 86400 },
      { ...FILL, films: { flow: lph(600), layers: [] } },
    )
    expect(says(bare.sentences)).toContain('Ammonia keeps rising.')
    expect(sentenceText(balanceWords(bare), 'metric')).toContain(
      'ammonia too high, un-ionised ammonia too high, nitrite too high, nitrate too high, and oxygen at night too low',
    )
    expect(tankBalance(TANK, null)).toBeNull()
    expect(tankBalance(TANK, { ...FILL, films: null })).toBeNull()
    expect(says(study({ water: figure('water', 20, { dimension: 'volume' }), surface: 20 }).sentences)).toContain('Limit: 0.12 mg/L, where a test kit still reads 0.') // prettier-ignore
  })
  test('a stopped body of 3 L is without oxygen in about two hours (by hand: 3 L · DO ÷ (4.57 · 55 mg a day))', () => {
    const s = study()
    const f = closedBodyFigure(s, 3e-3)
    const perHour = (4.57 * 55.2) / 24
    expect((f?.value ?? 0) / 3600).toBeCloseTo((3 * s.balance.oxygen * 1e3) / perHour, 1)
    expect(closedBodyFigure(s, null)).toBeNull()
    expect(closedBodyFigure(study({ feed: 0 }), 3e-3)).toBeNull()
  })
})

describe('two different filters on one tank', () => {
  // 0.5 kg beside 1.2 kg, normally stocked: 50 and 120 L; their bands of a fifth add.
  const SMALL: JudgedFill = {
    ...FILL,
    flow: figure('flow', lph(300), { dimension: 'flow' }),
    mass: figure('mass', 0.5),
    films: { flow: lph(300), layers: [{ area: 1.1, flow: lph(300) }] },
    outlet: null,
  }
  const both = together({ ...TANK, water: figure('water', 0.15, { dimension: 'volume' }) }, [
    { name: 'Big', fill: { ...FILL, mass: figure('mass', 1.2) } },
    { name: 'Small', fill: SMALL },
  ])
  test('they carry the sum, and each is what is left with the other open', () => {
    expect(both?.carries?.value).toBeCloseTo(0.17, 9)
    expect(both?.carries?.uncertainty).toBeCloseTo(0.2 * 0.17, 9)
    expect(both?.without.map((w) => [w.name, w.carries?.value])).toEqual([
      ['Big', expect.closeTo(0.05, 9)],
      ['Small', expect.closeTo(0.12, 9)],
    ])
    const words = says(both?.sentences ?? [])
    expect(words).toMatch(/Enough: together they support 170 ± 34 L at this stocking; the tank is 150 L\./)
    expect(words).toMatch(/While Big is open: not enough, the rest supports 50 ± 10 L\./)
    expect(words).toMatch(/While Small is open: not enough, the rest supports 120 ± 24 L\./)
  })
  test('their balance is of both films, and only what flows stirs', () => {
    // 3.85 m² of film hold more in reserve than 2.75; one return of the two is known, and stirs alone.
    const alone = both?.without[1]?.balance
    expect(both?.balance?.keeping.stirred).toBeCloseTo(alone?.keeping.stirred ?? NaN, 12)
    const reserve = (both?.balance?.balance.reserve ?? 0) / (alone?.balance.reserve ?? 1)
    // 1.4 times the films, beside the tank’s own share, which stays.
    expect(reserve).toBeGreaterThan(1.31)
    expect(reserve).toBeLessThan(1.38)
    expect(keepingOfTank(TANK, ...[1, 2].map(() => ({ outlet: NOZZLE, flow: lph(600) }))).stirred).toBeCloseTo(Math.SQRT2 * keepingOfTank(TANK, { outlet: NOZZLE, flow: lph(600) }).stirred, 12) // prettier-ignore
  })
  test('one of which only the flow is known is named and not counted', () => {
    const unknown: JudgedFill = { ...FILL, mass: null, films: null }
    const t = together(TANK, [{ name: 'Big', fill: FILL }, { name: 'Old', fill: unknown }]) // prettier-ignore
    expect(t?.carries?.value).toBeCloseTo(0.12, 9)
    // 600 L/h at one turnover an hour.
    expect(says(t?.sentences ?? [])).toMatch(
      /Old: not counted, its media are not recorded\. By flow alone at most 600 L \(0 to 782\)\./,
    )
    expect(says(t?.sentences ?? [])).toContain(
      'While Big is open: unknown whether the other filter is enough.',
    )
    expect(together(TANK, [{ name: 'Old', fill: unknown }])?.carries).toBeNull()
  })
  test('one alone leaves nothing while it is open; none is nothing', () => {
    expect(together(TANK, [])).toBeNull()
    const one = together(TANK, [{ name: 'Big', fill: FILL }])
    expect(says(one?.sentences ?? [])).toContain('No filtration while it is open.')
    expect(one?.without[0]).toMatchObject({ carries: null, balance: null })
  })
})

describe('when it stops', () => {
  const study = (tank: Partial<TankRecord> = {}) => tankBalance({ ...TANK, ...tank }, FILL)
  test('hours until 3 mg/L by an exponential (by hand)', () => {
    // Heavy stock: 3 g a day, a still surface of 0.6 · 1.024^5 = 0.6755 m a day over 0.27 m².
    const s = study({ stock: classOf('heavy') })
    if (!s) throw new Error('no balance')
    const k = 0.6755 * 0.27
    // Three grams: the fish 1.2 g of oxygen, bacteria 0.8 of a quarter of it, the tank’s own films what they take.
    const own = s.balance.nitrogen.own * 4.57 * DAY * 1e3
    const rest = 8.263 - (3 * 0.4 + 3 * 0.25 * 0.8 + own) / k
    const c0 = s.balance.oxygen * 1e3
    expect(hoursWithout(s)).toBeCloseTo((Math.log((c0 - rest) / (3 - rest)) * 0.1 * 24) / k, 1)
    expect(says(redundancySentences(TANK, FILL, s))).toContain('falls to 3 mg/L in about')
  })
  test('plants breathe at night as what they take would have cost, in an outage as at rest (by hand)', () => {
    // Half of 3 g · 0.4 · 0.092 = 110.4 mg of nitrogen: 55.2 · 4.57 = 252.3 mg of oxygen a day more to breathe.
    const [without, planted] = [0, 0.5].map((plantShare) =>
      study({ stock: classOf('heavy'), surface: 0.6, plantShare }),
    )
    const drawn = (s: typeof without): number => {
      if (!s) return NaN
      const { balance: b } = s
      return b.saturation - oxygenWithout(s) - (b.nitrogen.own * 4.57) / (0.6755 / DAY) / 0.6
    }
    expect(((drawn(planted) - drawn(without)) * 0.6755 * 0.6) / 252.3e-6).toBeCloseTo(1, 2)
  })
  test('a wide, lightly fed tank needs nothing running for that; a breathless one has no time', () => {
    const s = study({ feed: 0.2e-3 / DAY })
    expect(s && hoursWithout(s)).toBe(Infinity)
    expect(says(redundancySentences(TANK, FILL, s))).toContain('stays above 3 mg/L')
    const worst = study({ stock: classOf('heavy'), surface: 0.01 })
    expect(worst && hoursWithout(worst)).toBe(0)
  })
  test('two of them: either alone, or only together', () => {
    expect(says(redundancySentences(TANK, FILL, null))).toMatch(
      /With two, either alone supports 120 ± 25 L\. You can open one while the other runs\./,
    )
    const large = { ...TANK, water: figure('water', 0.2, { dimension: 'volume' }) }
    expect(says(redundancySentences(large, FILL, null))).toMatch(
      /Two would support 240 ± [\d.,\s]+ L together, either alone [\d.,\s]+ ± [\d.,\s]+ L\./,
    )
  })
})

describe('strength along a tank', () => {
  const flow = FILL.flow
  const of = (tank: Partial<TankRecord>, outlet: Partial<Outlet> = {}, inlet: Parameters<typeof strengthOf>[3] = null) =>
    strengthOf({ ...TANK, ...tank }, flow, [{ id: 'a', name: 'Nozzle', outlet: { ...NOZZLE, ...outlet } }], inlet, true) // prettier-ignore
  test('600 L/h from 13 mm: 25 cm/s are passed up to 39 cm, half of 80 cm (6 · 0.013 · 1.2557/0.25)', () => {
    const [along, glass] = of({}).outlets
    expect(along?.gentle.value).toBeCloseTo(0.3918, 3)
    expect(along?.share.value).toBeCloseTo(0.4897, 3)
    expect([along?.level, glass?.level]).toEqual(['borderline', 'gentle'])
    expect(glass?.gentle.value).toBeCloseTo(0.3918 * 0.4, 3)
    expect(along?.leaves.value).toBeCloseTo(1.2557, 3)
    expect(along?.curve).toHaveLength(41)
    expect(along?.curve.at(-1)).toEqual({
      x: 0.8,
      speed: expect.closeTo((6 * 0.013 * 1.2557) / 0.8, 4) as number,
    })
    // Jet ± 30 %, flow ± 4 %.
    expect((along?.gentle.uncertainty ?? 0) / (along?.gentle.value ?? 1)).toBeCloseTo(
      Math.hypot(0.3, 0.04),
      6,
    )
  })
  test('the fitting one is named: turned to the glass for what bears little', () => {
    const s = of({ stock: classOf('delicate') })
    expect(s.outlets[0]?.level).toBe('strong')
    expect(s.best?.id).toBe('a-glass')
    expect(says(s.sentences)).toContain('Better: nozzle, turned towards the glass')
    // Where all are gentle the strongest stays: water has to move.
    expect(of({ stock: classOf('marine') }).best?.id).toBe('a')
    const bar = of({}, { kind: 'spray-bar', diameter: 0.003, holes: 12 }).outlets.map((o) => [
      o.id,
      o.outlet.holes,
    ])
    expect(bar).toEqual([
      ['a', 12],
      ['a-glass', 12],
      ['a-half', 6],
    ])
  })
  test('an open inlet draws fry in, a sponge does not; a narrow one is too fast', () => {
    expect(says(of({ stock: classOf('delicate') }).sentences)).toContain(
      'Open intake: add a sponge before keeping shrimp or fry.',
    )
    expect(
      says(of({ stock: classOf('delicate') }, {}, { openArea: 4e-3, sponge: true }).sentences),
    ).not.toContain('inlet')
    const narrow = of({}, {}, { openArea: 3e-4, sponge: false })
    expect(narrow.inlet?.value).toBeCloseTo(lph(600) / 3e-4, 9)
    expect(says(narrow.sentences)).toContain('Current at the intake: 56')
    expect(says(of({}, {}, { openArea: 3e-3, sponge: false }).sentences)).not.toContain('inlet')
  })
  test('a surface stirred costs planted tanks carbon dioxide; a deep return brings little oxygen', () => {
    expect(says(of({ plantShare: 0.3 }).sentences)).toMatch(
      /The return stirs the surface: oxygen comes in, but about [\d.,\s]+\s?% of added CO₂ is lost in an hour\./,
    )
    expect(says(of({}).sentences)).not.toContain('carbon dioxide')
    expect(says(of({}, { depth: 0.2 }).sentences)).toContain(
      'Return below the surface: adds little oxygen, keeps CO₂ in.',
    )
    const still = strengthOf(TANK, figure('flow', 0), [{ id: 'a', name: 'N', outlet: NOZZLE }], null, true)
    expect([still.outlets, still.best]).toEqual([[], null])
  })
})

describe('does it fit', () => {
  const CANISTER: FittingModel = {
    kind: 'canister',
    outerWidth: 0.24,
    outerDepth: 0.2,
    outerHeight: 0.36,
    heightWithHoses: 0.45,
    overhang: null,
    hookOpening: null,
    intakeReach: 0.35,
    fullMass: figure('full', 22, { dimension: 'mass' }),
    water: figure('body water', 0.006, { dimension: 'volume' }),
    hoses: [{ kind: 'hose', id: 'in', label: 'Suction hose', length: 1, diameter: 0.016, roughness: 1e-6 }],
    parts: [{ name: 'Shaft', material: 'steel 304' }],
    heater: null,
  }
  const room = { cabinetWidth: 0.36, cabinetDepth: 0.22, cabinetHeight: 0.44, bottomHeight: 0.7 }
  const found = (tank: Partial<TankRecord>, m: Partial<FittingModel> = {}) =>
    new Map(fitFindings({ ...TANK, ...tank }, { ...CANISTER, ...m }).map((f) => [f.id, { ...f, text: sentenceText(f.sentence, 'metric') }])) // prettier-ignore
  test('a canister in a cabinet: the missing millimetres, the hose with its slack, the weight', () => {
    const f = found(room)
    expect(f.get('cabinet-height')).toMatchObject({ level: 'stop' })
    expect(f.get('cabinet-height')?.text).toContain('Needs 450 mm, there is 440 mm.')
    expect(f.get('cabinet-length')?.level).toBe('ok')
    // The narrower side goes through the door: 200 mm.
    expect(found({ ...room, doorWidth: 0.19 }).get('door')?.text).toContain('10 mm too little')
    expect(f.has('door')).toBe(false)
    // 6 L beside 100 L.
    expect(f.get('adds')?.text).toMatch(/Adds 6 L of water \(6\.0\s?%\)\./)
    expect(f.get('cabinet-depth')?.text).toContain('with 20 mm to spare')
    // 0.7 + 0.4 − 0.36 + 0.22 = 0.96 m of hose: 1 m is enough.
    expect(f.get('hose-in')?.text).toContain('with 40 mm to spare')
    expect(found({ ...room, bottomHeight: 0.8 }).get('hose-in')).toMatchObject({ level: 'stop' })
    expect(f.has('clear-hose')).toBe(false)
    const clear = CANISTER.hoses.map((h) => ({ ...h, clear: true }))
    expect(found(room, { hoses: clear }).get('clear-hose')?.text).toContain('algae')
    expect(f.get('weight')?.text).toContain('22 kg')
    // 0.7 + 0.37 − 0.36 = 0.71 m of water over the body.
    expect(f.get('priming')?.text).toContain('Priming: the water stands 710 mm above the filter.')
    expect(found({ ...room, bottomHeight: 0.05 }).get('priming')?.level).toBe('stop')
    expect(found({ ...room, bottomHeight: 2 }).get('priming')?.level).toBe('caution')
    // Without hoses measured on it, a rule: 360 + 100 mm.
    expect(found(room, { heightWithHoses: null }).get('cabinet-height')?.text).toContain(
      'Needs 460 mm, there is 440 mm.',
    )
    const nothing = found({})
    expect([...nothing.values()].filter((x) => x.level === 'unknown').map((x) => x.id)).toEqual(['cabinet-height', 'cabinet-length', 'hose']) // prettier-ignore
  })
  test('a rim filter against the wall, a rim against its hook, and what is heard', () => {
    const rim = { kind: 'hang-on-back', outerDepth: 0.11, hookOpening: 0.015 } as const
    expect(found({ wallGap: 0 }, rim).get('wall-gap')?.text).toContain('110 mm too little')
    expect(found({ wallGap: 0.2 }, { ...rim, overhang: 0.09 }).get('wall-gap')?.text).toContain(
      '110 mm to spare',
    )
    expect(found({ rimThickness: 0.02 }, rim).get('rim')?.text).toContain('5 mm too little')
    expect(found({}, rim).get('rim')?.level).toBe('unknown')
    expect(found({ waterLevel: 0.3 }, rim).get('fall')?.text).toContain('100 mm')
    expect(found({}, rim).has('fall')).toBe(false)
    expect(found({ covered: true }, rim).get('lid')?.level).toBe('caution')
  })
  test('an internal one under water, and its bulk', () => {
    const inside = {
      kind: 'internal',
      outerWidth: 0.12,
      outerDepth: 0.1,
      outerHeight: 0.35,
      intakeReach: null,
    } as const
    expect(found({}, inside).get('immersed')?.text).toContain('20 mm too little')
    // 4.2 L of 50 L are 8 %.
    expect(found({ water: figure('w', 0.05) }, inside).get('bulk')?.text).toMatch(/8\.4\s%/)
    expect(found({}, { ...inside, outerHeight: 0.2 }).has('bulk')).toBe(false)
  })
  test('room that is only assumed stops nothing: it is marked, and to be measured', () => {
    const told = { sizesAssumed: 'a tank twice as long as wide and high' }
    const inside = { kind: 'internal', outerHeight: 0.35, intakeReach: null } as const
    // 36 − 3 cm of water stand in it.
    expect([false, true].map((assumed) => found(assumed ? told : {}, inside).get('immersed')?.level)).toEqual(
      ['stop', 'caution'],
    )
    expect(found(told, inside).get('immersed')?.text).toBe(
      'Height under water: 20 mm too little. Needs 350 mm, there is 330 mm (assumed). Measure the tank.',
    )
    expect(found(told, { ...inside, outerHeight: 0.3 }).get('immersed')?.text).toBe(
      'Height under water: fits, with 30 mm (assumed) to spare.',
    )
    expect(found(told, { intakeReach: 0.4 }).get('intake')).toMatchObject({ level: 'caution' })
    expect(found(told, { intakeReach: 0.4 }).get('intake')?.text).toContain('40 mm (assumed) too long')
  })
  test('an intake too long, too short, or high', () => {
    expect(found({}, { intakeReach: 0.4 }).get('intake')?.text).toContain('40 mm too long')
    expect(found({ waterLevel: 0.2 }, { intakeReach: 0.15 }).get('intake')?.text).toContain('70 mm too short')
    expect(found({}, { intakeReach: 0.1 }).get('intake')?.level).toBe('caution')
    expect(found({}, { intakeReach: 0.3 }).get('intake')?.level).toBe('ok')
  })
  test('steel in salt water; a heater against its room', () => {
    expect(found({ salinity: 35 }).get('steel-Shaft')?.level).toBe('stop')
    expect(found({ salinity: 35 }, { parts: [{ name: 'Shaft', material: 'steel 316' }] }).get('steel-Shaft')?.level).toBe('caution') // prettier-ignore
    expect(found({}).has('steel-Shaft')).toBe(false)
    const soft = {
      parts: [
        { name: 'Strainer', material: 'soft plastic' },
        { name: 'Sleeve', material: 'glass' },
      ],
    }
    expect(found({ stock: classOf('heavy') }, soft).get('soft-Strainer')?.text).toContain('soft plastic')
    expect(found({}, soft).has('soft-Strainer')).toBe(false)
    expect(found({}, soft).get('brittle-Sleeve')?.level).toBe('caution')
    const heater = { heater: { watts: 50, length: 0.4 } }
    expect(found({}, heater).get('heater-watts')?.level).toBe('unknown')
    // 100 L · 10 K · 0.1 W: 100 W.
    expect(found({ roomTemperature: 15 }, heater).get('heater-watts')?.text).toContain('against about 100 W')
    expect(found({ roomTemperature: 15 }, heater).get('heater-watts')?.level).toBe('caution')
    expect(found({ roomTemperature: 21 }, heater).get('heater-watts')?.level).toBe('ok')
    expect(found({}, heater).get('heater-length')?.text).toContain('40 mm too little')
    expect(found({}, heater).get('heater-order')?.text).toContain('Heater: switch it off first and on last.')
  })
})

describe('what the schools say of one class', () => {
  const stock = classOf('normal')
  const caseOf = (more: Partial<JudgedFill> = {}, claimedMax: number | null = 0.3, s: StockClass = stock) => {
    const of = { ...FILL, ...more }
    return { of, stock: s, claimedMax, range: supportedRange(capacityInput(of, claimedMax), s) }
  }
  const text = (sentence: Parameters<typeof sentenceText>[0] | null): string => sentence ? sentenceText(sentence, 'metric') : '' // prettier-ignore
  test('what would make the claim true, in kilograms and whole packs', () => {
    // 300 L at 100 L/kg are 3 kg; 1.8 kg more are four packs of half a kilogram.
    expect(text(takesSentence(caseOf(), null))).toBe('To reach 300 L it would need 3 kg of good sintered media instead of 1.20 ± 0.06 (4 packs more of sintered rings).') // prettier-ignore
    expect(takesSentence(caseOf({}, 0.1), null)).toBeNull()
    expect(takesSentence(caseOf({}, null), null)).toBeNull()
    const could = { supports: figure('could', 0.35, { dimension: 'volume' }) }
    expect(text(takesSentence(caseOf(), could))).toContain(
      'The best setup found supports 350 L, which is enough.',
    )
    const short = { supports: figure('could', 0.2, { dimension: 'volume' }) }
    expect(text(takesSentence(caseOf(), short))).toContain(
      'To reach 300 L it would need 3 kg of good sintered media instead of 1.20 ± 0.06 (4 packs more of sintered rings).',
    )
    const balanceLeads = { ...stock, rule: { order: ['balance'], bind: [], turnoverFloor: 1 } as const }
    expect(text(takesSentence(caseOf({}, 3, balanceLeads), null))).toMatch(
      /To reach [\d.,\s]+ L it would need [\d.,\s]+ times the media surface\./,
    )
  })
  test('each school binds with its own words', () => {
    expect(text(bindingSentence(caseOf()))).toContain('Media is the limit.')
    expect(text(bindingSentence(caseOf({ foam: 0.7 })))).toContain('The media equal 1.20 ± 0.06 of good sintered media, 70 % of that from foam.') // prettier-ignore
    const balanceLeads = { ...stock, rule: { order: ['balance'], bind: [], turnoverFloor: 1 } as const }
    expect(text(bindingSentence(caseOf({}, 0.3, balanceLeads)))).toMatch(
      /Bioload is the limit\. The bacteria process [\d.,\s]+ mg\/d of nitrogen; that supports [\d.,\s]+ ± [\d.,\s]+ L \(normal stocking\)\./,
    )
    expect(text(bindingSentence(caseOf({ mass: null, films: null })))).toContain(
      'No media recorded, so only circulation can be judged.',
    )
    const only = (order: readonly ('oversizing' | 'minima')[]) => ({ ...stock, rule: { order, bind: [], turnoverFloor: 1 } }) // prettier-ignore
    expect(text(bindingSentence(caseOf({}, 0.3, only(['oversizing']))))).toContain(
      'Oversizing is the limit: 1.5 times the tank for normal stocking.',
    )
    expect(text(bindingSentence(caseOf({}, 0.3, only(['minima']))))).toMatch(
      /Circulation is the limit\. 600 ± [\d.,\s]+ L\/h gives 4 turnovers an hour in a tank of up to [\d.,\s]+ ± [\d.,\s]+ L\./,
    )
  })
  test('why mass and balance differ', () => {
    expect(text(besideSentence(caseOf()))).toMatch(
      /The bioload balance gives [\d.,\s]+ times the media rule\. That reserve covers clogged media, heavy feeding and cycling\./,
    )
    const cold = { ...stock, temperature: 4 }
    expect(text(besideSentence(caseOf({ outlet: { ...NOZZLE, depth: 0 }, mass: figure('mass', 8), flow: figure('flow', lph(6000)) }, 0.3, cold)))).toContain('The balance also counts feed, temperature and salinity.') // prettier-ignore
    const still = caseOf({ outlet: null, mass: figure('mass', 5) })
    expect(text(besideSentence(still))).toContain('oxygen at night runs short')
    const near = caseOf({ films: { flow: lph(600), layers: [{ area: 1.6, flow: lph(600) }] } })
    expect(text(besideSentence(near))).toContain('Both main rules agree within their uncertainty.')
    expect(besideSentence(caseOf({ mass: null, films: null }, null, { ...stock, rule: { order: ['turnover'], bind: [], turnoverFloor: 1 } }))).toBeNull() // prettier-ignore
  })
  test('twice the flow and twice the media; and a tank too large for its flow', () => {
    expect(text(leverageSentence(caseOf()))).toMatch(
      /More media helps, more flow hardly does: double media \+[\d.,\s]+\s?%, double flow \+[\d.,\s]+\s?%\./,
    )
    expect(leverageSentence(caseOf({ films: null }))).toBeNull()
    // 5 kg would carry 500 L; 200 L/h reach 200 ± 60 L once an hour.
    const slow = caseOf({ mass: figure('mass', 5), flow: figure('flow', lph(200)), films: null })
    expect(text(floorSentence(slow))).toContain(
      'Circulation is low in the largest tank: 0.4 turnovers an hour, below your minimum.',
    )
    expect(floorSentence(caseOf())).toBeNull()
  })
})

describe('how sure a verdict is', () => {
  const of: CapacityFigures = FILL
  test('by mass alone it is a product: ± as the parts in quadrature (log-normal, in closed form)', () => {
    const c = claimChances(of, classOf('normal'), 0.15)
    // ln-sigma²: (0.1)² and (0.025)² as ln(1 + r²): σ = 0.1028; 120 L · e^(±1.96 σ) = 98.1 to 146.8.
    const sigma = Math.sqrt(Math.log(1.01) + Math.log(1 + 0.025 ** 2))
    expect((c?.carried.low ?? 0) / (0.12 * Math.exp(-1.96 * sigma))).toBeCloseTo(1, 1)
    expect((c?.carried.high ?? 0) / (0.12 * Math.exp(1.96 * sigma))).toBeCloseTo(1, 1)
    expect(c?.carried.middle).toBeCloseTo(0.12, 2)
    // P(150 > carried) = Φ(ln(1.25)/σ) = Φ(2.171) = 0.985.
    expect(c?.tooHigh).toBeCloseTo(0.985, 2)
    expect(c?.ratio?.middle).toBeCloseTo(1.25, 1)
    expect(c?.beyond?.overclaimed).toBe(0)
    expect((c?.beyond?.holds ?? 0) > (c?.beyond?.stretched ?? 1)).toBe(true)
    // The rule brings 0.1² of 0.1² + 0.025², all but a sixteenth.
    expect(c?.from[0]).toEqual({
      what: 'litres one kilogram supports',
      share: expect.closeTo(16 / 17, 2) as number,
    })
    expect(c?.steps.reduce((s, x) => s + x.share, 0)).toBeCloseTo(1, 9)
    expect(c?.steps).toHaveLength(20)
  })
  test('seeded: the same question gets the same answer', () => {
    const ask = (seed: number) => claimChances(of, classOf('normal'), 0.15, seed, 500)
    expect(ask(1)).toEqual(ask(1))
    expect(ask(2)).not.toEqual(ask(1))
  })
  test('the balance is drawn through its own sums; nothing carried has no chances; no claim no ratio', () => {
    const foam = {
      ...of,
      films: { flow: lph(600), layers: [{ area: 0.4, flow: lph(600) }] },
    }
    const byBalance = {
      ...classOf('normal'),
      rule: { order: ['balance'], bind: [], turnoverFloor: 1 } as const,
    }
    const c = claimChances(foam, byBalance, 0.1, 1, 400)
    expect(c?.from.map((f) => f.what)).toEqual(expect.arrayContaining(['feed', 'how fast bacteria work']))
    expect(claimChances({ ...of, flow: figure('flow', 0) }, classOf('normal'), 0.1)).toBeNull()
    expect(claimChances(of, classOf('normal'), null, 1, 100)).toMatchObject({
      ratio: null,
      tooHigh: null,
      beyond: null,
    })
    const rule = {
      order: ['oversizing', 'minima', 'turnover'],
      bind: ['minima', 'turnover'],
      turnoverFloor: 1,
    } as const
    const all = claimChances(of, { ...classOf('normal'), rule }, 0.15, 1, 2000)
    // 150 ÷ 1.5 = 100 L binds ahead of 600 ÷ 4 = 150 L.
    expect(all?.carried.middle).toBeCloseTo(0.1, 2)
    expect(all?.from[0]?.what).toBe('oversizing')
  })
})
