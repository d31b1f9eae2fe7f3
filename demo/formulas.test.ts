import { modelRecord, pathRecord, tankRecord, usualHookup } from '@ypsometer/contract'
import type { Dossier, Medium, Tank } from '@ypsometer/contract'
import { candidateOf, fittingOf } from '@ypsometer/contract/candidate'
import type { Figure } from '@ypsometer/core/figures/figure'
import { assess } from '@ypsometer/core/judging/assess'
import { fitFindings } from '@ypsometer/core/judging/fitting'
import { strengthOf } from '@ypsometer/core/judging/strength'
import { tankBalance } from '@ypsometer/core/judging/tankBalance'
import { together } from '@ypsometer/core/judging/together'
import * as P from '@ypsometer/core/path/figures'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { evaluate } from 'mathjs'
import { BENCH_MEDIA } from './fills'
import { demoBundle } from '.'

const MEDIA = BENCH_MEDIA as unknown as Medium[]
const NORMAL = STOCK_CLASSES.find((c) => c.code === 'normal') as StockClass
const isFigure = (x: object): x is Figure & { formula: string } =>
  'value' in x && 'formula' in x && typeof x.formula === 'string'

/** Every figure with a formula in something that the core has worked out. */
const found: (Figure & { formula: string })[] = []
function figuresIn(x: unknown, seen = new Set<unknown>()): void {
  if (typeof x !== 'object' || x === null || seen.has(x) || ArrayBuffer.isView(x)) return
  seen.add(x)
  if (isFigure(x)) found.push(x)
  for (const v of Array.isArray(x) ? x : Object.values(x)) figuresIn(v, seen)
}
for (const m of demoBundle.models) {
  const d = { logs: [], photos: [], ...m } as unknown as Dossier
  const a = assess(modelRecord(d, MEDIA), { stockClasses: STOCK_CLASSES })
  figuresIn(a)
  figuresIn(candidateOf(d, MEDIA, a))
  const path = pathRecord(d, MEDIA, a, usualHookup(d))
  for (const row of d.fills) {
    const base = path && pathBase(path, row.id)
    if (base?.kind !== 'ready') continue
    const o = outcomeOf({ ...base.base, fill: row }, NORMAL)
    const { pathFlowFigure, pumpHeadFigure, mediaHeadFigure, unstrainedFigure, meetsFigure, worthFigure } = P
    for (const make of [pathFlowFigure, pumpHeadFigure, mediaHeadFigure, unstrainedFigure, meetsFigure, worthFigure, P.massFigure, P.fullFigure, P.costFigure]) figuresIn(make(o)) // prettier-ignore
    for (const job of ['all', 'coarse', 'biological'] as const) figuresIn(P.jobFigure(o, job))
    for (const l of o.layers) for (const make of [P.headFigure, P.layerMassFigure, P.bypassFigure, P.contactFigure, P.velocityFigure]) figuresIn(make(l)) // prettier-ignore
    for (const l of o.shopping) for (const make of [P.neededFigure, P.leftOverFigure]) figuresIn(make(l))
    for (const l of o.budget) figuresIn(P.lineFigure(o, l))
    for (const x of o.sides) figuresIn(P.sideFigure(o, x))
  }
  const { shipped } = a.verdict
  for (const t of shipped ? demoBundle.tanks : []) {
    const stock = STOCK_CLASSES.find((c) => c.code === t.stockClassId) ?? NORMAL
    const tank = tankRecord(t as unknown as Tank, stock)
    figuresIn(shipped && tankBalance(tank, shipped))
    figuresIn(shipped && together(tank, [{ name: 'a', fill: shipped, claimedMax: null }, { name: 'b', fill: shipped, claimedMax: null }])) // prettier-ignore
    figuresIn(shipped?.outlet && strengthOf(tank, shipped.flow, [{ id: 'a', name: 'Out', outlet: shipped.outlet }], { openArea: 2e-3, sponge: false }, true)) // prettier-ignore
    const fitting = fittingOf(d)
    figuresIn(fitting && fitFindings(tank, fitting))
  }
}

/** The exponents and roots of a formula as mathjs has them. */
const SIGNS: readonly (readonly [RegExp, string])[] = [
  [/[·×]/g, '*'], [/÷/g, '/'], [/−/g, '-'], [/²/g, '^2'], [/³/g, '^3'], [/\^⅓/g, '^(1/3)'], [/∛/g, 'cbrt'],
  [/π/g, 'pi'], [/√/g, 'sqrt'], [/½/g, '0.5'], [/\bln\b/g, 'log'], [/\b10 lg\b/g, '10 * log10 '], [/\[/g, '('], [/\]/g, ')'],
  [/\|([^|]+)\|/g, 'abs($1)'],
] // prettier-ignore
const FUNCTIONS = ['sqrt', 'cbrt', 'log', 'log10', 'exp', 'abs', 'pi']
const escaped = (name: string): string => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/** How the words of a formula are bound, where they are not the symbols of its lines; and the unit of its value. */
interface Bound {
  readonly names?: Readonly<Record<string, string>>
  /** What a result of the formula is in SI. */
  readonly unit?: number
  /** It is not below, or not above, so much. */
  readonly least?: number
  readonly most?: number
  /** Constants that are written rounded leave it so far off (relative). */
  readonly within?: number
}
const LITRE = 1e-3
const BOUND: Readonly<Record<string, Bound>> = {
  'V = m × litres per kilogram': { names: { 'litres per kilogram': 'L/kg' }, unit: LITRE },
  'm = claim ÷ litres per kilogram': { names: { 'litres per kilogram': 'L/kg' }, unit: 1000 },
  'V = Q ÷ floor': { unit: 3600 },
  'V = claimed largest tank ÷ factor': { names: { 'claimed largest tank': 'claim' } },
  'largest tank on the label ÷ largest tank supported (normal stocking)': {
    names: { 'largest tank on the label': 'claimed', 'largest tank supported (normal stocking)': 'supported' },
  },
  'gentle from ÷ length': { names: { 'gentle from': 'x', length: 'L' }, most: 1 },
  'V · bulk density': { names: { 'bulk density': 'ρ' } },
  'v = Q/A': { unit: 1e4 },
  'H_pump − hoses, fittings and lift': { names: { 'hoses, fittings and lift': 'Σh' } },
  'E = P · 8765.82 h ÷ 1000': { names: { h: '' } },
  'E · price per kWh': { names: { 'price per kWh': 'price' } },
  'V by bioload ÷ V by weight': { names: { 'V by bioload': 'V_b', 'V by weight': 'V_m' } },
  'H_static = level of the return − level of the intake': {
    names: { 'level of the return': 'outlet', 'level of the intake': '(-source)' },
  },
  '1 − air up the riser ÷ air supplied': {
    names: { 'air up the riser': 'riser', 'air supplied': 'supplied' },
  },
  'L = 10 lg(mean 10^(L/10)) − K1;  K1 = −10 lg(1 − 10^(−0.1 ΔL))': {
    names: { 'lg(mean 10^(L/10))': '(L_with / 10)' },
  },
  'empty + 998 kg/m³ · (water it holds − solid) + media': { names: { 'kg/m³': '', 'water it holds': 'water' } },
  'ΔQ = Q(changed) − Q(as it is)': { names: { 'Q(as it is)': 'Q' } },
  'open + clean + back': { names: { open: 't_1', clean: 't_2', back: 't_3' } },
  'V of the body ÷ V of the tank': { names: { 'V of the body': 'body', 'V of the tank': 'tank' } },
  'feed typical for this stocking · V': { names: { 'feed typical for this stocking': 'f' } },
  'v = Q ÷ open area': { names: { 'open area': 'A' } },
  'the one − the other': { names: { 'the one': 'one', 'the other': 'other' } },
  'C = C* − use ÷ (K_L · A);  K_L = 3.93 √(U/H) m a day at 20 °C': {
    names: { use: '(animals + films + plants + bacteria)' }, least: 0,
  },
  'C = C_air + (1.38 breathed + 5.85 N) ÷ (0.96 K_L · A)': { within: 5e-3 },
  'L = 2 ∛(V/2): twice as long as wide and high': { names: { ': twice as long as wide and high': '' } },
  'Q = label × (0.5 to 0.6)': { names: { '(0.5 to 0.6)': '0.55' } },
  'mean of the heights;  U = 2 · √(u_tape² + u_A²)': { names: { 'mean of the heights': 'mean' } },
  'c_N · (17.031 ÷ 14.007) ÷ (1 + 10^(pKa − pH));  pKa = 0.09018 + 2729.92/T': {
    names: { pKa: '(0.09018 + 2729.92 / (T + 273.15))' },
  },
  'A = A_in + [3.57 P (1 − plants) − 7.14 N oxidised] · T ÷ (f · V), never below nothing': {
    names: { 'N oxidised': 'N' }, least: 0,
  },
  'ΔpH = log (alkalinity put in ÷ alkalinity left)': {
    names: { 'alkalinity put in': 'alkalinity', 'alkalinity left': 'left', log: 'log10' },
  },
  '1 − exp(−K · 1 h · A/V),  K = 0.96 K_L': { names: { K: '(0.96 * K_L)', '1 h': '3600' }, within: 5e-3 },
  'h = L (ν v/k + C v²)/g': { names: { ν: '(ν · 10⁶ / 10^6)', k: '(k · 10⁹ / 10^9)' } },
  'h = (Q / (C N a))² / 2g': { names: { a: '(pi * d^2 / 4)' } },
  't = V/(K_L A) · ln[(D − C* + C₀)/(D − C* + 3 mg/L)],  D = use/(K_L A)': {
    names: { D: '(use / (K_L A))', 'mg/L': '/ 1000' },
  },
} // prettier-ignore

/** What a formula comes to with the numbers beside it; null where it is no expression of them. */
function evaluated({
  formula,
  working = [],
}: {
  formula: string
  working?: Figure['working']
}): number | null {
  const bound = BOUND[formula] ?? {}
  const scope: Record<string, number> = {}
  const symbols = new Map(working.map((w) => [w.symbol, w.value]))
  const sum = working.filter((w) => /^h\d+$/.test(w.symbol)).reduce((s, w) => s + w.value, 0)
  const heights = working.filter((w) => /^H\d+$/.test(w.symbol)).map((w) => w.value)
  symbols.set('mean', heights.reduce((a, b) => a + b, 0) / heights.length)
  symbols.set('Σh', sum).set('g', symbols.get('g') ?? 9.80665)
  let text = (formula.split(';')[0] as string).replace(/, {2}.*$|, (not|never|x the|normally|v in) .*$/, '')
  if (!working.length) return null
  if (/^Σ /.test(text) && !/÷|=/.test(text)) return working.reduce((s, w) => s + w.value, 0)
  text = text.replace(/^[^\s(]+ = /, '')
  const replace = (name: string, by: string): void => {
    const bounds = `(?<![\\p{L}_*₀′])${escaped(name)}(?![\\p{L}\\p{Nd}_*₀′(])`
    text = text.replace(new RegExp(bounds, 'gu'), ` ${by} `)
  }
  const longest = <T>(list: readonly (readonly [string, T])[]) => [...list].sort((a, b) => b[0].length - a[0].length) // prettier-ignore
  for (const [words, symbol] of longest(Object.entries(bound.names ?? {}))) replace(words, symbol)
  for (const [i, [symbol, value]] of longest([...symbols]).entries()) {
    scope[`v${i}`] = value
    replace(symbol, `v${i}`)
  }
  for (const [sign, by] of SIGNS) text = text.replace(sign, by)
  const unknown = [...text.matchAll(/[\p{L}_][\p{L}\p{N}_]*/gu)].map((m) => m[0]).filter((w) => !(w in scope) && !FUNCTIONS.includes(w)) // prettier-ignore
  if (unknown.length || !text.trim()) return null
  // A symbol before a bracket is a factor, not a function of what stands in it.
  const value = evaluate(text.replace(/(v\d+|\))\s*\(/g, '$1 * ('), scope) as number
  return Math.min(bound.most ?? Infinity, Math.max(bound.least ?? -Infinity, value * (bound.unit ?? 1)))
}

/** Formulas that are no expression of the numbers beside them, and why. */
const TOLD: Readonly<Record<string, readonly string[]>> = {
  'an equation that is solved': [
    'H0 (1 − (Q/Q0)^n) = H_static + Σ f (L/D) v²/2g + Σ K v²/2g',
    'H0 (1 − (Q/Q0)^n) = H_static + Σ hose, fittings, layers;  gaps share their layer’s head',
    'P (1 − plants) = (f/T) V S + κ [F(S) + G(S)], not below 0.07 mg/L',
    'G = A · D/δ · (S − s), as much as its film takes at s',
    'V: feed · protein · 0.092 · (1 − plants) = changes + films at the first limit;  r = r_max · A/(25 + A) · S/(1.93 + S), A the alkalinity left',
    'gap: Δp = 12 μ L v/g² + 1.5 ρ v²/2;  layer: Δp = L (μ v/k + ρ C v²);  the same Δp',
    'plane 2.47 √(b/x), then round of the whole; solved for x',
    'single jets 6 d/x, then plane 2.47 √(b/x), then round of the whole; solved for x',
    'u/u₀ = 6 D/x, solved for x',
    'F(0.12 mg/L) ÷ P (1 − plants)',
    'V(twice) ÷ V − 1',
  ],
  'a fit': [
    'H = H0 (1 − (Q/Q0)^n), weighted least squares',
    'C = C∞ (1 − e^(−(t − t₀)/τ)), t₀',
    'C = C∞ (1 − e^(−(t − t₀)/τ)), τ',
    't at 10 % of the final strength',
    'last time it is more than 5 % off the final strength',
  ],
  'a mean of readings that stand above it': [
    'Q = mean of V/t;  U = k · √(u_A² + u_B² + u_clock² + u_reaction²)',
    'P = mean;  U = k · √(u_A² + (P · u_meter)²)',
    'S(t) = Π (1 − d/n), first t with S ≤ ½',
    'Σ measured ÷ Σ calculated',
  ],
  'as it was read': [
    'as read;  U = half a step',
    'by eye, 0 to 10, from the same spot;  U = one step',
    'by stopwatch, from the switch to full flow',
    'level of the return − level of the intake',
  ],
  'the numbers it needs stand with other figures': [
    '1 − the share that reaches the end beside every layer; streams mix where a layer or an end makes them',
    'max over finenesses of min over their layers of past ÷ all',
    'm = Σ V · effective surface · working share ÷ 2.29 m² per kg',
    'm = Σ V · effective surface · working share ÷ 2.29 m² per kg · weighed ÷ calculated',
    'h = K v²/2g, v in a 16 mm bore',
    'h = f (L/D) v²/2g,  or K v²/2g',
  ],
}
const byFormula = new Map<string, (Figure & { formula: string })[]>()
for (const f of found)
  if (f.working?.length || Object.values(TOLD).some((list) => list.includes(f.formula)))
    byFormula.set(f.formula, [...(byFormula.get(f.formula) ?? []), f])
const told = new Set(Object.values(TOLD).flat())

test.each([...byFormula.keys()].filter((k) => !told.has(k)))('%s: with its numbers it gives the value', (formula) => {
  const within = BOUND[formula]?.within ?? 1e-6
  for (const f of byFormula.get(formula) ?? []) {
    // A dirty layer is told by its clean permeability, and the cube of what is left of it.
    if (f.conditions?.some((c) => c.includes('full of dirt'))) continue
    const value = evaluated(f)
    expect([f.id, value === null ? 'a word of it is no number beside it' : value]).toEqual([f.id, expect.any(Number)])
    expect(Math.abs(Number(value) - f.value)).toBeLessThanOrEqual(within * Math.abs(f.value) + 1e-15)
  }
}) // prettier-ignore

test('most formulas are evaluated; those that are told instead are met, and cannot be', () => {
  expect(byFormula.size - told.size).toBeGreaterThan(55)
  for (const formula of told) {
    const figures = byFormula.get(formula) ?? []
    expect([formula, figures.length > 0]).toEqual([formula, true])
    const gives = figures.some((f) => {
      try {
        return Math.abs((evaluated(f) ?? NaN) - f.value) <= 1e-6 * Math.abs(f.value)
      } catch {
        return false
      }
    })
    expect([formula, gives]).toEqual([formula, false])
  }
})
