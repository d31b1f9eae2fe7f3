import { put, type Figure } from '../figures'
import { bypass, geometricSurface, modelResistance, resistanceOf, type Medium } from '../media'
import { RESISTANCE_WORDS } from './figures'
import { waterProperties } from '../water'

/** Permeability of a medium as the path takes it, in 10⁻⁹ m². Null when nothing is known. */
export function permeabilityFigure(m: Medium): Figure | null {
  try {
    const r = resistanceOf(m)
    const { words, source } = RESISTANCE_WORDS[r.from]
    const model = modelResistance(m)
    return {
      id: `k-${m.id}`,
      label: 'Permeability, 10⁻⁹ m²',
      value: r.permeability * 1e9,
      ...(r.relative > 0 && { uncertainty: 2 * r.relative * r.permeability * 1e9 }),
      dimension: 'ratio',
      provenance: r.from === 'calibrated' ? 'measured' : 'computed',
      conditions: [words, 'clean'],
      working: [
        ...(m.grain ? [put('d', 'grain', m.grain, 'length', 'rule')] : []),
        ...(m.voidage ? [put('ε', 'voidage', m.voidage, 'ratio', 'rule')] : []),
        ...(m.fibre ? [put('d_f', 'fibre, µm', m.fibre * 1e6, 'ratio', 'rule')] : []),
        ...(m.solidity ? [put('s', 'solidity', m.solidity, 'ratio', 'rule')] : []),
        ...(m.poresPerInch ? [put('ppi', 'pores per inch', m.poresPerInch, 'ratio', 'printed')] : []),
        put('C', 'inertial coefficient (1/m)', r.inertia, 'ratio', 'computed'),
        ...(model && r.from === 'calibrated'
          ? [put('k', 'by its model, 10⁻⁹ m²', model.permeability * 1e9, 'ratio', 'computed')]
          : []),
      ],
      source,
    }
  } catch {
    return null
  }
}

const TRAY = { area: 0.04, perimeter: 0.8, flow: 1000 / 3.6e6 } as const

/** Share that goes round a usual layer of it, with a gap (m), in a tray of 20 by 20 cm at 1000 L/h. */
export function usualBypass(m: Medium, gap: number): Figure | null {
  try {
    const r = resistanceOf(m)
    const water = waterProperties({ temperature: 25 })
    const thickness = m.sheetThickness ?? 0.05
    const { share, through, past } = bypass(
      TRAY.flow,
      { thickness, area: TRAY.area, ...r },
      { gap, perimeter: TRAY.perimeter },
      { density: water.density, viscosity: water.kinematicViscosity * water.density },
    )
    return {
      id: `bypass-${m.id}-${gap}`,
      label: `Bypass at ${gap * 1000} mm`,
      value: share,
      dimension: 'ratio',
      unit: '%',
      provenance: 'computed',
      conditions: ['tray of 20 by 20 cm', '1000 L/h', `layer of ${thickness * 1000} mm`, '25 °C', 'clean'],
      formula: 'gap: Δp = 12 μ L v/g² + 1.5 ρ v²/2;  layer: Δp = L (μ v/k + ρ C v²);  the same Δp',
      working: [
        put('through', 'through the layer', through, 'flow', 'computed'),
        put('past', 'through the gap', past, 'flow', 'computed'),
      ],
      source: 'plane Poiseuille flow; Darcy–Forchheimer',
    }
  } catch {
    return null
  }
}

/** Surface per litre of bed by its size and shape, m²/L. */
export function surfaceFigure(m: Medium): Figure | null {
  const s = geometricSurface(m)
  if (s === null) return null
  const entered = m.geometricSurface !== null
  return {
    id: `surface-${m.id}`,
    label: 'Geometric surface, m² per litre',
    value: s / 1000,
    dimension: 'ratio',
    provenance: entered ? 'rule' : 'computed',
    ...(!entered && {
      formula: m.fibre ? '4 s/d_f' : '6 (1 − ε)/d',
      working: [
        ...(m.grain ? [put('d', 'grain', m.grain, 'length', 'rule')] : []),
        ...(m.voidage ? [put('ε', 'voidage', m.voidage, 'ratio', 'rule')] : []),
      ],
    }),
    source: entered ? 'as entered' : 'geometry',
  }
}
