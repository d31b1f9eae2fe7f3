import { requirePositive, requireRange } from '../errors'

/** A UV-C lamp in a sleeve in a chamber the water passes; lengths in m, output of germicidal light in W. */
export interface UvChamber {
  readonly output: number
  readonly lampLength: number
  readonly sleeveRadius: number
  readonly chamberRadius: number
  /** Share of its light the aged lamp still gives, and the sleeve lets through. */
  readonly ageing: number
  readonly sleeve: number
  /** Share of the light left after 1 cm of the water (UVT). */
  readonly transmittance: number
}

/** Doses (J/m²) that NSF/ANSI 55 asks of its classes: 16 and 40 mJ/cm² (from memory). */
export const UV_CLASSES = { B: 160, A: 400 } as const

/**
 * Mean dose and that of the least exposed stream, along the chamber's wall (J/m²); the seconds of exposure and the mean
 * irradiance (W/m²) they are made of. A class of NSF/ANSI 55 is found by a bioassay, never by this sum.
 */
export interface UvDose {
  readonly dose: number
  readonly exposure: number
  readonly irradiance: number
  readonly least: number
}

/**
 * Dose = mean irradiance × exposure at the real flow. The irradiance of a line source E(r) = P/(2π r ℓ) e^(−α (r −
 * r_s)) is averaged over the ring the water fills. Plug flow is assumed; a real chamber gives part of the water less
 * still than its wall stream.
 * Source: radial model, e.g. Blatchley, Water Research 31 (1997) 2205 (from memory); α = −ln UVT per cm.
 * @throws OutOfRange naming the field.
 */
export function uvDose(c: UvChamber, flow: number): UvDose {
  requirePositive('output', c.output, 'W')
  requirePositive('lampLength', c.lampLength, 'm')
  requirePositive('sleeveRadius', c.sleeveRadius, 'm')
  requireRange('chamberRadius', c.chamberRadius, { min: c.sleeveRadius * 1.001, max: 1, unit: 'm' })
  requireRange('ageing', c.ageing, { min: 0, max: 1 })
  requireRange('sleeve', c.sleeve, { min: 0, max: 1 })
  requireRange('transmittance', c.transmittance, { min: 0.01, max: 1 })
  requirePositive('flow', flow, 'm³/s')
  const alpha = -Math.log(c.transmittance) / 0.01
  const { sleeveRadius: a, chamberRadius: b } = c
  // ∫ E(r) 2πr dr over the ring, divided by the ring: the 1/r of the source cancels the r of the ring.
  const path = alpha > 1e-9 ? (1 - Math.exp(-alpha * (b - a))) / alpha : b - a
  const ring = Math.PI * (b * b - a * a)
  const irradiance = (c.output * c.ageing * c.sleeve * path) / (c.lampLength * ring)
  const exposure = (ring * c.lampLength) / flow
  const dose = irradiance * exposure
  return {
    dose,
    exposure,
    irradiance,
    least:
      ((c.output * c.ageing * c.sleeve * Math.exp(-alpha * (b - a))) / (2 * Math.PI * b * c.lampLength)) *
      exposure,
  }
}
