import { put, type Figure, type WorkingLine } from '../figures'
import { fullWeight, type BodyRecord, type LitreName, type VolumeAudit } from './interior'
import { SOLID_FIELDS, sizeOf, solidVolume, volumeUncertainty, type Solid, type SolidShape } from './solids'

const FORMULAS: Readonly<Record<SolidShape, string>> = {
  box: 'V = width · depth · height',
  cylinder: 'V = π/4 · d² · height',
  annulus: 'V = π/4 · (d² − d_i²) · height',
  cone: 'V = π h (R² + R r + r²)/3',
  pyramid: 'V = h/6 · (a b + (a + c)(b + d) + c d)',
  wedge: 'V = width · depth · (height + low height)/2',
  'water-fill': 'V = water it held',
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  width: 'width',
  depth: 'depth',
  height: 'height',
  diameter: 'diameter',
  innerDiameter: 'inner diameter',
  topDiameter: 'diameter at the top',
  topWidth: 'width at the top',
  topDepth: 'depth at the top',
  lowHeight: 'height of the low side',
  volume: 'water it held',
}

/**
 * A chamber's volume (m³) with its formula and tape uncertainty. Template sizes are computed, not measured.
 * @throws OutOfRange naming the length at fault.
 */
export function solidFigure(name: string, solid: Solid, measured: boolean): Figure {
  const from = measured ? 'measured' : 'rule'
  return {
    id: `solid-${name}`,
    label: name,
    value: solidVolume(solid),
    dimension: 'volume',
    provenance: 'computed',
    ...(measured
      ? { uncertainty: 2 * volumeUncertainty(solid), conditions: ['measured with a tape, ± 1 mm'] }
      : { assumed: 'typical sizes of such a body' }),
    formula: FORMULAS[solid.shape],
    working: SOLID_FIELDS[solid.shape].map((f) =>
      put(
        f === 'volume' ? 'V' : f.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`),
        FIELD_WORDS[f] ?? f,
        sizeOf(solid, f),
        f === 'volume' ? 'volume' : 'length',
        from,
      ),
    ),
    source: 'solid mensuration; GUM, JCGM 100:2008',
  }
}

const MEDIA_USES: ReadonlySet<LitreName> = new Set(['biological', 'mechanical', 'chemical'])
const LITRES = { dimension: 'volume', provenance: 'computed' } as const
const chamberLines = (a: VolumeAudit, of: (n: VolumeAudit['chambers'][number]) => number): WorkingLine[] =>
  a.chambers.flatMap((c, i) => {
    const v = of(c)
    return v > 0 ? [put(String(i + 1), c.chamber.name, v, 'volume', 'computed')] : []
  })

/** Of whose chambers the sizes are typical ones, of all or of some of them. */
const typical = (a: VolumeAudit, counts: (n: VolumeAudit['chambers'][number]) => boolean = () => true) => {
  const of = a.chambers.filter(counts)
  const assumed = of.filter((c) => !c.chamber.measured).length
  return assumed > 0 && { assumed: `typical sizes of ${assumed} of ${of.length} chambers` }
}

/** All litres inside, chamber by chamber. */
export const grossFigure = (a: VolumeAudit): Figure => ({
  ...LITRES,
  id: 'gross',
  label: 'Gross internal volume',
  value: a.gross,
  // The tape of some says nothing of the others.
  ...(typical(a) || { uncertainty: 2 * a.uncertainty }),
  formula: 'V = Σ chambers;  u = √Σ u², tape ± 1 mm rectangular',
  working: chamberLines(a, (c) => c.volume),
  source: 'solid mensuration; GUM, JCGM 100:2008',
})

/** The litres that carry one name, by the chambers they lie in. */
export const litreFigure = (a: VolumeAudit, name: LitreName, words: string): Figure => ({
  ...LITRES,
  id: `litres-${name}`,
  label: words,
  value: a.byName[name],
  ...typical(a, (c) => c.chamber.use === name || (name === 'wasted' && c.lost > 0)),
  formula:
    name === 'wasted'
      ? 'Σ what could hold media and does not'
      : name === 'machinery'
        ? 'Σ machinery and what stands in a chamber for good'
        : 'Σ usable parts of the chambers of this use',
  working: chamberLines(a, (c) =>
    name === 'wasted'
      ? c.lost + (c.chamber.use === 'wasted' ? c.usable : 0)
      : (c.chamber.use === name ? c.usable : 0) + (name === 'machinery' ? c.volume - c.usable - c.lost : 0),
  ),
  source: 'each litre has one name',
})

/** One number as a share of another. */
export const shareFigure = (id: string, label: string, part: WorkingLine, whole: WorkingLine): Figure => ({
  id,
  label,
  value: part.value / whole.value,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  formula: `${part.symbol} ÷ ${whole.symbol}`,
  working: [part, whole],
})

/** Sum of chambers against the water fill, as a share of the fill; null while none was measured. */
export const closureFigure = (a: VolumeAudit): Figure | null =>
  a.closure && {
    id: 'closure',
    label: 'Chambers against the water fill',
    value: a.closure.difference,
    dimension: 'ratio',
    unit: '%',
    provenance: 'computed',
    formula: '(Σ chambers − what stands in them − fill) ÷ fill',
    working: [
      put('Σ', 'all chambers', a.gross, 'volume', 'computed'),
      ...(a.gross > a.water
        ? [
            put(
              'stands in them',
              'motor and the like, by the water it displaced',
              a.gross - a.water,
              'volume',
              'measured',
            ),
          ]
        : []),
      put('fill', 'water it held', a.closure.waterFill, 'volume', 'measured'),
    ],
  }

/** Litres that hold or could at once hold media. */
export const usableFigure = (a: VolumeAudit): Figure => ({
  ...LITRES,
  id: 'usable',
  label: 'Usable for media',
  value: a.usableMedia,
  ...typical(a, (c) => MEDIA_USES.has(c.chamber.use)),
  formula: 'bio + mechanical + chemical',
  working: (['biological', 'mechanical', 'chemical'] as const).map((n) =>
    put(n.slice(0, 4), n, a.byName[n], 'volume', 'computed'),
  ),
})

/** Usable litres per litre of the box the body fills from outside. */
export const perBulkFigure = (a: VolumeAudit): Figure => ({
  id: 'per-bulk',
  label: 'Usable per litre of outside bulk',
  value: a.usablePerBulk,
  ...typical(a, (c) => MEDIA_USES.has(c.chamber.use)),
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'usable ÷ (width · depth · height outside)',
  working: [
    put('usable', 'usable for media', a.usableMedia, 'volume', 'computed'),
    put('bulk', 'outside', a.outsideBulk, 'volume', 'measured'),
  ],
})

/** Usable volume (m³) for 100 units of the price's currency; `price` in whole units. */
export const perPriceFigure = (a: VolumeAudit, price: number, currency: string): Figure => ({
  ...LITRES,
  id: 'per-price',
  label: `Usable for 100 ${currency}`,
  value: (a.usableMedia / price) * 100,
  ...typical(a, (c) => MEDIA_USES.has(c.chamber.use)),
  formula: 'usable ÷ price × 100',
  working: [
    put('usable', 'usable for media', a.usableMedia, 'volume', 'computed'),
    put('price', `as noted, ${currency}`, price, 'ratio', 'printed'),
  ],
})

/** Weight ready to run (kg): weighed, or computed; null while the empty body was not weighed. */
export function weightFigure(body: BodyRecord, gross: number): Figure | null {
  const weight = fullWeight(body, gross)
  if (!weight) return null
  return {
    id: 'full-weight',
    label: 'Weight ready to run',
    value: weight.mass,
    dimension: 'mass',
    provenance: weight.weighed ? 'measured' : 'computed',
    ...(!weight.weighed && {
      formula: 'empty + water · 998 kg/m³',
      working: [
        put('empty', 'empty body', body.emptyMass ?? 0, 'mass', 'measured'),
        put(
          'water',
          'water it holds',
          body.waterFill ?? gross,
          'volume',
          body.waterFill ? 'measured' : 'computed',
        ),
      ],
    }),
  }
}
