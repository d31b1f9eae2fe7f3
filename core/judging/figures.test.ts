import { STOCK_CLASSES } from '../tanks'
import {
  assess,
  bodyDepthFigure,
  claimDimension,
  doubt,
  liftFigure,
  overclaimFigure,
  progress,
  proposedLifts,
  proposedTrials,
  shareApart,
  smallestFigure,
  staticHeadFigure,
  staticPartFigures,
  stationsDone,
  turnoverFigure,
  verdictWords,
} from '.'
import type { ClaimRecord, ModelRecord } from '../trials'
import { figure, hookup, model, near, put, trial } from '../trials/records.fixture'

const normal = STOCK_CLASSES.find((s) => s.code === 'normal')
if (!normal) throw new Error('class')

describe('numbers of a range answer with what went in (worked by hand)', () => {
  test('turnover, smallest tank, overclaim and a share apart', () => {
    // 600 ± 36 L/h: 4 ± 0.24 an hour of 150 L.
    const flow = figure(600 / 3.6e6, 36 / 3.6e6)
    const t = turnoverFigure(flow, 0.15)
    expect([t.value, t.uncertainty, t.provenance]).toEqual([near(4), near(0.24), 'computed'])
    expect(put(t)).toEqual([['Q', 600 / 3.6e6], ['V', 0.15]]) // prettier-ignore
    expect(turnoverFigure(figure(1e-4, undefined, { provenance: 'rule' }), 0.1)).toMatchObject({
      provenance: 'rule',
    })
    expect(turnoverFigure(figure(1e-4), 0.1)).not.toHaveProperty('uncertainty')
    // Calm at 0.25 m/s from 6 · 0.016 · 0.8289/0.25 = 0.3183 m on: (0.6366)³/4 = 64.5 L; ± 50.36 % of the distance.
    const nozzle = { kind: 'nozzle', aim: 'along', depth: 0, diameter: 0.016, holes: 1, spacing: 0.02, width: 0.1 } as const // prettier-ignore
    const s = smallestFigure(normal, { flow, mass: null, outlet: nozzle }, flow)
    expect([s.value, s.interval?.[0], s.interval?.[1]]).toEqual([near(0.0645, 4), near(0.0645 * 0.4964 ** 3, 4), near(0.0645 * 1.5036 ** 3, 3)]) // prettier-ignore
    expect(put(s)).toEqual([['Q', 600 / 3.6e6], ['u', 0.25], ['x', near(0.3183, 3)]]) // prettier-ignore
    expect(smallestFigure(normal, { flow, mass: null }, flow)).not.toHaveProperty('uncertainty')
    const over = overclaimFigure(0.3, figure(0.12, 0.024))
    expect([over.value, over.uncertainty, put(over)]).toEqual([2.5, near(0.5), [['claimed', 0.3], ['supported', 0.12]]]) // prettier-ignore
    expect(overclaimFigure(0.3, figure(0.1, 0.4)).uncertainty).toBeCloseTo(3, 9)
    expect(overclaimFigure(0.3, figure(0.1))).not.toHaveProperty('uncertainty')
    const apart = shareApart('i', 'l', figure(0.88), figure(1))
    expect([apart.value, apart.unit, put(apart)]).toEqual([near(0.12), '%', [['a', 0.88], ['b', 1]]]) // prettier-ignore
    expect(shareApart('i', 'l', figure(1.3), figure(1)).value).toBeCloseTo(0.3, 12)
  })
  test('heights: what is let go less what is taken from, and each by itself', () => {
    const f = staticHeadFigure({ head: 0.4, fromOutlet: 0.1, fromSource: 0.3 })
    expect([f.value, put(f)]).toEqual([0.4, [['outlet', 0.1], ['source', 0.3]]]) // prettier-ignore
    const { outlet, source } = staticPartFigures({ head: 0.4, fromOutlet: 0.1, fromSource: 0.3 })
    expect([outlet.value, source.value, outlet.provenance]).toEqual([0.1, 0.3, 'measured'])
    expect([liftFigure(0.6).value, bodyDepthFigure({ bodyBelowWater: 0.9 }).value]).toEqual([0.6, 0.9])
  })
})

describe('words, progress, and what is asked', () => {
  test('a verdict’s words: firm or looking so, and which levels its interval reaches', () => {
    expect(verdictWords('holds', true, ['holds', 'holds'])).toBe('The claim holds')
    expect(verdictWords('holds', false, [])).toBe('The claim probably holds')
    expect(verdictWords('overclaimed', true, ['stretched', 'far-overclaimed'])).toBe('The claim is probably too high. It could be optimistic or far too high.') // prettier-ignore
    expect(verdictWords('open', false, [])).toBe('Not enough data for a verdict')
  })
  test('usual figures are not asked about, at either end; a kind with a limit of its own has it', () => {
    expect([claimDimension('max-head'), claimDimension('tank-min'), claimDimension('noise')]).toEqual([
      'head',
      'volume',
      'sound',
    ])
    expect(doubt('max-head', 0.1, 'canister')).toBeNull()
    expect(doubt('max-head', 8, 'canister')).toBeNull()
    expect(doubt('max-head', 0.09, 'canister')?.join(' ')).toContain(
      'Check the unit:  [object Object]  is below the usual  [object Object]  to  [object Object]  for this kind.',
    )
    expect(doubt('max-head', 8.1, 'canister')?.join(' ')).toContain(
      'Check the unit:  [object Object]  is above the usual  [object Object]  to  [object Object]  for this kind.',
    )
    expect(doubt('rated-flow', 3000 / 3.6e6, 'motor-sponge')).not.toBeNull()
    expect(doubt('rated-flow', 11000 / 3.6e6, 'sump')).toBeNull()
  })
  test('lifts are shares of the head to the whole centimetre, three where it is small', () => {
    expect(proposedLifts(2)).toEqual([0.4, 0.8, 1.2, 1.6])
    expect(proposedLifts(0.69)).toEqual([0.17, 0.35, 0.52])
    expect(proposedLifts(0.7)).toHaveLength(4)
  })
  test('progress counts what is there, share by share', () => {
    const claims: ClaimRecord[] = [
      { quantity: 'rated-flow', value: 1 },
      { quantity: 'tank-max', value: 1 },
    ]
    expect(progress(model({ claims })).claims).toBeCloseTo(2 / 5, 12)
    expect(progress(model({ claims, kind: 'air-sponge' })).claims).toBeCloseTo(2 / 3, 12)
    expect(progress(model()).bench).toBe(0)
    const three = [0, 0.3, 0.6].map((lift) => trial({ id: `${lift}`, lift }))
    expect(progress(model({ trials: three })).bench).toBeCloseTo(2 / 5, 12)
    expect(progress(model({ trials: three.map((t) => ({ ...t, runs: t.runs.slice(0, 2) })) })).bench).toBe(0)
    const all = model({ claims: [...claims, { quantity: 'tank-min', value: 1 }, { quantity: 'power', value: 1 }, { quantity: 'max-head', value: 1 }], hookups: [hookup], mediaMass: { mass: 1, weighed: true }, trials: [...three, trial({ id: 'l', state: 'as-shipped', hookupId: 'h' })] }) // prettier-ignore
    expect(progress(all)).toEqual({
      claims: 1,
      bench: 1,
      next: { station: 'verdict', action: 'Read the verdict', gap: null },
    })
  })
  test('stations: parts half, reach whole; chambers by their share; fills by their two kinds', () => {
    const record = { parts: [], chambers: [], fills: [], visits: [] }
    expect(stationsDone(record, null)).toEqual({
      claims: null,
      strip: 0,
      inside: 0,
      bench: null,
      fill: 0,
      path: null,
      tanks: null,
      verdict: null,
      visits: 0,
    })
    const part = { name: 'p', moves: 1, seconds: 1, reach: null }
    const some = { parts: [part], chambers: [{ measured: true }, { measured: false }], fills: [{ basis: 'as-shipped', layers: [1] }, { basis: 'proposed', layers: [] }], visits: [{ stage: 'set-up' }] } // prettier-ignore
    expect(stationsDone(some, null)).toMatchObject({ strip: 0.5, inside: 0.5, fill: 0.5, visits: 0.5 })
    expect(stationsDone({ ...some, parts: [{ ...part, reach: 'pad' }] }, null).strip).toBe(1)
    const a = assess(
      model({
        claims: [
          { quantity: 'rated-flow', value: 2e-4 },
          { quantity: 'tank-max', value: 0.1 },
        ],
      }),
    )
    // A rated flow is enough for a path: the usual head of its kind.
    expect(stationsDone(some, a)).toMatchObject({ path: 1, tanks: 0, verdict: 0 })
    expect(stationsDone({ ...some, fills: [] }, assess(model()))).toMatchObject({
      path: 0,
      tanks: 0,
      verdict: 0,
    })
  })
  test('the usual set asks each kind for what it can give, and ticks what is done', () => {
    const of = (m: Partial<ModelRecord>) => proposedTrials(model(m))
    const ids = (m: Partial<ModelRecord>): string[] => of(m).map((p) => p.id)
    expect(ids({})).toEqual([
      'bare',
      'shut-off',
      'as-shipped',
      'proposed',
      'power',
      'noise',
      'prime',
      'dye',
      'dirty',
    ])
    expect(ids({ kind: 'air-sponge' })).toContain('air')
    expect(ids({ kind: 'air-sponge' })).not.toContain('power')
    expect(ids({ kind: 'internal' })).toContain('holding')
    expect(ids({ hookups: [hookup], claims: [{ quantity: 'max-head', value: 2 }] })).toEqual(
      expect.arrayContaining(['hoses', 'lift-0.4', 'lift-1.6']),
    )
    // A 60 Hz head on a 50 Hz bench: 2 · (5/6)² = 1.389 m.
    expect(ids({ claims: [{ quantity: 'max-head', value: 2, mainsFrequency: 60 }] })).toContain('lift-0.28')
    const done = of({
      trials: [trial(), trial({ id: 'up', lift: 0.4 })],
      claims: [{ quantity: 'max-head', value: 2 }],
    })
    expect(done.filter((p) => p.done).map((p) => [p.id, p.trialId])).toEqual([['bare', 't'], ['lift-0.4', 'up']]) // prettier-ignore
    const loaded = of({ hookups: [hookup] }).find((p) => p.id === 'as-shipped')
    expect([loaded?.hookup, loaded?.lift]).toEqual(['own', near(0.4)])
    const begun = of({ trials: [trial({ runs: [] })] })[0]
    expect([begun?.done, begun?.trialId]).toEqual([false, 't'])
  })
})
