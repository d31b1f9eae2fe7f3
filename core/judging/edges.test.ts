import { sentenceText, type Figure } from '../figures'
import type { Outlet } from '../hydraulics'
import { fitFindings, type FittingModel } from './fitting'
import { outletsAlong, bestOutlet, strengthOf, waysBack } from './strength'
import { closedBodyFigure, tankBalance } from './tankBalance'
import { together } from './together'
import { nothingRunning, redundancySentences, stoppedBody } from './redundancy'
import { oxygenWithout, hoursWithout } from './withoutFilter'
import { proposedTrials } from './proposed'
import { scenarioOf } from './scenarios'
import { stationsDone } from './stations'
import { keepingOfTank } from '../tanks/tankRecord'
import { assess } from '.'
import type { ModelRecord, TrialRecord } from '../trials'
import type { TankRecord } from '../tanks'
import { hookup, labelOnly, lph, trial } from './tests/support'
import { classOf, figure, FILL, NOZZLE, TANK } from './tests/tank'

/** Every figure anywhere in a value, those that others were worked out from too. */
function figuresIn(value: unknown, seen = new Set<unknown>()): Figure[] {
  if (typeof value !== 'object' || value === null || seen.has(value)) return []
  seen.add(value)
  const own = 'provenance' in value && 'dimension' in value && 'id' in value ? [value as Figure] : []
  return [...own, ...Object.values(value).flatMap((v) => figuresIn(v, seen))]
}
const text = (list: readonly { readonly sentence: Parameters<typeof sentenceText>[0] }[]): string =>
  list.map((s) => sentenceText(s.sentence, 'metric').replace(/\u202f/g, ' ')).join(' ')

const CANISTER: FittingModel = {
  kind: 'canister', outerWidth: 0.24, outerDepth: 0.2, outerHeight: 0.36, heightWithHoses: 0.45, overhang: null,
  hookOpening: null, intakeReach: 0.35, fullMass: figure('full', 22, { dimension: 'mass' }),
  water: figure('body water', 0.006, { dimension: 'volume' }),
  hoses: [{ kind: 'hose', id: 'in', label: 'Suction hose', length: 1, diameter: 0.016, roughness: 1e-6 }],
  parts: [{ name: 'Shaft', material: 'steel 304' }], heater: { watts: 50, length: 0.3 },
} // prettier-ignore
const ROOM: Partial<TankRecord> = { cabinetWidth: 0.36, cabinetDepth: 0.22, cabinetHeight: 0.44, bottomHeight: 0.7, doorWidth: 0.3, wallGap: 0.05, rimThickness: 0.01, roomTemperature: 20 } // prettier-ignore
const fits = (tank: Partial<TankRecord>, m: Partial<FittingModel> = {}) =>
  new Map(fitFindings({ ...TANK, ...ROOM, ...tank }, { ...CANISTER, ...m }).map((f) => [f.id, [f.level, sentenceText(f.sentence, 'metric')]])) // prettier-ignore

test('every figure says what it was worked out from, in numbers, and no doubt is negative', () => {
  const planted = { ...TANK, plantShare: 0.3, changeShare: 0.3, alkalinity: 0.02 }
  const thin = { ...FILL, films: { flow: lph(600), layers: [{ area: 0.2, flow: lph(600) }] } }
  const models = [
    { ...labelOnly, hookups: [hookup], trials: [trial('l', { flow: 480, state: 'as-shipped', hookupId: 'h1' })] },
    { ...labelOnly, hookups: [hookup], trials: [0, 0.3, 0.6, 0.9].map((lift) => trial(`l${lift}`, { lift, flow: 900 - 500 * lift })) },
  ] // prettier-ignore
  const all = figuresIn([
    ...[FILL, thin].map((f) => tankBalance(planted, f)),
    ...[FILL, thin].map((f) => closedBodyFigure(tankBalance(TANK, f) as never, 3e-3)),
    strengthOf(planted, FILL.flow, [{ id: 'a', name: 'N', outlet: NOZZLE }], { openArea: 3e-4, sponge: false }, true),
    together(planted, [{ name: 'A', fill: FILL }, { name: 'B', fill: thin }]),
    fitFindings({ ...TANK, ...ROOM }, CANISTER),
    fitFindings({ ...TANK, ...ROOM, water: figure('w', 0.02, { dimension: 'volume' }) }, { ...CANISTER, kind: 'internal' }),
    models.map((m) => assess(m)),
  ]) // prettier-ignore
  expect(all.length).toBeGreaterThan(140)
  const wrong = all.filter(
    (f) =>
      (f.formula !== undefined && !f.working?.length) ||
      f.working?.some((w) => !Number.isFinite(w.value)) ||
      (f.uncertainty !== undefined && !(f.uncertainty >= 0 && f.uncertainty < Infinity)),
  )
  expect(wrong.map((f) => f.id)).toEqual([])
})

describe('room, to the millimetre', () => {
  test('what is too little or to spare is the larger less the smaller, and says both', () => {
    const differences = figuresIn([
      fitFindings({ ...TANK, ...ROOM }, CANISTER),
      fitFindings({ ...TANK, ...ROOM, waterLevel: 0.2 }, { ...CANISTER, intakeReach: 0.15 }),
      fitFindings({ ...TANK, ...ROOM }, { ...CANISTER, intakeReach: 0.4 }),
      fitFindings({ ...TANK, ...ROOM, waterLevel: 0.3 }, { ...CANISTER, kind: 'hang-on-back', hookOpening: 0.012 }),
    ]).filter((f) => f.formula === 'the one − the other')
    expect(differences.length).toBeGreaterThan(10)
    for (const f of differences) {
      const [one, other] = f.working?.map((w) => w.value) ?? []
      expect(f.value).toBeCloseTo((one ?? NaN) - (other ?? NaN), 3)
      expect(f.value).toBeGreaterThanOrEqual(0)
      expect(f.provenance).toBe('computed')
    }
  })
  test.each([
    // Just enough is enough.
    ['cabinet-height', { cabinetHeight: 0.45 }, {}, 'ok'], ['cabinet-height', { cabinetHeight: 0.4499 }, {}, 'stop'],
    ['cabinet-length', { cabinetWidth: 0.24, cabinetDepth: 0.2 }, {}, 'ok'],
    ['cabinet-length', { cabinetWidth: 0.2, cabinetDepth: 0.25 }, {}, 'ok'],
    ['cabinet-length', { cabinetWidth: 0.239, cabinetDepth: 0.22 }, {}, 'stop'],
    ['cabinet-depth', { cabinetWidth: 0.5, cabinetDepth: 0.19 }, {}, 'stop'],
    ['cabinet-length', { cabinetWidth: null }, {}, 'unknown'], ['cabinet-length', { cabinetDepth: null }, {}, 'unknown'],
    ['intake', {}, { intakeReach: 0.36 }, 'ok'], ['intake', { waterLevel: 0.35 }, { intakeReach: 0.0701 }, 'caution'],
    // Half of 0.4 − 0.04 m.
    ['intake', {}, { intakeReach: 0.1801 }, 'ok'], ['intake', {}, { intakeReach: 0.179 }, 'caution'],
    ['weight', {}, { fullMass: figure('full', 20.1, { dimension: 'mass' }) }, 'caution'],
    ['bulk', { water: figure('w', 0.1) }, { kind: 'internal', outerHeight: 0.1043 }, 'caution'],
    ['priming', { bottomHeight: 0.14 }, {}, 'ok'], ['priming', { bottomHeight: 0.1399 }, {}, 'stop'],
    ['priming', { bottomHeight: 1.7899 }, {}, 'ok'], ['priming', { bottomHeight: 1.7901 }, {}, 'caution'],
    ['fall', { waterLevel: 0.349 }, { kind: 'hang-on-back' }, 'caution'],
    ['wall-gap', {}, { kind: 'hang-on-back', overhang: 0.05 }, 'ok'],
    ['rim', {}, { kind: 'hang-on-back', hookOpening: 0.01 }, 'ok'], ['rim', { rimThickness: null }, { kind: 'hang-on-back', hookOpening: 0.01 }, 'unknown'],
    ['rim', {}, { kind: 'hang-on-back' }, 'unknown'],
    ['steel-Shaft', { salinity: 1 }, {}, 'stop'], ['soft-Strainer', { stock: classOf('heavy') }, { parts: [{ name: 'Strainer', material: 'soft plastic' }] }, 'caution'],
    // 100 L · 5 K · 0.1 W: 50 W, and 40 W are 80 % of it.
    ['heater-watts', {}, { heater: { watts: 40 } }, 'ok'], ['heater-watts', {}, { heater: { watts: 39 } }, 'caution'],
    ['heater-length', {}, { heater: { watts: 40, length: 0.36 } }, 'ok'],
    ['free-length', { length: 0.24 }, { kind: 'internal' }, 'ok'], ['free-length', { length: 0.239 }, { kind: 'internal', outerWidth: 0.2, outerDepth: 0.24 }, 'stop'],
  ] as const)('%s, %j, %j: %s', (id, tank, m, level) => expect(fits(tank, m as Partial<FittingModel>).get(id)?.[0]).toBe(level))
  test.each([
    ['weight', {}, { fullMass: figure('full', 20, { dimension: 'mass' }) }], ['weight', {}, { fullMass: null }],
    ['fall', {}, { kind: 'hang-on-back' }], ['lid', {}, { kind: 'hang-on-back' }], ['fall', { waterLevel: 0.3 }, {}], ['lid', { covered: true }, {}],
    ['bulk', { water: figure('w', 0.1) }, { kind: 'internal', outerHeight: 0.104 }], ['bulk', { water: figure('w', 0.01) }, {}],
    ['adds', {}, { kind: 'internal' }], ['adds', {}, { water: null }], ['intake', {}, { intakeReach: null }], ['intake', {}, { kind: 'air-sponge' }],
    ['immersed', {}, {}], ['cabinet-height', {}, { kind: 'internal' }], ['wall-gap', {}, {}], ['cabinet-depth', { cabinetWidth: null }, {}],
    ['door', { doorWidth: null }, {}], ['steel-Shaft', { salinity: 0.99 }, {}], ['steel-Shaft', { salinity: 35 }, { parts: [{ name: 'Shaft', material: 'ceramic' }] }],
    ['brittle-Shaft', {}, {}], ['soft-Shaft', { stock: classOf('heavy') }, {}], ['heater-length', {}, { heater: { watts: 40 } }], ['heater-order', {}, { heater: null }],
    ['clear-hose', {}, {}],
  ] as const)('of %s nothing is said, %j, %j', (id, tank, m) => expect(fits(tank, m as Partial<FittingModel>).has(id)).toBe(false))
  test('steel by its grade; one clear hose of two is enough to say so; other pieces of the run have no length', () => {
    const steel = (material: string) => fits({ salinity: 35 }, { parts: [{ name: 'Shaft', material }] as never }).get('steel-Shaft')
    expect(steel('steel 316')).toEqual(['caution', 'Shaft: steel 316 in salt water rusts in time.'])
    expect(steel('steel 304')).toEqual(['stop', 'Shaft: steel 304 in salt water rusts and poisons the animals.'])
    const [hose] = CANISTER.hoses
    const bend = { kind: 'fitting', id: 'b', label: 'Bend', lossCoefficient: 1, diameter: 0.016, count: 1 } as const
    const two = fits({}, { hoses: [hose, { ...hose, id: 'out', clear: true }, bend] as never })
    expect([...two.keys()].filter((k) => k.startsWith('hose') || k === 'clear-hose')).toEqual(['hose-in', 'hose-out', 'clear-hose'])
  })
}) // prettier-ignore

describe('the doubt of a balance: feed of a class ± 40 %, what films take ± 50 %, what organic carbon leaves of it ± 50 %, their surface ± 5 % as weighed, gas exchange to a factor of two (rules)', () => {
  const lines = (tank: Partial<TankRecord> = {}, area = 0.2) => {
    const study = tankBalance({ ...TANK, ...tank }, { ...FILL, films: { flow: lph(600), layers: [{ area, flow: lph(600) }] } })
    return new Map(study?.lines.map((l) => [l.figure.id, l.figure]))
  }
  const relative = (f?: Figure): number => (f?.uncertainty ?? NaN) / (f?.value ?? NaN)
  test.each([
    ['tank-feed', 0.4], ['tank-ammonia-made', 0.4], ['tank-ammonia', Math.hypot(0.4, 0.5, 0.5, 0.05)], ['tank-unionised', Math.hypot(0.4, 0.5, 0.5, 0.05)],
    ['tank-carbon-dioxide', Math.hypot(0.4, 0.5)], ['tank-reserve', Math.hypot(0.4, 0.5, 0.5, 0.05)], ['tank-own', Math.hypot(0.6, 0.5, 0.5)], ['tank-nitrate', 0.4],
  ])('%s ± %d of it', (id, share) => expect(relative(lines().get(id))).toBeCloseTo(share, 9))
  test('of nitrate only what was made here is doubted, of oxygen what is missing of its saturation', () => {
    const tap = lines({ tapNitrate: 0.005 }).get('tank-nitrate')
    expect(tap?.uncertainty).toBeCloseTo(0.4 * ((tap?.value ?? 0) - 0.005), 12)
    const oxygen = lines().get('tank-oxygen')
    const saturation = oxygen?.working?.find((w) => w.symbol === 'C*')?.value ?? 0
    expect(oxygen?.uncertainty).toBeCloseTo((saturation - (oxygen?.value ?? 0)) * Math.hypot(0.4, 0.5), 12)
    expect(saturation).toBeGreaterThan(oxygen?.value ?? 0)
  })
  test('at the film’s own floor there is none, nor of what has no end', () => {
    const floor = lines({}, 50)
    for (const id of ['tank-ammonia', 'tank-unionised']) expect(floor.get(id)).not.toHaveProperty('uncertainty')
    expect(floor.get('tank-ammonia')?.conditions?.[0]).toBe('minimum level that keeps bacteria alive')
    expect(lines().get('tank-ammonia')?.conditions).toEqual([])
    expect(lines({ changeShare: 0 }).get('tank-nitrate')).not.toHaveProperty('uncertainty')
    // A kilogram a day is more than glass and gravel take of any water.
    const endless = lines({ changeShare: 0, feed: 1 / 86400 }, 1e-6)
    expect([endless.get('tank-ammonia')?.value, endless.get('tank-ammonia')?.uncertainty]).toEqual([Infinity, undefined])
    expect(lines({ feed: 0 }).get('tank-reserve')).not.toHaveProperty('uncertainty')
  })
  test('feed that was noted is measured and needs no formula', () => {
    expect(lines({ feed: 1e-3 / 86400 }).get('tank-feed')).toMatchObject({ provenance: 'measured' })
    expect(lines({ feed: 1e-3 / 86400 }).get('tank-feed')).not.toHaveProperty('formula')
    expect(lines().get('tank-feed')?.working?.map((w) => w.value)).toEqual([expect.closeTo(0.015 / 86400, 12), 0.1])
    expect(lines().get('tank-nitrate')?.working?.find((w) => w.symbol === 'T')?.value).toBe(7 * 86400)
  })
  test('two on a tank: their surfaces add, each flow by its number', () => {
    const two = tankBalance(TANK, FILL, { ...FILL, films: { flow: lph(400), layers: [{ area: 1.25, flow: lph(400) }] } })
    const working = two?.lines.find((l) => l.figure.id === 'tank-ammonia')?.figure.working ?? []
    expect(working.find((w) => w.symbol === 'A')?.value).toBeCloseTo(4, 9)
    expect(working.map((w) => w.symbol)).toEqual(['P', 'plants', 'A', 'G', 'κ', 'Q_1', 'Q_2'])
    const one = tankBalance(TANK, FILL)?.lines.find((l) => l.figure.id === 'tank-ammonia')
    expect(one?.figure.working?.map((w) => w.symbol)).toEqual(['P', 'plants', 'A', 'G', 'κ', 'Q'])
  })
  test('each limit is its own: at a pH of 9.5 un-ionised ammonia passes its, the others are met', () => {
    const alkaline = tankBalance({ ...TANK, pH: 9.5 }, FILL)
    const met = new Map(alkaline?.lines.map((l) => [l.figure.id, l.limit?.met]))
    expect(met).toEqual(new Map([
      ['tank-feed', undefined], ['tank-ammonia-made', undefined], ['tank-own', undefined], ['tank-ammonia', true], ['tank-unionised', false], ['tank-nitrite', true],
      ['tank-nitrate', true], ['tank-alkalinity', true], ['tank-oxygen', true], ['tank-carbon-dioxide', undefined], ['tank-reserve', undefined],
    ]))
    expect(alkaline?.lines.find((l) => l.figure.id === 'tank-oxygen')?.limit?.words).toBe('at least 5 mg/L')
    expect(text(alkaline?.sentences ?? [])).not.toContain('Every limit is kept')
  })
  test('what is said, and only then', () => {
    const says = (tank: Partial<TankRecord>) => text(tankBalance({ ...TANK, ...tank }, FILL)?.sentences ?? [])
    expect(says({})).not.toMatch(/At pH|cold|keeps rising|used up/)
    // 1 − 0.833 · 0.12 = 0.9000 (EPA 1993): from there down their want of rate is said, by its share.
    expect([7.09, 9].map((pH) => says({ pH }).includes('At pH'))).toEqual([false, false])
    expect([7.07, 9.01].map((pH) => says({ pH }).includes('At pH'))).toEqual([true, true])
    expect(says({ pH: 6.6 })).toContain('At pH 6.6 bacteria work at about 50 % of their speed.')
    expect(says({ pH: 5.9 })).toContain('At pH 5.9 bacteria hardly work by this calculation.')
    expect([8, 7.9].map((temperature) => says({ temperature }).includes('cold'))).toEqual([false, true])
    expect([null, 1e-8].map((feed) => says({ feed }).includes('Enter the real amount'))).toEqual([true, false])
    expect(says({ alkalinity: 2 })).not.toContain('pH falls')
  })
  test('a closed body: hours, half as many or half more', () => {
    const f = closedBodyFigure(tankBalance(TANK, FILL) as never, 3e-3)
    expect(relative(f ?? undefined)).toBeCloseTo(0.5, 12)
  })
}) // prettier-ignore

describe('ways for the water to come back', () => {
  const tank = { stock: classOf('normal'), length: 0.8 }
  const along = (outlet: Partial<Outlet>, flow: Figure = FILL.flow) => outletsAlong(tank, flow, [{ id: 'a', name: 'Out', outlet: { ...NOZZLE, ...outlet } }]) // prettier-ignore
  test('what else can be done with each', () => {
    const ids = (outlet: Partial<Outlet>) => along(outlet).map((o) => o.id)
    expect(ids({ aim: 'glass' })).toEqual(['a'])
    expect(ids({ kind: 'airlift' })).toEqual(['a'])
    expect(ids({ kind: 'spray-bar', holes: 4, diameter: 0.003 })).toEqual(['a', 'a-glass', 'a-half'])
    expect(ids({ kind: 'spray-bar', holes: 3, diameter: 0.003 })).toEqual(['a', 'a-glass'])
    expect(ids({ holes: 4 })).toEqual(['a', 'a-glass'])
    expect(along({}, figure('flow', 0))).toEqual([])
  })
  test('noted ones, else the usual one by its name', () => {
    expect(waysBack([{ ...NOZZLE, id: 'o', name: 'Mine' }], NOZZLE).map((o) => [o.id, o.name])).toEqual([['o', 'Mine']])
    expect(waysBack(undefined, NOZZLE).map((o) => [o.id, o.name])).toEqual([['usual', 'Open end or nozzle']])
    expect(waysBack(undefined, null)).toEqual([])
  })
  test('speed as it leaves: doubted as the flow is (4 %), not at all where that is not; by the formula of its kind', () => {
    const [nozzle] = along({})
    expect((nozzle?.leaves.uncertainty ?? 0) / (nozzle?.leaves.value ?? 1)).toBeCloseTo(0.04, 9)
    expect(along({}, figure('flow', lph(600)))[0]?.leaves).not.toHaveProperty('uncertainty')
    expect(nozzle?.leaves.formula).toBe('u₀ = 4 Q ÷ (π N D²)')
    // A lip of 100 mm: (9.80665 · 1.6667e-4 ÷ 0.1)^⅓ = 0.2538 m/s.
    const [lip] = along({ kind: 'lip', width: 0.1 })
    expect([lip?.leaves.formula, lip?.leaves.value]).toEqual(['u₀ = (g Q ÷ w)^⅓', expect.closeTo(0.2538, 3)])
  })
  test('gentle from the outlet on: no distance is doubted, and it is said so', () => {
    const wide = along({ diameter: 0.05 })[0]
    expect([wide?.gentle.value, wide?.share.value, wide?.level]).toEqual([0, 0, 'gentle'])
    expect(wide?.gentle).not.toHaveProperty('uncertainty')
    const s = strengthOf(TANK, FILL.flow, [{ id: 'a', name: 'Out', outlet: { ...NOZZLE, diameter: 0.05 } }], null, true)
    // 1.6667e-4 ÷ 1.9635e-3 m² = 8.5 cm/s of 25.
    expect(text(s.sentences)).toContain('Out: gentle everywhere, at most 8.5 ± 0.3 cm/s. Limit: 25 ± 10 cm/s.')
    expect(text(s.sentences)).not.toContain('Better:')
    const fast = strengthOf(TANK, FILL.flow, [{ id: 'a', name: 'Out', outlet: NOZZLE }], null, true)
    expect(text(fast.sentences)).toMatch(/Out: too strong along 49 % of the tank, gentle from 39 ± 12 cm on\. Limit: 25 ± 10 cm\/s\./)
  })
  test('the first where it is gentle, else the strongest gentle one, else the gentlest', () => {
    const o = (id: string, share: number, level: string) => ({ id, level, share: figure('s', share) }) as never
    const best = (...list: never[]) => bestOutlet(list)?.id
    expect(best(o('a', 0.1, 'gentle'), o('b', 0.2, 'gentle'))).toBe('a')
    expect(best(o('a', 0.6, 'strong'), o('b', 0.1, 'gentle'), o('c', 0.2, 'gentle'), o('d', 0.3, 'borderline'))).toBe('c')
    expect(best(o('a', 0.6, 'strong'), o('b', 0.4, 'borderline'), o('c', 0.9, 'strong'))).toBe('b')
    expect(bestOutlet([])).toBeNull()
  })
  test('levels change past a quarter and a half of the length', () => {
    // 6 · 0.013 · 1.2557/0.25 = 0.39178 m.
    const level = (length: number) => outletsAlong({ ...tank, length }, FILL.flow, [{ id: 'a', name: 'Out', outlet: NOZZLE }])[0]?.level
    expect([0.39 / 0.5, 0.393 / 0.5, 0.39 / 0.25, 0.393 / 0.25].map(level)).toEqual(['strong', 'borderline', 'borderline', 'gentle'])
  })
  test('an inlet is spoken of where there is one, and faster than they swim', () => {
    const inlet = (openArea: number, hasIntake = true) => text(strengthOf(TANK, FILL.flow, [], { openArea, sponge: false }, hasIntake).sentences)
    // 1.6667e-4 m³/s at 25 cm/s: 6.6667 cm².
    expect([6.6e-4, 6.7e-4].map((a) => inlet(a).includes('intake'))).toEqual([true, false])
    expect(inlet(3e-4, false)).toBe('')
    expect(strengthOf(TANK, figure('flow', 0), [], { openArea: 3e-4, sponge: false }, true).inlet).toBeNull()
    const shrimp = { ...TANK, stock: classOf('delicate') }
    expect(text(strengthOf(shrimp, FILL.flow, [], null, true).sentences)).toContain('Open intake: add a sponge')
    expect(text(strengthOf(shrimp, FILL.flow, [], null, false).sentences)).toBe('')
  })
}) // prettier-ignore

describe('what filters of one tank come to', () => {
  const small = { ...FILL, mass: figure('mass', 0.5, { uncertainty: 0.02 }) }
  const said = (...fills: (typeof FILL)[]) => text(together(TANK, fills.map((fill, i) => ({ name: `F${i}`, fill })))?.sentences ?? [])
  test('one that is enough, one that is not, two', () => {
    // 1.2 kg carry 120 L ± 20 % (rule) of the 100 L here, 0.5 kg 50 L.
    expect(said(FILL)).toMatch(/Enough: it supports 120 ± [\d.,\s]+ L at this stocking; the tank is 100 L\./)
    expect(said(small)).toMatch(/Too small: it supports 50 ± [\d.,\s]+ L at this stocking; the tank is 100 L\./)
    expect(said(small, small)).toMatch(/Enough: together they support 100 ± [\d.,\s]+ L at this stocking; the tank is 100 L\. While F0 is open: not enough, the rest supports 50 ± [\d.,\s]+ L\./)
    expect(said(FILL, small)).toMatch(/While F0 is open: not enough, the rest supports 50 ± [\d.,\s]+ L\./)
    expect(together(TANK, [])).toBeNull()
  })
  test('one of which only the flow is known is named and not counted', () => {
    const blind = { ...FILL, mass: null, films: null }
    expect(said(FILL, blind)).toMatch(/By flow alone at most [\d.,\s]+ L \(0 to [\d.,\s]+\)\. While F0 is open: unknown whether the other filter is enough\. While F1 is open: enough, the rest supports 120 ± [\d.,\s]+ L\./)
    expect(said(blind)).toMatch(/F0: not counted, its media are not recorded\. By flow alone at most [\d.,\s]+ L \(0 to [\d.,\s]+\)\./)
    expect(together(TANK, [{ name: 'A', fill: blind }])?.carries).toBeNull()
  })
}) // prettier-ignore

test('stories: what is ripe at the start, what happens on which day, how long one looks', () => {
  const keeping = keepingOfTank(TANK)
  const films = { flow: lph(600), layers: [] }
  const told = (kind: Parameters<typeof scenarioOf>[0], asks?: Parameters<typeof scenarioOf>[3]) => {
    const { filters, happenings, days } = scenarioOf(kind, keeping, films, asks)
    return [filters.map((f) => [f.id, f.ripe]), happenings, days]
  }
  const one = (ripe: number) => [['filter', ripe]]
  const asks = { weeks: 3, share: 0.4, hours: 8 }
  expect(told('nothing')).toEqual([one(0), [], 60])
  // A bottle is worth a fiftieth of a ripe film, a tap leaves three tenths (common practice, no source).
  expect(told('starter')).toEqual([one(0.02), [], 60])
  expect(told('ripe-media', asks)).toEqual([one(0.4), [], 60])
  expect(told('beside', asks)).toEqual([[['old', 1], ['new', 0]], [{ day: 21, what: 'take-out', filter: 'old' }], 61])
  expect(told('half')).toEqual([one(1), [{ day: 5, what: 'replace', filter: 'filter', share: 0.5 }], 40])
  expect(told('tap')).toEqual([one(1), [{ day: 5, what: 'rinse', filter: 'filter', keeps: 0.3 }], 40])
  expect(told('double')).toEqual([one(1), [{ day: 5, what: 'feed', times: 2 }], 40])
  expect(told('off', asks)).toEqual([one(1), [{ day: 1, what: 'off', hours: 8 }], 10])
  expect(told('beside')[2]).toBe(4 * 7 + 40)
}) // prettier-ignore

describe('nothing running, and two of them', () => {
  const crowded = { ...TANK, surface: 0.2, temperature: 28, feed: 2e-3 / 86400 }
  test('hours until 3 mg/L, half as many or half more; as the formula says of its own numbers', () => {
    const study = tankBalance(crowded, FILL)
    if (!study) throw new Error('no balance')
    const [left] = nothingRunning(study)
    const [f] = figuresIn(left)
    const at = (symbol: string): number => f?.working?.find((w) => w.symbol === symbol)?.value ?? NaN
    expect([left?.tone, f?.value]).toEqual(['caution', expect.closeTo(hoursWithout(study) * 3600, 6)])
    // 0.6 m a day at 20 °C, 2.4 % more for each degree (common practice; Thackston and Parker, from memory).
    const exchange = (0.6 / 86400) * 1.024 ** 8
    const seconds = (share: number): number => {
      const drawn = at('use') / (share * exchange * 0.2)
      const rest = at('C*') - drawn
      return (Math.log((at('C₀') - rest) / (3e-3 - rest)) * at('V')) / (share * exchange * 0.2)
    }
    expect((f?.value ?? 0) / seconds(1)).toBeCloseTo(1, 3)
    // The band of the exchange is carried through: the hours at half of it and at half as much again.
    expect(f?.interval?.map((t, i) => t / seconds([0.5, 1.5][i] as number))).toEqual([expect.closeTo(1, 3), expect.closeTo(1, 3)])
    const low = figuresIn(left)[1]
    expect((low?.value ?? 0) / seconds(0.5)).toBeCloseTo(1, 3)
    expect(text([left as never])).toContain('Plan for the shorter time.')
  })
  test('it is said by the low end: what holds at the nominal exchange alone is no comfort', () => {
    // At the nominal exchange it stays above 3 mg/L, at half of it not.
    const feeds = Array.from({ length: 60 }, (_, i) => (0.1 + 0.05 * i) * 1e-3)
    const between = feeds.filter((feed) => {
      const study = tankBalance({ ...TANK, feed: feed / 86400 }, FILL)
      return study && hoursWithout(study) === Infinity && hoursWithout(study, 0.5) < Infinity
    })
    expect(between.length).toBeGreaterThan(3)
    for (const feed of between) {
      const said = nothingRunning(tankBalance({ ...TANK, feed: feed / 86400 }, FILL))
      expect([said[0]?.tone, text(said)]).toEqual(['caution', expect.stringContaining('Do not rely on it')])
    }
    // Oxygen never below nothing, however much is fed.
    const study = tankBalance({ ...TANK, feed: 20e-3 / 86400 }, FILL)
    expect(study && oxygenWithout(study)).toBe(0)
  })
  test('fed nothing, or not known, nothing is said; kept by its surface, that', () => {
    expect(nothingRunning(null)).toEqual([])
    expect(nothingRunning(tankBalance({ ...TANK, feed: 0 }, FILL))).toEqual([])
    expect(text(nothingRunning(tankBalance({ ...TANK, feed: 1e-5 / 86400 }, FILL)))).toContain('It stays above 3 mg/L even if the still surface takes in only half as much.')
  })
  test('a stopped body: fine while its oxygen lasts by its short end, opened and rinsed after; unknown is no pass', () => {
    const study = tankBalance(TANK, FILL)
    if (!study) throw new Error('no balance')
    const says = (body: number | null, hours: number) => stoppedBody(study, { body, hours, left: 0.54 })
    const lasts = (closedBodyFigure(study, 3e-3)?.value ?? NaN) / 3600
    // Half of it less: the end that is reckoned with.
    expect(says(3e-3, 0.49 * lasts)[0]?.tone).toBe('note')
    expect(says(3e-3, 0.51 * lasts)[0]?.tone).toBe('caution')
    expect(text(says(3e-3, 24))).toMatch(/Pour the water away and rinse the media in tank water first\./)
    expect(text(says(null, 0.1))).toMatch(/Do not restart it into the tank: its water may be foul\./)
    expect(says(Infinity, 240)).toEqual([])
    expect(text(stoppedBody(study, { body: 3e-3, hours: 5, left: 1 }))).toContain('Calculated: nearly all of its bacteria are left.')
  })
  test('rule and balance at odds: why is said; where they agree nothing', () => {
    const odds = (tank: Partial<TankRecord>, mass: number, study = tankBalance({ ...TANK, ...tank }, FILL)) =>
      text(redundancySentences({ ...TANK, ...tank }, { ...FILL, mass: figure('mass', mass, { uncertainty: 0.1 }) }, study))
    // 0.5 kg carries 50 L of a tank of 100 L by mass; fed hardly anything its balance is at zero.
    expect(odds({ feed: 0.2e-3 / 86400 }, 0.5)).toMatch(/Too small by media weight, yet the forecast keeps ammonia at [\d.,\s]+ mg\/L\./)
    // 5 kg carry 500 L by mass; fed 40 g a day its ammonia is over.
    expect(odds({ feed: 40e-3 / 86400 }, 5)).toMatch(/Enough by media weight, yet the forecast puts ammonia at [\d.,\s]+ ± [\d.,\s]+ mg\/L\./)
    expect(odds({ feed: 0.2e-3 / 86400 }, 5)).toMatch(/With two, either alone supports [\d.,\s]+ ± [\d.,\s]+ L\./)
    expect(odds({ feed: 40e-3 / 86400 }, 0.5)).toMatch(/Two would support [\d.,\s]+ ± [\d.,\s]+ L together, either alone [\d.,\s]+ ± [\d.,\s]+ L\./)
  })
  test('either alone is enough, or twice one is said with twice its doubt', () => {
    expect(text(redundancySentences(TANK, FILL, null))).toMatch(/With two, either alone supports 120 ± [\d.,\s]+ L\./)
    const half = { ...FILL, mass: figure('mass', 0.5, { uncertainty: 0.02 }) }
    const said = redundancySentences(TANK, half, null)
    expect(text(said)).toMatch(/Two would support 100 ± [\d.,\s]+ L together, either alone 50 ± [\d.,\s]+ L\./)
    const [two, one] = figuresIn(said)
    expect(two?.uncertainty).toBeCloseTo(2 * (one?.uncertainty ?? NaN), 12)
    expect(two?.working?.map((w) => w.value)).toEqual([one?.value])
    expect(text(redundancySentences({ ...TANK, water: figure('w', 0.12, { dimension: 'volume' }) }, FILL, null))).toContain('With two, either alone supports 120 ± 25 L.')
  })
}) // prettier-ignore

describe('the usual set is ticked by what was done, and by nothing else', () => {
  const runs3 = (id: string, more: Partial<TrialRecord>): TrialRecord => trial(id, { flow: 700, ...more })
  const ticked = (...trials: TrialRecord[]) =>
    proposedTrials({ ...labelOnly, hookups: [hookup], trials }).filter((p) => p.done).map((p) => p.id)
  test.each([
    ['bare', {}], ['hoses', { hookupId: 'h1' }], ['as-shipped', { state: 'as-shipped', hookupId: 'h1' }],
    ['proposed', { state: 'proposed', hookupId: 'h1' }], ['dirty', { state: 'dirty', hookupId: 'h1' }],
    // 1.8 m of head: lifts at 0.36, 0.72, 1.08, 1.44 m, each taken to 11 % of the head, 0.198 m.
    ['lift-0.36', { lift: 0.2 }], ['lift-0.72', { lift: 0.72 }], ['lift-1.44', { lift: 1.63 }],
  ] as const)('%s by %j alone', (id, more) => {
    const done = ticked(runs3('t', more))
    expect(done).toContain(id)
    expect(done.filter((d) => !d.startsWith('lift'))).toEqual(id.startsWith('lift') ? [] : [id])
    if (!id.startsWith('lift')) expect(done).toEqual([id])
  })
  test('a loaded run at a lift is no point of the curve, watts no flow, one run not enough', () => {
    expect(ticked(runs3('t', { lift: 0.36, state: 'as-shipped' }))).toEqual(['as-shipped'])
    expect(ticked({ ...runs3('t', { kind: 'shut-off' }), runs: [{ value: 1.7 }] } as never)).toEqual(['shut-off'])
    expect(ticked({ ...runs3('t', {}), runs: runs3('t', {}).runs.slice(0, 1) })).toEqual([])
    expect(ticked(runs3('t', { lift: 1.7 }))).toEqual([])
  })
  test('without hoses nothing is asked of them, and loads are tried bare', () => {
    const all = proposedTrials(labelOnly)
    expect(all.map((p) => p.id)).not.toContain('hoses')
    expect(all.find((p) => p.id === 'as-shipped')).toMatchObject({ hookup: 'bare', lift: 0 })
    const raised = proposedTrials({ ...labelOnly, hookups: [{ ...hookup, outletAboveWater: 0.1, sourceBelowWater: 0.5 }] })
    expect(raised.find((p) => p.id === 'as-shipped')).toMatchObject({ hookup: 'own', lift: 0.6 })
  })
}) // prettier-ignore

test('how far each station is', () => {
  const measured = { ...labelOnly, hookups: [hookup], trials: [trial('l', { flow: 480, state: 'as-shipped', hookupId: 'h1' })], mediaMass: { mass: 1.2, weighed: true } }
  const record = { parts: [], chambers: [{ measured: true }, { measured: false }], fills: [{ basis: 'as-shipped', layers: [1] }, { basis: 'proposed', layers: [] }], visits: [{ stage: 'done' }] }
  const done = (m: ModelRecord, more: Partial<typeof record> = {}) => stationsDone({ ...record, ...more }, assess(m))
  expect(done(measured)).toMatchObject({ strip: 0, inside: 0.5, fill: 0.5, path: 1, tanks: 1, verdict: 1, visits: 0.5 })
  // A label alone says nothing of tanks, however bold.
  expect(done(labelOnly)).toMatchObject({ tanks: 0, verdict: 0 })
  const bold = labelOnly.claims.map((x) => (x.quantity === 'tank-max' ? { ...x, value: 1.2 } : x))
  expect(done({ ...labelOnly, claims: bold })).toMatchObject({ tanks: 0, verdict: 0 })
  expect(done({ ...labelOnly, claims: [] })).toMatchObject({ tanks: 0, verdict: 0, claims: 0 })
  const carried = { ...measured, trials: [trial('l', { flow: 300, state: 'as-shipped', hookupId: 'h1', lift: 0.6 })] }
  // Carried is firm, but a flow as installed is still asked for.
  expect(done(carried)).toMatchObject({ verdict: 0.5 })
  expect(done({ ...labelOnly, claims: [] }, { fills: [{ basis: 'as-shipped', layers: [1] }] })).toMatchObject({ path: 0 })
  expect(done(measured, { fills: [], chambers: [], visits: [{ stage: 'a' }, { stage: 'b' }, { stage: 'c' }] })).toMatchObject({ path: 0, fill: 0, inside: 0, visits: 1 })
  expect(done(measured, { fills: [{ basis: 'variant', layers: [1] }] })).toMatchObject({ fill: 0, path: 1 })
  expect(stationsDone(record, null)).toMatchObject({ claims: null, bench: null, path: null, tanks: null, verdict: null, fill: 0.5 })
}) // prettier-ignore
