import { carbonDioxideLost, gasExchange } from '../biology'
import { lowerFirst, put, putFigure, inline, type Figure, type Sentence } from '../figures'
import {
  approachSpeed,
  gentleFrom,
  jetSpeed,
  JET_BAND,
  leaving,
  stirsSurface,
  strongShare,
  surfaceSpeed,
  withHoles,
  type Outlet,
  type OutletKind,
} from '../hydraulics/jets'
import type { NamedOutlet } from '../trials/records'
import type { TankRecord } from '../tanks/tankRecord'

/** Longer than this share of the tank above what they bear is too strong; a quarter is the edge (ours). */
export const STRONG = { edge: 0.25, tooMuch: 0.5 } as const

/** Strongest current what lives there tolerates (m/s), with its band. */
const currentLimit = ({ strongestCurrent: value, marks }: TankRecord['stock']): Figure => ({
  id: 'current-limit',
  label: 'Strongest current they tolerate',
  value,
  uncertainty: value * marks.strongestCurrent.band,
  dimension: 'velocity',
  unit: 'cm/s',
  provenance: 'rule',
  source: marks.strongestCurrent.source,
})

/** One way for the water to come back into one tank. */
export interface OutletResult {
  readonly id: string
  readonly name: string
  readonly outlet: Outlet
  readonly leaves: Figure
  /** Distance from which it is no faster than they bear. */
  readonly gentle: Figure
  /** Share of the length that is faster. */
  readonly share: Figure
  readonly stirs: boolean
  readonly level: 'gentle' | 'borderline' | 'strong'
}

/** An outlet with its curve: distance (m) and speed (m/s) along the tank. */
export interface DrawnOutlet extends OutletResult {
  readonly curve: readonly { readonly x: number; readonly speed: number }[]
}

export interface Strength {
  readonly outlets: readonly DrawnOutlet[]
  /** The one that fits: the one in use where it is gentle, else the strongest that is, else the gentlest. */
  readonly best: OutletResult | null
  readonly inlet: Figure | null
  readonly sentences: readonly {
    readonly tone: 'note' | 'caution' | 'against'
    readonly sentence: Sentence
  }[]
}

/** A named way for the water to come back. */
export interface ReturnChoice {
  readonly id: string
  readonly name: string
  readonly outlet: Outlet
}

const OUTLET_WORDS: Readonly<Record<OutletKind, string>> = {
  nozzle: 'Open end or nozzle',
  'spray-bar': 'Spray bar',
  lip: 'Lip',
  airlift: 'Riser',
}

/** Ways its water can come back, the one in use first: those noted with its hookup, else the usual one of its fill. */
export const waysBack = (
  noted: readonly NamedOutlet[] | undefined,
  usual: Outlet | null,
): readonly ReturnChoice[] =>
  noted?.map((o) => ({ id: o.id, name: o.name, outlet: o })) ??
  (usual ? [{ id: 'usual', name: OUTLET_WORDS[usual.kind], outlet: usual }] : [])

/** Tank data that a jet is held against. */
type AlongTank = Pick<TankRecord, 'stock' | 'length' | 'sizesAssumed'>

/** An outlet as it is, turned at the glass, and with half of its holes closed. */
function choicesOf({ id, name, outlet }: ReturnChoice): readonly ReturnChoice[] {
  const out: ReturnChoice[] = [{ id, name, outlet }]
  if (outlet.aim !== 'glass' && outlet.kind !== 'airlift')
    out.push({
      id: `${id}-glass`,
      name: `${name}, turned towards the glass`,
      outlet: { ...outlet, aim: 'glass' },
    })
  if (outlet.kind === 'spray-bar' && outlet.holes >= 4)
    out.push({
      id: `${id}-half`,
      name: `${name}, half of its holes closed`,
      outlet: withHoles(outlet, outlet.holes / 2),
    })
  return out
}

const POINTS = 40
const curveOf = (outlet: Outlet, flow: number, length: number): DrawnOutlet['curve'] =>
  Array.from({ length: POINTS + 1 }, (_, i) => {
    const x = (length * i) / POINTS
    return { x, speed: jetSpeed(outlet, flow, x) }
  })

/** Every outlet, and ways of using it otherwise, along a tank; nothing where no water comes through. */
export const outletsAlong = (
  tank: AlongTank,
  flow: Figure,
  outlets: readonly ReturnChoice[],
): readonly OutletResult[] =>
  flow.value > 0 ? outlets.flatMap(choicesOf).map((c) => resultOf(c, flow, tank)) : []

/** The one in use where it is gentle, else the strongest that is, else the gentlest. */
export function bestOutlet(results: readonly OutletResult[]): OutletResult | null {
  const by = (list: readonly OutletResult[], sign: 1 | -1): OutletResult | null =>
    list.length ? list.reduce((a, b) => (sign * b.share.value > sign * a.share.value ? b : a)) : null
  const first = results[0]
  if (first?.level === 'gentle') return first
  return (
    by(
      results.filter((r) => r.level === 'gentle'),
      1,
    ) ?? by(results, -1)
  )
}

function resultOf({ id, name, outlet }: ReturnChoice, flow: Figure, tank: AlongTank): OutletResult {
  const most = tank.stock.strongestCurrent
  const q = flow.value
  const share = strongShare(outlet, q, most, tank.length)
  const speed = leaving(outlet, q).speed
  const relative = Math.hypot(JET_BAND, (flow.uncertainty ?? 0) / Math.max(q, 1e-12))
  const common = {
    provenance: 'computed',
    source: 'Pope, Turbulent Flows; Rajaratnam 1976 (from memory)',
  } as const
  const working = [
    putFigure('Q', flow),
    put('u', 'strongest current they tolerate', most, 'velocity', 'rule'),
    put('u₀', 'as it leaves', speed, 'velocity', 'computed'),
  ]
  const sizes =
    outlet.kind === 'lip'
      ? [put('w', 'width of the lip', outlet.width, 'length', 'measured')]
      : [
          put('N', 'holes', outlet.kind === 'spray-bar' ? outlet.holes : 1, 'ratio', 'measured'),
          put('D', 'bore of each', outlet.diameter, 'length', 'measured'),
        ]
  const from = gentleFrom(outlet, q, most)
  return {
    id,
    name,
    outlet,
    leaves: {
      ...common,
      id: `leaves-${id}`,
      label: `${name}: speed as it leaves`,
      value: speed,
      dimension: 'velocity',
      unit: 'cm/s',
      ...(flow.uncertainty !== undefined && { uncertainty: speed * (flow.uncertainty / Math.max(q, 1e-12)) }),
      formula: outlet.kind === 'lip' ? 'u₀ = (g Q ÷ w)^⅓' : 'u₀ = 4 Q ÷ (π N D²)',
      working: [putFigure('Q', flow), ...sizes],
    },
    gentle: {
      ...common,
      id: `gentle-${id}`,
      label: `${name}: gentle from`,
      value: Math.min(from, 20),
      ...(from > 0 && from < 20 && { uncertainty: from * relative }),
      dimension: 'length',
      formula: FORMULA[outlet.kind],
      working,
    },
    share: {
      ...common,
      id: `share-${id}`,
      label: `${name}: too strong for`,
      value: share,
      dimension: 'ratio',
      unit: '%',
      ...(tank.sizesAssumed && { assumed: tank.sizesAssumed }),
      formula: 'gentle from ÷ length',
      working: [
        put('x', 'gentle from', Math.min(from, 20), 'length', 'computed'),
        put('L', 'length', tank.length, 'length', tank.sizesAssumed ? 'rule' : 'measured'),
      ],
    },
    stirs: stirsSurface(outlet),
    level: share > STRONG.tooMuch ? 'strong' : share > STRONG.edge ? 'borderline' : 'gentle', // prettier-ignore
  }
}

const FORMULA: Readonly<Record<Outlet['kind'], string>> = {
  nozzle: 'u/u₀ = 6 D/x, solved for x',
  airlift: 'u/u₀ = 6 D/x, solved for x',
  'spray-bar': 'single jets 6 d/x, then plane 2.47 √(b/x), then round of the whole; solved for x',
  lip: 'plane 2.47 √(b/x), then round of the whole; solved for x',
}

/** An inlet: its open area (m²) and whether a sponge guards it; null where nobody has looked. */
export interface Inlet {
  readonly openArea: number
  readonly sponge: boolean
}

/**
 * How strong a filter's water is along a tank, by every way it can come back, and at its inlet.
 * @throws OutOfRange as the jets do.
 */
export function strengthOf(
  tank: TankRecord,
  flow: Figure,
  outlets: readonly ReturnChoice[],
  inlet: Inlet | null,
  hasIntake: boolean,
): Strength {
  const out: { tone: 'note' | 'caution' | 'against'; sentence: Sentence }[] = []
  const results = outletsAlong(tank, flow, outlets)
  const [first] = results
  const best = bestOutlet(results)
  const { stock } = tank
  if (first && best) {
    const limit: Sentence = [' Limit: ', inline(currentLimit(stock)), '.']
    out.push({
      tone: TONES[first.level],
      sentence:
        first.gentle.value === 0
          ? [`${first.name}: gentle everywhere, at most `, inline(first.leaves), '.', ...limit]
          : [
              `${first.name}: too strong along `,
              inline(first.share),
              ' of the tank, gentle from ',
              inline(first.gentle),
              ' on.',
              ...limit,
            ],
    })
    if (best !== first)
      out.push({
        tone: 'note',
        sentence: [`Better: ${lowerFirst(best.name)}, too strong along only `, inline(best.share), '.'],
      })
  }
  if (first && !first.stirs)
    out.push({
      tone: 'note',
      sentence: ['Return below the surface: adds little oxygen, keeps CO₂ in.'],
    })
  if (first?.stirs && (tank.plantShare ?? stock.plantShare) > 0) {
    const exchange = gasExchange({
      speed: surfaceSpeed(first.outlet, flow.value, tank.width),
      depth: tank.water.value / tank.surface,
      temperature: tank.temperature,
    })
    out.push({
      tone: 'note',
      sentence: [
        'The return stirs the surface: oxygen comes in, but about ',
        inline(lostFigure(exchange, tank)),
        ' of added CO₂ is lost in an hour.',
      ],
    })
  }
  const speed =
    inlet && flow.value > 0
      ? ({
          id: 'inlet-speed',
          label: 'Current at the inlet',
          value: approachSpeed(flow.value, inlet.openArea),
          dimension: 'velocity',
          unit: 'cm/s',
          provenance: 'computed',
          formula: 'v = Q ÷ open area',
          working: [putFigure('Q', flow), put('A', 'open area', inlet.openArea, 'area', 'measured')],
          source: 'continuity',
        } satisfies Figure)
      : null
  if (hasIntake && !stock.openInlet && !inlet?.sponge)
    out.push({
      tone: 'against',
      sentence: ['Open intake: add a sponge before keeping shrimp or fry.'],
    })
  else if (hasIntake && speed && speed.value > stock.strongestCurrent && !inlet?.sponge)
    out.push({
      tone: 'caution',
      sentence: [
        'Current at the intake: ',
        inline(speed, 2),
        '. They cannot swim against that for long. Fit a larger strainer or a sponge.',
      ],
    })
  return {
    outlets: results.map((r) => ({ ...r, curve: curveOf(r.outlet, flow.value, tank.length) })),
    best,
    inlet: speed,
    sentences: out,
  }
}

const lostFigure = (exchange: number, tank: TankRecord): Figure => ({
  id: 'carbon-dioxide-lost',
  label: 'Carbon dioxide lost in an hour',
  value: carbonDioxideLost(exchange, tank.water.value / tank.surface),
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  formula: '1 − exp(−K · 1 h · A/V),  K = 0.96 K_L',
  working: [
    put('K_L', 'gas exchange of oxygen', exchange, 'velocity', 'rule'),
    put('A', 'water surface', tank.surface, 'area', 'computed'),
    putFigure('V', tank.water),
  ],
  source: 'O’Connor and Dobbins 1958 (from memory), to a factor of two',
})

const TONES = { gentle: 'note', borderline: 'caution', strong: 'against' } as const
