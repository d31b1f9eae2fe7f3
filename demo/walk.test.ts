import { modelRecord, pathRecord, usualHookup, type Dossier, type Medium } from '@ypsometer/contract'
import { candidateOf } from '@ypsometer/contract/candidate'
import { snapshotOf } from '@ypsometer/contract/review'
import { ADVICE_RULE } from '@ypsometer/core/advice/rule'
import { advise, NO_WISHES } from '@ypsometer/core/advice/advise'
import { compareRows } from '@ypsometer/core/advice/compare'
import { quickTank } from '@ypsometer/core/advice/quickTank'
import type { Figure } from '@ypsometer/core/figures/figure'
import { assess, type Assessment } from '@ypsometer/core/judging/assess'
import { together } from '@ypsometer/core/judging/together'
import { claimChances } from '@ypsometer/core/judging/chances'
import { fillCapacityFigure, pathFlowFigure } from '@ypsometer/core/path/figures'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { CAPACITY_SCHOOLS, type CapacityRule } from '@ypsometer/core/tanks/rule'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { reaches } from '@ypsometer/core/teardown/reach'
import { shelfRow } from '@ypsometer/server/models/shelfRow'
import { BENCH_MEDIA } from './fills'
import { demoBundle } from '.'

const MEDIA = BENCH_MEDIA as unknown as Medium[]
const dossierOf = (m: (typeof demoBundle.models)[number]): Dossier => ({ logs: [], photos: [], ...m }) as unknown as Dossier // prettier-ignore

/** Six house rules: each school leading, and all of them binding. */
const RULES: readonly (readonly [name: string, rule: CapacityRule])[] = [
  ...CAPACITY_SCHOOLS.map(
    (s) =>
      [
        `${s} leads`,
        { order: [s, ...CAPACITY_SCHOOLS.filter((x) => x !== s)], bind: [], turnoverFloor: 1 },
      ] as const,
  ),
  ['all bind', { order: [...CAPACITY_SCHOOLS], bind: [...CAPACITY_SCHOOLS], turnoverFloor: 1 }],
]

/** Every number by its id: where it is shown, and what is shown there. */
class Seen {
  readonly #by = new Map<string, [where: string, value: number, half: number][]>()
  add(where: string, f: Figure | null | undefined, id = f?.id): void {
    if (!f || id === undefined) return
    this.#by.set(id, [...(this.#by.get(id) ?? []), [where, f.value, f.uncertainty ?? 0]])
  }
  /** What is shown otherwise in one place than in another, to what a screen can tell. */
  differ(): readonly string[] {
    return [...this.#by].flatMap(([id, all]) => {
      const [first] = all
      return all
        .filter((x) => !first || Math.abs(x[1] - first[1]) > 1e-3 * Math.abs(first[1]) || Math.abs(x[2] - first[2]) > 2e-2 * Math.abs(first[1])) // prettier-ignore
        .map((x) => `${id}: ${String(first?.[0])} ${String(first?.[1])} ± ${String(first?.[2])}, ${x[0]} ${x[1]} ± ${x[2]}`) // prettier-ignore
    })
  }
  get places(): number {
    return [...this.#by.values()].reduce((sum, v) => sum + v.length, 0)
  }
}

/** A tank of a class for the counter, large enough that nothing is too strong and small enough to be carried. */
const tankOf = (stock: StockClass) => quickTank(0.05, stock)

function walk(d: Dossier, rule: CapacityRule, seen: Seen): void {
  const classes = STOCK_CLASSES.map((c) => ({ ...c, rule }))
  const record = modelRecord(d, MEDIA)
  const a: Assessment = assess(record, { stockClasses: classes })
  const candidate = candidateOf(d, MEDIA, a)
  const claim = a.verdict.claimedRange.max
  const path = pathRecord(d, MEDIA, a, usualHookup(d))
  const normal = classes.find((c) => c.code === 'normal') as StockClass
  seen.add('Verdict', a.verdict.supported)
  if (a.verdict.proposed) seen.add('Verdict, proposed', a.verdict.proposed.supported)
  if (rule === RULES[0]?.[1]) seen.add('Verdict', a.verdict.flow, `flow-${a.verdict.shipped?.fill.id ?? ''}`)
  for (const stock of classes) {
    const tank = tankOf(stock)
    for (const fill of [candidate.shipped, candidate.proposed]) {
      if (!fill) continue
      // Fill and Path: the body worked through with this fill.
      const row = d.fills.find((f) => f.id === fill.fill.id)
      const base = path && row && pathBase(path, row.id)
      if (base?.kind === 'ready' && row) {
        const o = outcomeOf({ ...base.base, fill: row }, stock)
        seen.add('Fill', fillCapacityFigure(o, stock))
        if (stock === normal) seen.add('Fill', pathFlowFigure(o), `flow-${fill.fill.id}`)
      }
      // Tanks: what runs on a tank, and the counter with only this fill.
      seen.add('Tanks', together(tank, [{ name: '', fill, claimedMax: claim }])?.each[0]?.carries)
      const only = { ...candidate, shipped: fill, proposed: null }
      const [advice] = advise({ tank, wishes: NO_WISHES, rule: ADVICE_RULE }, [only]).filter((x) => x.choices.length === 1) // prettier-ignore
      seen.add('Advise', advice?.carries)
    }
    const rows = compareRows([candidate], { stock, rule: ADVICE_RULE, refilled: false, shelf: new Map() }, () => '') // prettier-ignore
    for (const id of ['carries', 'carries-proposed'])
      seen.add('Compare', rows.find((r) => r.id === id)?.cells[0]?.figure)
    seen.add(
      'Compare',
      rows.find((r) => r.id === 'flow')?.cells[0]?.figure,
      `flow-${candidate.shipped?.fill.id ?? ''}`,
    )
    // How sure: the middle of the draws of the leading school stands about its value.
    // Without media or a measured flow there is no verdict to be sure of.
    if (candidate.shipped && stock === normal && claim && a.verdict.supported) {
      const c = claimChances(candidate.shipped, stock, claim, 1, 400)
      expect((c?.carried.low ?? 0) <= a.verdict.supported.value).toBe(true)
      expect((c?.carried.high ?? 0) >= a.verdict.supported.value).toBe(true)
    }
  }
  // The shelf and the review are made from rows, by the same rule.
  const rows = classes.map((c, i) => ({ ...c, version: 1, createdAt: '', updatedAt: '', deletedAt: null, position: i, typed: {} })) // prettier-ignore
  const house = { id: 'h', chosen: true, capacity: rule, advice: ADVICE_RULE } as never
  const shelf = shelfRow(d, { stock: rows as never, rules: [house], media: MEDIA, bias: null as never })
  seen.add('Shelf', shelf.row.supportedMax)
  const asked = { dossier: d, media: MEDIA, stock: classes, house: null, bias: null, tanks: [], today: '2026-11-26', core: 'test', draws: 200 } // prettier-ignore
  const { sheet } = snapshotOf(asked)
  for (const section of sheet.sections)
    for (const block of section.blocks)
      if (block.kind === 'numbers')
        for (const f of block.figures) if (/^carries-/.test(f.id)) seen.add('Review', f)
}

test.each(RULES)('%s: every screen says the same of every fill of every model for every class', (_, rule) => {
  let places = 0
  for (const m of demoBundle.models) {
    const seen = new Seen()
    walk(dossierOf(m), rule, seen)
    places += seen.places
    expect([m.model.name, seen.differ()]).toEqual([m.model.name, []])
  }
  expect(places).toBeGreaterThan(550)
})

test('what it takes to reach something is one number, in whatever order the parts are kept', () => {
  for (const m of demoBundle.models) {
    const d = dossierOf(m)
    const strip = reaches([...d.parts].sort((x, y) => x.position - y.position))
    const shuffled = { ...d, parts: [...d.parts].reverse() }
    const found = (x: Dossier) => {
      const c = candidateOf(x, MEDIA, assess(modelRecord(x, MEDIA)))
      return [c.facts.toMedia, c.facts.preFilter].map((r) => r && [r.moves.value, r.seconds.value])
    }
    expect(reaches(shuffled.parts)).toEqual(strip)
    expect(found(shuffled)).toEqual(found(d))
    const to = (what: string) => strip.find((r) => r.reach === what)
    expect(found(d)).toEqual(['media', 'pre-filter'].map((w) => to(w) ? [to(w)?.moves, to(w)?.seconds] : null)) // prettier-ignore
  }
})
