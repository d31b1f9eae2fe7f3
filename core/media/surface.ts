import type { Medium, MediumForm, MediumJob } from './medium'

/**
 * Usable surface of a kilogram of good sintered media (m²/kg), for which the rule of mass was made: 1100 m²/m³ at 480
 * kg/m³. Common practice, no source.
 */
export const SINTERED_SURFACE = 1100 / 480

/**
 * Media thrown away within so many days take their film with them; from the second number on it stays (common
 * practice: a film takes one to two months to come, and pads that outlive four months keep theirs; no source).
 */
const FILM_COMES = { from: 60, to: 120 } as const

/** Days after which each form is usually thrown away; null for what lasts (common practice, no source). */
const USUAL_LIFE: Partial<Readonly<Record<MediumForm, number>>> = {
  pad: 60,
  floss: 21,
  cartridge: 28,
  carbon: 52,
  resin: 45,
}

/** Effective surface of foam for its pores per inch (1/m), where none was entered (common practice, no source). */
const FOAM_SURFACE = 35
/** No more of a mat of fibres than this works (1/m): the rest lies too close (common practice, no source). */
const MAT_SURFACE = 1000

/** How well an effective surface is known where nobody measured it: relative half-width by form (no source). */
const SURFACE_BAND: Readonly<Record<MediumForm, number>> = {
  sintered: 0.3,
  spheres: 0.3,
  moving: 0.3,
  gravel: 0.4,
  rings: 0.4,
  coral: 0.4,
  foam: 0.4,
  pad: 0.5,
  floss: 0.5,
  cartridge: 0.5,
  carbon: 0.5,
  resin: 0.5,
  contactor: 0.5,
}
/** A surface that nobody entered is a guess (relative half-width). */
const GUESSED = 0.5

/**
 * Share of its surface that works between rinses, by what a layer is for: what strains lies under dirt part of its
 * time. Common practice, no source: coarse foam carries a reasonable share, more than ceramic rings of the same litres.
 */
const WORKING: Readonly<Record<MediumJob, { readonly share: number; readonly band: number }>> = {
  coarse: { share: 0.75, band: 0.3 },
  medium: { share: 0.5, band: 0.4 },
  fine: { share: 0.3, band: 0.5 },
  biological: { share: 1, band: 0 },
  chemical: { share: 0.3, band: 0.5 },
}

/** The surface on which a medium carries film. */
export interface FilmSurface {
  /** Effective area for each m³ of clean bed (1/m): effective surface · share of the film that is kept. */
  readonly perVolume: number
  /** Share of it that works between rinses. */
  readonly working: number
  /** Relative half-width (95 %) of their product, and of each. */
  readonly band: number
  readonly bands: { readonly surface: number; readonly working: number }
}

type Surfaced = Pick<
  Medium,
  | 'form'
  | 'job'
  | 'lifeDays'
  | 'effectiveSurface'
  | 'surfaceBand'
  | 'workingShare'
  | 'workingBand'
  | 'bulkDensity'
  | 'poresPerInch'
  | 'fibre'
  | 'solidity'
>

/** Effective surface of a medium (1/m): as entered, else by its form. */
function effectiveOf(m: Surfaced): number {
  if (m.effectiveSurface !== null) return m.effectiveSurface
  if (m.job === 'biological') return m.bulkDensity * SINTERED_SURFACE
  if (m.form === 'foam') return (m.poresPerInch ?? 0) * FOAM_SURFACE
  if (m.fibre !== null && m.solidity !== null) return Math.min(MAT_SURFACE, (4 * m.solidity) / m.fibre)
  return 0
}

/** Share of a film that is there on the average of a medium’s life: none within two months, all after four. */
export function keptShare({ form, lifeDays }: Pick<Medium, 'form' | 'lifeDays'>): number {
  const life = lifeDays ?? USUAL_LIFE[form] ?? Infinity
  return Math.min(1, Math.max(0, (life - FILM_COMES.from) / (FILM_COMES.to - FILM_COMES.from)))
}

/**
 * Area of film that a medium carries for each m³ of bed, with its doubt. A turning wheel carries none: it will stop one
 * day. Pores that a biofilm closes are no part of an effective surface.
 */
export function filmSurface(m: Surfaced): FilmSurface {
  if (m.form === 'contactor') return { perVolume: 0, working: 0, band: 0, bands: { surface: 0, working: 0 } }
  const working = WORKING[m.job]
  const bands = {
    surface: m.surfaceBand ?? Math.max(SURFACE_BAND[m.form], m.effectiveSurface === null ? GUESSED : 0),
    working: m.workingBand ?? working.band,
  }
  return {
    perVolume: effectiveOf(m) * keptShare(m),
    working: m.workingShare ?? working.share,
    band: Math.hypot(bands.surface, bands.working),
    bands,
  }
}

/** Pieces of media whose sizes nobody entered: good sintered ones (m, voidage). Common practice, no source. */
export const USUAL_PIECES = { d: 0.015, voidage: 0.45 } as const
/** Share of a foam that is water (its makers’ usual figure; no source). */
const FOAM_VOIDAGE = 0.97

/** Pieces water passes in a bed: the sphere d (m) of equal volume to surface, 6 (1 − ε)/a, and the voidage ε. */
export function piecesOf(
  m: Pick<
    Medium,
    | 'form'
    | 'grain'
    | 'voidage'
    | 'solidity'
    | 'fibre'
    | 'geometricSurface'
    | 'effectiveSurface'
    | 'poresPerInch'
  >,
): { readonly d: number; readonly voidage: number } {
  const voidage =
    m.voidage ??
    (m.solidity !== null ? 1 - m.solidity : m.form === 'foam' ? FOAM_VOIDAGE : USUAL_PIECES.voidage)
  if (m.grain !== null) return { d: m.grain, voidage }
  if (m.fibre !== null) return { d: 1.5 * m.fibre, voidage }
  const surface =
    m.geometricSurface ??
    (m.form === 'foam' && m.poresPerInch !== null ? m.poresPerInch * FOAM_SURFACE : null)
  return { d: surface ? (6 * (1 - voidage)) / surface : USUAL_PIECES.d, voidage }
}
