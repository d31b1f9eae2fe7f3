import {
  modelRecord,
  pathRecord,
  tankWater,
  interiorOf,
  RESOURCES,
  type Dossier,
  type Medium,
  type StockClassRow,
  type Tank,
} from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { FILTER_KINDS, hasPump } from '@ypsometer/core/kinds/filters'
import { labelBias } from '@ypsometer/core/trials/bias'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { shelfRow } from '@ypsometer/server/models/shelfRow'
import { BENCH_MEDIA } from './fills'
import { reaches } from '@ypsometer/core/teardown/reach'
import { interiorProblems, volumeAudit } from '@ypsometer/core/volumes/interior'
import { demoBundle } from '.'
import { trueDuty } from './physics'
import { TRUTHS } from './truth'

const dossier = (i: number): Dossier => ({ logs: [], ...demoBundle.models[i] }) as unknown as Dossier
const each = demoBundle.models.map((m, i) => [m.model.name, i] as const)

test('every kind of filter is on the shelf, and every row is what the contract takes', () => {
  expect(new Set(demoBundle.models.map((m) => m.model.kind))).toEqual(new Set(FILTER_KINDS))
  for (const m of demoBundle.models) {
    RESOURCES.models.Create.parse(m.model)
    const schemas = [
      [RESOURCES.claims.Create, m.claims], [RESOURCES.specimens.Create, m.specimens], [RESOURCES.hookups.Create, m.hookups], [RESOURCES.readings.Create, m.readings],
      [RESOURCES.bodies.Create, m.bodies], [RESOURCES.chambers.Create, m.chambers], [RESOURCES.parts.Create, m.parts], [RESOURCES.contents.Create, m.contents],
    ] as const // prettier-ignore
    for (const [schema, rows] of schemas)
      for (const row of rows) expect(schema.safeParse(row).success).toBe(true)
  }
  const ids = demoBundle.models.flatMap((m) =>
    [m.model, ...m.claims, ...m.trials, ...m.readings, ...m.parts, ...m.chambers].map((r) => r.id),
  )
  expect(new Set(ids).size).toBe(ids.length)
})

test('the hidden true flow, bare and at no lift, lies inside the stated interval of nearly every model', () => {
  const inside = demoBundle.models.map((m, i) => {
    const truth = TRUTHS.find((t) => t.name === m.model.name)
    if (!truth) return false
    const { flow } = trueDuty(truth, { attached: false, state: 'empty', lift: 0, temperature: 21.5 })
    const trial = assess(modelRecord(dossier(i))).trials.find(
      (t) => t.trial.state === 'empty' && t.trial.lift === 0,
    )
    return trial !== undefined && flow >= trial.result.interval[0] && flow <= trial.result.interval[1]
  })
  // Eleven intervals of 95 %: two or more misses would be one chance in ten.
  expect(inside.filter(Boolean).length).toBeGreaterThanOrEqual(demoBundle.models.length - 1)
})

test('the fitted curve finds the hidden pump within a few per cent where lifts were timed', () => {
  for (const [i, m] of demoBundle.models.entries()) {
    if (!hasPump(m.model.kind)) continue
    const truth = TRUTHS.find((t) => t.name === m.model.name)?.pump
    const known = assess(modelRecord(dossier(i))).pump
    expect(known?.from).toBe('fit')
    expect(Math.abs((known?.pump.maxFlow ?? 0) / (truth?.maxFlow ?? 1) - 1)).toBeLessThan(0.03)
    expect(Math.abs((known?.pump.shutOffHead ?? 0) / (truth?.shutOffHead ?? 1) - 1)).toBeLessThan(0.08)
  }
})

test('the scenario’s parts are played: one flatters itself, one is honest, one is too strong at the low end', () => {
  const verdict = (name: string) =>
    assess(modelRecord(dossier(each.find((e) => e[0] === name)?.[1] ?? 0))).verdict
  expect(verdict('Torrent 1400').level).toBe('far-overclaimed')
  expect(verdict('Ledger 700').level).toBe('holds')
  expect(verdict('Mop 300').reasons.find((r) => r.id === 'low-end')?.tone).toBe('against')
  expect(verdict('Plainbody 1000').ranges.find((r) => r.stockClass === 'normal')?.binding).toBe('media-mass')
})

test.each(each)('%s: its interior fits, closes against its water, and its log reaches something', (_, i) => {
  const d = dossier(i)
  const interior = interiorOf(d)
  if (!interior) throw new Error('no interior')
  expect(interiorProblems(interior.chambers, interior.body)).toEqual([])
  expect(volumeAudit(interior.chambers, interior.body).closure?.closes).toBe(true)
  expect(reaches(d.parts).length).toBeGreaterThan(0)
})

test('twelve tanks, each holding water', () => {
  expect(demoBundle.tanks).toHaveLength(12)
  for (const t of demoBundle.tanks) {
    expect(RESOURCES.tanks.Create.safeParse(t).success).toBe(true)
    expect(tankWater(t as unknown as Tank).water).toBeGreaterThan(0.01)
  }
})

test('one capacity a fill: verdict, shelf, Fill and Path say the same litres, whatever it rests on', () => {
  for (const [i, m] of demoBundle.models.entries()) {
    const d = dossier(i)
    const record = modelRecord(d, BENCH_MEDIA as Medium[])
    const a = assess(record)
    const path = pathRecord(d, BENCH_MEDIA as Medium[], a, null)
    const fill = path?.fills.find((f) => f.basis === 'as-shipped')
    const base = path && fill && pathBase(path, fill.id)
    const normal = STOCK_CLASSES.find((c) => c.code === 'normal')
    if (!fill || base?.kind !== 'ready' || !normal) throw new Error(`no path for ${m.model.name}`)
    const o = outcomeOf({ ...base.base, fill }, normal)
    // What Fill computes is told by the very trial the verdict rests on, to the solver's last digits.
    expect([m.model.name, o.capacity.volume / (a.verdict.supported?.value ?? NaN)]).toEqual([
      m.model.name,
      expect.closeTo(1, 3),
    ])
    expect([m.model.name, o.flow / (a.verdict.flow?.value ?? NaN)]).toEqual([
      m.model.name,
      expect.closeTo(1, 3),
    ])
    expect([m.model.name, o.uncertainty / (a.verdict.flow?.uncertainty ?? NaN)]).toEqual([
      m.model.name,
      expect.closeTo(1, 1),
    ])
    const { row } = shelfRow(d, {
      stock: [...STOCK_CLASSES] as unknown as StockClassRow[],
      rules: [],
      media: BENCH_MEDIA as Medium[],
      bias: labelBias([]),
    })
    expect(row.supportedMax).toEqual(a.verdict.supported)
  }
})
