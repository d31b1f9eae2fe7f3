import { put, inline, type Figure, type Sentence } from '../figures'
import { uvDose, UV_CLASSES, type UvChamber } from '../media'
import { requirePositive } from '../errors'

/** Density times heat capacity of water, J/(m³ K), near 25 °C (CRC Handbook, from memory). */
const HEAT = 997 * 4182

/** Warming per pass (K) above which an inline heater runs short of water (common practice, no source). */
export const HEATER_LIMIT = 5
/** Relative half-width of that rule (common practice, no source). */
const HEATER_BAND = 0.3

/**
 * Warming by an inline heater at the real flow: ΔT = P/(ρ c Q). @throws OutOfRange for watts or flow not above zero.
 */
export function heaterCheck(
  watts: number,
  flow: number,
): {
  readonly rise: Figure
  readonly least: Figure
  readonly enough: boolean
  readonly sentences: readonly Sentence[]
} {
  requirePositive('watts', watts, 'W')
  requirePositive('flow', flow, 'm³/s')
  const k = watts / (HEAT * flow)
  const leastFlow = watts / (HEAT * HEATER_LIMIT)
  const rise: Figure = {
    id: 'heater-rise',
    label: 'Warming per pass, K',
    value: k,
    dimension: 'ratio',
    provenance: 'computed',
    formula: 'ΔT = P/(ρ c Q)',
    working: [
      put('P', 'heater', watts, 'power', 'printed'),
      put('Q', 'flow with this setup', flow, 'flow', 'computed'),
    ],
    source: 'heat balance of a steady stream',
  }
  const least: Figure = {
    id: 'heater-least',
    label: 'Minimum flow for the heater',
    value: leastFlow,
    uncertainty: HEATER_BAND * leastFlow,
    dimension: 'flow',
    provenance: 'rule',
    formula: 'Q = P/(ρ c · 5 K)',
    working: [put('P', 'heater', watts, 'power', 'printed')],
    source: 'common practice, no source',
  }
  return {
    rise,
    least,
    enough: flow >= leastFlow,
    sentences: [
      [
        'The heater warms the water by ',
        inline(rise, 2),
        ' K; below about ',
        inline(least),
        Math.abs(flow - leastFlow) <= HEATER_BAND * leastFlow
          ? ' it overheats. Borderline.'
          : ' it overheats.',
      ],
      ['Unplug the heater first, the filter a minute later. When you start again, plug in the filter first.'],
    ],
  }
}

/** Dose of a UV-C lamp at the real flow, beside what NSF/ANSI 55 asks of a whole unit. */
export function lampCheck(
  lamp: UvChamber,
  flow: number,
): { readonly dose: Figure; readonly least: Figure; readonly sentences: readonly Sentence[] } {
  const r = uvDose(lamp, flow)
  const common = {
    dimension: 'ratio',
    provenance: 'computed',
    working: [
      put('P', 'germicidal output, not lamp watts', lamp.output, 'power', 'printed'),
      put('a', 'left by ageing', lamp.ageing, 'ratio', 'rule'),
      put('s', 'let through by the sleeve', lamp.sleeve, 'ratio', 'rule'),
      put('UVT', 'left after 1 cm of water', lamp.transmittance, 'ratio', 'rule'),
      put('t', 'in the light', r.exposure, 'time', 'computed'),
      put('Q', 'flow with this setup', flow, 'flow', 'computed'),
    ],
    source: 'radial line source, after Blatchley 1997 (from memory)',
  } as const
  const dose: Figure = {
    ...common,
    id: 'uv-dose',
    label: 'Mean UV-C dose, mJ/cm²',
    value: r.dose / 10,
    formula: 'dose = E_mean · t;  E_mean = P a s (1 − e^(−α b))/(α b) ÷ wall',
  }
  const least: Figure = {
    ...common,
    id: 'uv-least',
    label: 'UV-C dose along the wall, mJ/cm²',
    value: r.least / 10,
    formula: 'dose = E(b) · t;  E(b) = P a s e^(−α (b − r_s)) ÷ (2π b ℓ)',
  }
  return {
    dose,
    least,
    sentences: [
      [
        'At this flow the mean dose is ',
        inline(dose, 2),
        ' mJ/cm², and ',
        inline(least, 2),
        ` along the wall. NSF/ANSI 55 asks ${UV_CLASSES.B / 10} (class B) and ${UV_CLASSES.A / 10} (class A; from memory), ` +
          'shown by a bioassay of the whole unit. A calculation is no class.',
      ],
      ['Never look at a lit lamp. Unplug before opening: a cracked sleeve puts mains voltage beside water.'],
    ],
  }
}
