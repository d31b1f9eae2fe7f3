import { nameOf, put, upperFirst, type Figure, type Provenance, type WorkingLine } from '../figures'
import type { Drive } from './case'
import { WAYS_WORDS } from './words'
import type { LayerFlow, Outcome, PathLine, SideFlow } from './outcome'
import type { PlacedChamber, ShoppingLine } from '../fills'
import { fromMinor } from '../units'
import { packVolume, resistanceOf, type KnownResistance } from '../media'
import { capacityFigure, type CapacityFigures, type StockClass } from '../tanks'
import { servedArea } from '../biology'
import { filmCounts, filmsOf } from './films'
import { outletOf } from './outlet'
import { BODY_BORE } from './topology'

/** Where a medium’s permeability comes from, in words, with its source. */
export const RESISTANCE_WORDS: Readonly<
  Record<KnownResistance['from'], { readonly words: string; readonly source: string }>
> = {
  calibrated: { words: 'calibrated by your tests', source: 'Darcy–Forchheimer, solved for k' },
  ergun: { words: 'from grain and voidage', source: 'Ergun 1952' },
  fibres: { words: 'from fibre and solidity', source: 'Davies 1952 (from memory)' },
  'foam-table': {
    words: 'from pores per inch, a proxy from metal foams',
    source: 'after Bhattacharya, Calmidi and Mahajan 2002 (from memory)',
  },
  open: { words: 'moves freely: no loss counted', source: 'common practice, no source' },
}

/** Basis of a drive’s curve, in words, and where its H0, Q0 and n come from. */
const DRIVES: Readonly<
  Record<
    Drive['from'],
    { readonly words: string; readonly origins: readonly [Provenance, Provenance, Provenance] }
  >
> = {
  fit: { words: 'pump curve from measurements', origins: ['computed', 'computed', 'computed'] },
  label: {
    words: 'pump curve from the label, less the usual label error',
    origins: ['printed', 'rule', 'rule'],
  },
  airlift: {
    words: 'airlift’s own curve, from riser, depth and air',
    origins: ['computed', 'computed', 'computed'],
  },
  straight: {
    words: 'airlift flow falls in a straight line to zero at half its depth (rule of thumb)',
    origins: ['rule', 'measured', 'rule'],
  },
}

/** The curve of a drive, line by line. */
function driveLines({ pump, from, reach, supposedHead }: Drive): readonly WorkingLine[] {
  const [head, flow, exponent] = DRIVES[from].origins
  return [
    supposedHead
      ? put(
          'H0',
          `no maximum head on the label: ${supposedHead.join(' to ')} m assumed for this type`,
          pump.shutOffHead,
          'head',
          'rule',
        )
      : put('H0', 'maximum head', pump.shutOffHead, 'head', head),
    put('Q0', 'flow at zero head', pump.maxFlow, 'flow', reach === undefined ? flow : 'computed'),
    put('n', 'curve exponent', pump.exponent, 'ratio', exponent),
  ]
}

/** Assumptions of a flow that nobody noted, for a reader. */
function supposedConditions({ supposed, told, drive }: Outcome['case']): readonly string[] {
  return [
    ...(supposed && !told
      ? [supposed.within ? 'plumbing assumed: at most 50 to 60 % of the label' : 'plumbing assumed']
      : []),
    ...(drive.supposedHead ? ['no maximum head on the label: usual for this type (assumed)'] : []),
    ...(drive.brought ? ['matched to the measured flow of the empty filter on its hoses'] : []),
  ]
}

/** Flow through the body on its hookup with this fill. */
export function pathFlowFigure(o: Outcome): Figure {
  const { drive, supposed, told } = o.case
  return {
    id: `path-flow-${o.case.fill.id}`,
    label: 'Installed flow with this setup',
    value: o.flow,
    dimension: 'flow',
    provenance: supposed && !told ? 'rule' : 'computed',
    ...(o.uncertainty > 0 && { uncertainty: o.uncertainty }),
    ...(supposed && !told && { assumed: 'usual plumbing' }),
    conditions: [
      o.case.fill.name,
      o.case.hookup?.name ?? 'no plumbing',
      DRIVES[drive.from].words,
      ...supposedConditions(o.case),
      ...(drive.reach === undefined || drive.brought || (supposed && !told)
        ? []
        : ['Q0 set by the test with media']),
      `${o.case.temperature} °C`,
    ],
    formula: 'H0 (1 − (Q/Q0)^n) = H_static + Σ hose, fittings, layers;  gaps share their layer’s head',
    working: [
      ...driveLines(drive),
      ...o.budget.map((l, i) => put(`h${i + 1}`, l.label, l.head, 'head', 'computed')),
    ],
    source: 'global gradient method, Todini and Pilati 1988; Darcy–Forchheimer; Darcy–Weisbach',
  }
}

/** Head the pump gives at this flow; with it that of a second one in the same run. */
export function pumpHeadFigure(o: Outcome): Figure {
  const { drive, second } = o.case
  const both = second?.arrangement === 'series' && second.running ? second : null
  return {
    id: `path-pump-head-${o.case.fill.id}`,
    label: both ? 'Head both pumps give' : 'Head the pump gives',
    value: o.pumpHead,
    dimension: 'head',
    provenance: 'computed',
    formula: both ? 'H = H0 (1 − (Q/Q0)^n) + H0′ (1 − (Q/Q0′)^n′)' : 'H = H0 (1 − (Q/Q0)^n)',
    working: [
      ...driveLines(drive),
      ...(both
        ? [
            put('H0′', `maximum head, ${both.label}`, both.shutOffHead, 'head', 'printed'),
            put('Q0′', `flow at zero head, ${both.label}`, both.maxFlow, 'flow', 'printed'),
            put('n′', `curve exponent, ${both.label}`, both.exponent, 'ratio', 'rule'),
          ]
        : []),
      put('Q', 'installed flow with this setup', o.flow, 'flow', 'computed'),
    ],
  }
}

/** Head all layers take together. */
export const mediaHeadFigure = (o: Outcome): Figure => {
  const lines = o.budget.filter((l) => l.part.what === 'layer')
  return {
    id: 'path-media-head',
    label: 'Head loss in the media',
    value: lines.reduce((sum, l) => sum + l.head, 0),
    dimension: 'head',
    unit: 'cm',
    provenance: 'computed',
    formula: 'Σ h of the layers in a row',
    working: lines.map((l, i) => put(`h${i + 1}`, l.label, l.head, 'head', 'computed')),
  }
}

/** One line of the head budget. */
export function lineFigure(o: Outcome, line: PathLine): Figure {
  const common = {
    id: `path-head-${line.id}`,
    label: `Head loss: ${nameOf(line.label)}`,
    value: line.head,
    dimension: 'head',
    provenance: 'computed',
  } as const
  const part = line.part
  if (part.what === 'lift')
    return {
      ...common,
      provenance: 'measured',
      formula: 'level of the return − level of the intake',
      source: 'energy equation between the two free surfaces (Bernoulli)',
    }
  if (part.what === 'rest')
    return {
      ...common,
      conditions: ['by difference, from the installed-flow test: loss that hoses and media do not explain'],
      formula: 'h = K v²/2g, v in a 16 mm bore',
      working: [put('D', 'reference bore', BODY_BORE, 'length', 'rule')],
    }
  if (part.what === 'layer') {
    const l = o.layers.find((x) => x.placed.layer.id === part.layerId)
    if (l) return headFigure(l)
  }
  return {
    ...common,
    formula: part.what === 'segment' ? 'h = f (L/D) v²/2g,  or K v²/2g' : 'h = K v²/2g',
    working: [put('Q', 'flow', o.flow, 'flow', 'computed')],
    source: 'Darcy–Weisbach with Colebrook; Crane TP-410 and Idelchik (from memory)',
  }
}

/** Head a layer takes. */
export function headFigure(l: LayerFlow): Figure {
  const r = resistanceOf(l.placed.medium)
  const { words, source } = RESISTANCE_WORDS[r.from]
  return {
    id: `head-${l.placed.layer.id}`,
    label: `Head loss: ${nameOf(l.placed.medium.name)}`,
    value: l.head,
    dimension: 'head',
    provenance: 'computed',
    conditions: [
      words,
      ...(l.placed.layer.fouled
        ? [`${Math.round(l.placed.layer.fouled * 100)} % full of dirt: k falls with the cube of what is left`]
        : []),
    ],
    formula: 'h = L (ν v/k + C v²)/g',
    working: [
      put('L', WAYS_WORDS[l.chamber.way], l.placed.thickness, 'length', 'measured'),
      put('v', 'velocity before it', l.velocity, 'velocity', 'computed'),
      put(
        'k · 10⁹',
        'permeability, clean (10⁻⁹ m²)',
        r.permeability * 1e9,
        'ratio',
        r.from === 'calibrated' ? 'measured' : 'computed',
      ),
      put('C', 'inertial coefficient (1/m)', r.inertia, 'ratio', 'computed'),
      put(
        'u(k)',
        'relative standard uncertainty of k',
        r.relative,
        'ratio',
        r.from === 'calibrated' ? 'measured' : 'rule',
      ),
      put('ν · 10⁶', 'kinematic viscosity of the water (10⁻⁶ m²/s)', l.viscosity * 1e6),
    ],
    source,
  }
}

/** Dry weight of a layer. */
export const layerMassFigure = (l: LayerFlow): Figure => ({
  id: `mass-${l.placed.layer.id}`,
  label: `${l.placed.medium.name}, dry`,
  value: l.placed.mass,
  dimension: 'mass',
  provenance: 'computed',
  formula: 'V · bulk density',
  working: [
    put('V', 'litres of the layer', l.placed.volume, 'volume', 'computed'),
    put('ρ', 'bulk density, kg/m³', l.placed.medium.bulkDensity, 'ratio', 'rule'),
  ],
})

/** Share of the water that goes round a layer. */
export function bypassFigure(l: LayerFlow): Figure {
  return {
    id: `past-${l.placed.layer.id}`,
    label: `Bypasses ${nameOf(l.placed.medium.name)}`,
    value: l.bypassFraction,
    dimension: 'ratio',
    unit: '%',
    provenance: 'computed',
    formula: 'gap: Δp = 12 μ L v/g² + 1.5 ρ v²/2;  layer: Δp = L (μ v/k + ρ C v²);  the same Δp',
    working: [
      put('through', 'through the layer', l.through, 'flow', 'computed'),
      put('past', 'gap, wall and overflow beside it', l.past, 'flow', 'computed'),
      {
        ...put('g', 'gap beside it', l.placed.gap || (l.chamber.chamber.wallGap ?? 0), 'length', 'measured'),
        unit: 'mm',
      },
      put('h', 'head both share', l.head, 'head', 'computed'),
    ],
    source: 'plane Poiseuille flow with entry and exit; Darcy–Forchheimer',
  }
}

/** Seconds the water is in a layer, as if the bed were empty. */
export const contactFigure = (l: LayerFlow): Figure => ({
  id: `contact-${l.placed.layer.id}`,
  label: `Contact time in ${nameOf(l.placed.medium.name)}`,
  value: l.contact,
  dimension: 'time',
  provenance: 'computed',
  formula: 'EBCT = V/Q',
  working: [
    put('V', 'litres of the layer', l.placed.volume, 'volume', 'computed'),
    put('Q', 'through the layer', l.through, 'flow', 'computed'),
  ],
  source: 'empty-bed contact time, as in any handbook of water treatment',
})

/** Velocity before a layer. */
export const velocityFigure = (l: LayerFlow): Figure => ({
  id: `velocity-${l.placed.layer.id}`,
  label: `Velocity before ${nameOf(l.placed.medium.name)}`,
  value: l.velocity,
  dimension: 'velocity',
  provenance: 'computed',
  formula: 'v = Q/A',
  working: [
    put('Q', 'through the layer', l.through, 'flow', 'computed'),
    put('A', 'area across the flow, cm²', l.placed.area * 1e4, 'ratio', 'measured'),
  ],
})

/** Share of all water that takes a side way. */
export const sideFigure = (o: Outcome, s: SideFlow): Figure => ({
  id: `side-${s.label}`,
  label: s.label,
  value: s.share,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  formula: 'q ÷ Q',
  working: [
    put('q', nameOf(s.label), s.flow, 'flow', 'computed'),
    put('Q', 'all of it', o.flow, 'flow', 'computed'),
  ],
})

/** Share of the water no straining layer of some fineness meets. */
export const unstrainedFigure = (o: Outcome): Figure => ({
  id: 'unstrained',
  label: 'Bypasses mechanical filtration',
  value: o.unstrained,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  conditions: ['for the worst fineness, at its tightest layer'],
  formula: 'max over finenesses of min over their layers of past ÷ all',
  working: o.layers.map((l, i) =>
    put(`p${i + 1}`, `bypasses ${nameOf(l.placed.medium.name)}`, l.bypassFraction, 'ratio', 'computed'),
  ),
})

/** Share of the water that meets biological media. */
export const meetsFigure = (o: Outcome): Figure => ({
  id: 'meets-media',
  label: 'Reaches the bio media',
  value: o.meetsMedia,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  formula:
    '1 − the share that reaches the end beside every layer; streams mix where a layer or an end makes them',
})

/** Working of a fill’s worth: each medium’s area that works, and the weighed mass where there is one. */
function worthWorking(o: Outcome): Figure['working'] {
  const { calibration } = o.worth
  const films = filmsOf(o).layers
  const names = o.layers.filter((l) => filmCounts(l.placed.medium)).map((l) => l.placed.medium.name)
  return [
    ...films.map((f, i) => put(`A${i + 1}`, `${names[i] ?? ''}, working surface`, f.area, 'area', 'rule')),
    put('A_s', 'of it, supplied with water', servedArea({ flow: o.flow, layers: films }), 'area', 'computed'),
    ...(calibration === null
      ? []
      : [
          put('weighed', 'media as weighed', o.weights.biologicalMass * calibration, 'mass', 'measured'),
          put('computed', 'litres · bulk density', o.weights.biologicalMass, 'mass', 'computed'),
        ]),
  ]
}

/** All that carries film in a fill, as kilograms of good sintered media of the same effective area. */
export function worthFigure(o: Outcome): Figure {
  const { mass, uncertainty, foam, calibration } = o.worth
  const apart = calibration === null ? null : Math.round(Math.abs(calibration - 1) * 100)
  return {
    id: `fill-worth-${o.case.fill.id}`,
    label: 'Equal to good sintered media',
    value: mass,
    uncertainty,
    dimension: 'mass',
    provenance: 'rule',
    conditions: [
      o.case.fill.name,
      ...(foam >= 0.005 ? [`${Math.round(foam * 100)} % of it is foam`] : []),
      ...(calibration === null || apart === null
        ? []
        : [
            apart
              ? `calibrated by weight: ${apart} % ${calibration > 1 ? 'more' : 'less'} than their volume gives`
              : 'weight and volume agree',
          ]),
    ],
    formula:
      'm = Σ V · effective surface · working share ÷ 2.29 m² per kg' +
      (calibration === null ? '' : ' · weighed ÷ calculated'),
    working: worthWorking(o) ?? [],
    source: 'common practice, no source',
  }
}

/** Inputs of a fill’s capacity, as numbers of their own. */
export const capacityFiguresOf = (o: Outcome): CapacityFigures => ({
  fill: o.case.fill,
  flow: pathFlowFigure(o),
  meets: meetsFigure(o),
  mass: worthFigure(o),
  foam: o.worth.foam,
  films: filmsOf(o),
  outlet: outletOf(o.case.kind, o.case.hookup),
})

/** Tank litres the fill carries. */
export const fillCapacityFigure = (o: Outcome, stock: StockClass): Figure =>
  capacityFigure(capacityFiguresOf(o), stock, o.case.claimedMax)

/** Litres of media of a job. */
export const jobFigure = (o: Outcome, job: keyof Outcome['weights']['byJob'] | 'all'): Figure => ({
  id: `fill-${job}`,
  label: job === 'all' ? 'Media' : `${job === 'biological' ? 'Bio' : upperFirst(job)} media, litres`,
  value: job === 'all' ? o.weights.volume : o.weights.byJob[job],
  dimension: 'volume',
  provenance: 'computed',
  formula: 'Σ thickness · (A − gap · perimeter)',
  working: o.layers
    .filter((l) => job === 'all' || l.placed.medium.job === job)
    .map((l, i) =>
      put(
        String(i + 1),
        `${l.placed.medium.name}, ${nameOf(l.chamber.chamber.name)}`,
        l.placed.volume,
        'volume',
        'computed',
      ),
    ),
})

/** Kilograms that count towards capacity. */
export const massFigure = (o: Outcome): Figure => ({
  id: 'fill-mass',
  label: 'Bio media, dry weight',
  value: o.weights.biologicalMass,
  dimension: 'mass',
  provenance: 'computed',
  formula: 'Σ V · bulk density; foam and wheels left out',
  working: o.layers
    .filter((l) => l.counts)
    .map((l, i) => put(String(i + 1), l.placed.medium.name, l.placed.mass, 'mass', 'computed')),
})

/** Weight ready to run with the fill in; null while the empty filter was not weighed. */
export const fullFigure = (o: Outcome): Figure | null =>
  o.weights.fullWeight === null
    ? null
    : {
        id: 'fill-full-weight',
        label: 'Weight ready to run',
        value: o.weights.fullWeight,
        dimension: 'mass',
        provenance: 'computed',
        formula: 'empty + 998 kg/m³ · (water it holds − solid) + media',
        working: [
          put('empty', 'empty filter', o.case.body.emptyMass ?? 0, 'mass', 'measured'),
          put(
            'water',
            'water it holds',
            o.weights.water,
            'volume',
            o.case.body.waterFill ? 'measured' : 'computed',
          ),
          put('solid', 'solid matter of the media', o.weights.solid, 'volume', 'computed'),
          put('media', 'media, dry', o.weights.mass, 'mass', 'computed'),
        ],
      }

/** Price of the media in whole packs, in whole units of the list’s currency; null with nothing priced. */
export function costFigure(o: Outcome): Figure | null {
  const { currency, costMinor, unpriced } = o.cost
  if (currency === null) return null
  return {
    id: 'fill-cost',
    label: `Media cost, whole packs, ${currency}`,
    value: fromMinor(costMinor, currency),
    dimension: 'ratio',
    provenance: 'computed',
    conditions: unpriced.length ? [`${unpriced.join(', ')} not priced`] : [],
    formula: 'Σ packs · price',
    working: o.shopping.flatMap((l) =>
      l.costMinor === null
        ? []
        : [put(`${l.packs} ×`, l.medium.name, fromMinor(l.costMinor, currency), 'ratio', 'printed')],
    ),
  }
}

/** Length of a chamber that is still free (m); negative above the rim. */
export const freeFigure = (c: PlacedChamber): Figure => ({
  id: `free-${c.chamber.id}`,
  label: c.free < 0 ? `Above the rim of ${nameOf(c.chamber.name)}` : `Free in ${nameOf(c.chamber.name)}`,
  value: Math.abs(c.free),
  dimension: 'length',
  unit: 'mm',
  provenance: 'computed',
  formula: '|L − Σ thickness|',
  working: [
    { ...put('L', 'fill height', c.length, 'length', 'measured'), unit: 'mm' },
    ...c.layers.map((l, i) => ({
      ...put(`t${i + 1}`, l.medium.name, l.thickness, 'length', 'computed'),
      unit: 'mm',
    })),
  ],
})

/** Need of a line of the shopping list, and what of its whole packs is left over (m³). */
export const neededFigure = (l: ShoppingLine): Figure => ({
  id: `needed-${l.medium.id}`,
  label: `${l.medium.name} needed`,
  value: l.volume,
  dimension: 'volume',
  provenance: 'computed',
  formula: 'Σ of its layers',
})
export const leftOverFigure = (l: ShoppingLine): Figure => ({
  id: `left-${l.medium.id}`,
  label: `${l.medium.name} left over`,
  value: l.leftOver ?? 0,
  dimension: 'volume',
  provenance: 'computed',
  formula: 'packs · a pack − needed',
  working: [
    put('packs', 'whole ones', l.packs ?? 0),
    put('a pack', 'holds', packVolume(l.medium) ?? 0, 'volume', 'printed'),
    put('needed', 'in all layers', l.volume, 'volume', 'computed'),
  ],
})
