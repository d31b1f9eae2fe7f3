import { CSV_IN, type CsvIn, type ImportReport } from '@ypsometer/contract'
import { demoBundle } from '@ypsometer/demo'
import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import Papa from 'papaparse'
import { demoHarness, type Harness } from '../tests/harness'

let h: Harness
beforeAll(async () => {
  h = await demoHarness()
})
afterAll(() => h.close())

const out = async (table: string, model?: string): Promise<string> =>
  (await h.call('GET', `/csv/${table}${model ? `?model=${model}` : ''}`)).body
const lookAt = async (table: CsvIn, text: string): Promise<ImportReport> =>
  (await h.call('POST', `/csv/${table}/preview`, { text })).body
const take = (table: CsvIn, text: string) =>
  h.call('POST', `/csv/${table}`, { text }, { 'idempotency-key': randomUUID() })
/** A table as another program reads it. */
const parsed = (text: string): Record<string, string>[] =>
  Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true }).data
const demo = demoBundle.models[0]
const { id: modelId = '', maker = '', name = '' } = demo?.model ?? {}
const newModel = async (called: string = randomUUID()): Promise<string> =>
  (await h.create('/models', { maker: 'Quillon', name: called, kind: 'canister' })).body.id

test.each(CSV_IN)('%s: what went out comes in as the same, row by row', async (table) => {
  const text = await out(table)
  const n = parsed(text).length
  expect(n).toBeGreaterThan(3)
  const report = await lookAt(table, text)
  expect(report).toMatchObject({ counts: { new: 0, changed: 0 }, refused: [] })
  // A price list tells a model's offers together.
  if (table !== 'prices') expect(report.counts.same).toBe(n)
})

test('a table of one model holds its rows and no others', async () => {
  const claims = parsed(await out('claims', modelId))
  expect(claims).toHaveLength(demo?.claims.length ?? -1)
  expect(new Set(claims.map((c) => `${c.maker} ${c.model}`))).toEqual(new Set([`${maker} ${name}`]))
  const runs = parsed(await out('runs', modelId))
  expect(runs).toHaveLength(demo?.readings.length ?? -1)
  expect(runs[0]).toMatchObject({ 'volume [m³]': String(demo?.readings[0]?.volume) })
})

test('a curve is the mean flow of each trial, worked out here by hand from its runs', async () => {
  const points = parsed(await out('curves', modelId))
  const trials = (demo?.trials ?? []).filter((t) => t.kind === 'vessel')
  expect(trials.length).toBeGreaterThan(1)
  for (const t of trials) {
    const flows = (demo?.readings ?? []).filter((r) => r.trialId === t.id).map((r) => (r.volume ?? 0) / (r.seconds ?? 1)) // prettier-ignore
    const mean = flows.reduce((a, b) => a + b, 0) / flows.length
    const point = points.find((p) => p.trialId === t.id)
    expect(Number(point?.['flow [m³/s]'])).toBeCloseTo(mean, 12)
    expect(point).toMatchObject({ runs: String(flows.length), 'lift [m]': String(t.lift) })
  }
})

test('points of a log stand one to a line', async () => {
  const id = await newModel('Logged')
  const trialId = randomUUID()
  const times = [0, 1.5, 3]
  const values = [0, 4.25, 1e-7]
  const log = {
    id: randomUUID(),
    trialId,
    startedAt: '2026-11-20T10:00:00.000Z',
    series: 'outlet',
    times,
    values,
  }
  const body = { trials: [{ id: trialId, modelId: id, kind: 'dye' }], readings: [], logs: [log] }
  expect((await h.call('POST', '/imports', body, { 'idempotency-key': randomUUID() })).status).toBe(201)
  const points = parsed(await out('tracers', id))
  expect(points.map((p) => [Number(p['time [s]']), Number(p.value)])).toEqual(
    times.map((t, i) => [t, values[i]]),
  )
  expect(points[0]).toMatchObject({ model: 'Logged', series: 'outlet', startedAt: log.startedAt })
})

describe('formulas', () => {
  const HOSTILE = ['=HYPERLINK("http://x")', '+1', '-1+2', '=1', "'-5", '+1e3x', '-', '@SUM(A1)', '\t=1', "'=1", "'tis", '"quoted"', 'a,b;c', 'two\nlines', '=cmd|" /C calc"!A0'] // prettier-ignore
  test('no cell begins as one, and what comes back is what was written', async () => {
    const id = await newModel()
    for (const [i, note] of HOSTILE.entries())
      await h.create('/parts', { modelId: id, position: i, name: `Part ${i}`, note })
    const text = await out('parts', id)
    for (const row of Papa.parse<string[]>(text).data)
      for (const cell of row) expect(cell).not.toMatch(/^[=@\t\r]|^[+-](?!\d+$)/)
    expect((await lookAt('parts', text)).counts).toEqual({ new: 0, same: HOSTILE.length, changed: 0 })
    // On another bench's shelf: as new rows.
    const fresh = parsed(text).map(({ id: _id, ...row }) => row)
    const taken = await take('parts', Papa.unparse(fresh))
    expect(taken.status).toBe(201)
    const { parts } = (await h.call('GET', `/models/${id}/dossier`)).body
    const notes = (list: { note: string; position: number }[]) => list.map((p) => p.note).sort()
    expect(notes(parts)).toEqual(
      notes([...HOSTILE, ...HOSTILE].map((note, position) => ({ note, position }))),
    )
  })
  test('any words at all (a property)', async () => {
    const id = await newModel()
    const { body: part } = await h.create('/parts', { modelId: id, position: 0, name: 'Any' })
    let version = part.version
    await fc.assert(
      fc.asyncProperty(fc.string({ unit: 'grapheme', maxLength: 60 }), async (note) => {
        fc.pre(!note.includes('\0'))
        const changed = await h.call('PATCH', `/parts/${part.id}`, { note }, { 'if-match': `"${version}"` })
        version = changed.body.version
        expect((await lookAt('parts', await out('parts', id))).counts).toEqual({
          new: 0,
          same: 1,
          changed: 0,
        })
      }),
      { numRuns: 40 },
    )
  })
})

describe('tables by other hands', () => {
  test('other units, decimal commas, columns left out, models by their names', async () => {
    const id = await newModel('By hand')
    const text = 'maker;model;quantity;value\nquillon;BY HAND;rated-flow;0,00025\n'
    expect(await lookAt('claims', text)).toMatchObject({
      counts: { new: 1, same: 0, changed: 0 },
      refused: [],
    })
    expect((await take('claims', text)).status).toBe(201)
    const { claims } = (await h.call('GET', `/models/${id}/dossier`)).body
    expect(claims[0]).toMatchObject({ quantity: 'rated-flow', value: 0.00025, printedOn: '' })
    const tanks = 'name,length [cm],height [in],covered\nRow 9,120,20,yes\n'
    const taken = await take('tanks', tanks)
    expect(taken.status).toBe(201)
    const tank = (await h.call('GET', `/tanks/${taken.body.rows[0].id}`)).body
    // 120 cm; 20 in of 25.4 mm each (exact by definition, 1959); the width nobody gave is the usual one.
    expect(tank).toMatchObject({ name: 'Row 9', length: 1.2, covered: true, width: 0.35 })
    expect(tank.height).toBeCloseTo(0.508, 12)
  })
  test('minutes are minutes, also given as hours', async () => {
    const text = `maker,model,on,minutes [h]\n${maker},${name},2026-11-20,0.5\n`
    const taken = await take('visits', text)
    expect(taken.status).toBe(201)
    expect((await h.call('GET', `/visits/${taken.body.rows[0].id}`)).body.minutes).toBeCloseTo(30, 9)
  })
  test.each([
    ['tanks', 'name,colour\nA,red\n', 1, 'colour', /one of .*waterLevel/],
    ['tanks', 'name,length [furlong]\nA,1\n', 1, 'length', /a unit.*\[m\]/],
    ['tanks', 'name,length\nA,1\nB,long\n', 3, 'length', /a number/],
    ['tanks', 'name,length\nA,1\n"B\nb",99\n', 3, 'length', /at most/],
    ['tanks', 'name,covered\nA,maybe\n', 2, 'covered', /true or false/],
    ['tanks', 'name,filters\nA,one\n', 2, 'filters', /a list as JSON/],
    [
      'tanks',
      'name,stockClassId\nA,00000000-0000-4000-8000-00000000dead\n',
      2,
      'tanks.0.stockClassId',
      /not there/,
    ],
    ['claims', 'maker,model,quantity,value\nNo,Such,rated-flow,1\n', 2, 'model', /one of your filters/],
    ['prices', 'maker,model,price,currency\nNo,Such,1,EUR\n', 2, 'model', /one of your filters/],
    ['prices', `maker,model,price,currency\n${maker},${name},1,Euro\n`, 2, 'currency', /three-letter/],
    ['prices', `maker,model,price,currency\n${maker},${name},,EUR\n`, 2, 'price', /129\.90/],
    ['prices', `maker,model,price,currency,shop\n${maker},${name},1,EUR,x\n`, 1, 'shop', /one of maker/],
    ['parts', 'nothing', 1, 'text', /first line/],
  ] as const)('%s %j is refused with line %i and column', async (table, text, line, field, message) => {
    const report = await lookAt(table, text)
    expect(report.refused[0]).toMatchObject({ line, field, message: expect.stringMatching(message) })
    const before = await out(table)
    expect((await take(table, text)).status).toBe(422)
    expect(await out(table)).toBe(before)
  })
  test('whatever is sent, it is looked at or refused by line, never a fault', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...CSV_IN),
        fc.string({ minLength: 2, maxLength: 200 }),
        async (table, text) => {
          const { status } = await h.call('POST', `/csv/${table}/preview`, { text })
          expect([200, 400, 422]).toContain(status)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('price lists', () => {
  test('a list price is the claim, offers of a kind are replaced, and all of it is taken back', async () => {
    const id = await newModel('Priced')
    await h.create('/claims', { modelId: id, quantity: 'price', amountMinor: 9900, currency: 'EUR', typed: { amountMinor: '99' } }) // prettier-ignore
    await h.call('PATCH', `/models/${id}`, { offers: [{ kind: 'sale', minor: 8900, currency: 'EUR', on: null }, { kind: 'second-hand', minor: 4000, currency: 'EUR', on: null }] }, { 'if-match': '"1"' }) // prettier-ignore
    const text = 'maker,model,kind,price,currency,on\nQuillon,Priced,list,104.50,eur,2026-11-01\nQuillon,Priced,sale,12000,JPY,\n' // prettier-ignore
    const looked = await lookAt('prices', text)
    expect(looked.counts).toEqual({ new: 0, same: 0, changed: 2 })
    const taken = await take('prices', text)
    const now = async () => (await h.call('GET', `/models/${id}/dossier`)).body
    const after = await now()
    expect(after.claims[0]).toMatchObject({
      amountMinor: 10450,
      currency: 'EUR',
      pricedOn: '2026-11-01',
      typed: {},
    })
    // The yen has no smaller unit (ISO 4217).
    expect(after.model.offers).toEqual([
      { kind: 'second-hand', minor: 4000, currency: 'EUR', on: null },
      { kind: 'sale', minor: 12000, currency: 'JPY', on: null },
    ])
    expect((await h.call('POST', `/documents/${taken.body.undo}/undo`)).status).toBe(200)
    expect((await now()).claims[0]).toMatchObject({ amountMinor: 9900, typed: { amountMinor: '99' } })
    expect((await now()).model.offers).toHaveLength(2)
  })
})
