import type { FillBasis, Measure } from '@ypsometer/core/fills/place'
import type { MediumForm, MediumJob } from '@ypsometer/core/media/medium'

export const BASIS_WORDS: Readonly<Record<FillBasis, string>> = {
  'as-shipped': 'Supplied',
  proposed: 'Recommended',
  variant: 'Variant',
}
export const BASIS_OPTIONS = Object.entries(BASIS_WORDS)

export const MEASURE_WORDS: Readonly<Record<Measure, string>> = {
  height: 'thickness',
  volume: 'litres',
  mass: 'kilograms',
  packs: 'packs or sheets',
}

export const JOB_WORDS: Readonly<Record<MediumJob, string>> = {
  coarse: 'mechanical, coarse',
  medium: 'mechanical, medium',
  fine: 'mechanical, fine',
  biological: 'bio',
  chemical: 'chemical',
}
export const JOB_OPTIONS = Object.entries(JOB_WORDS)

export const FORM_WORDS: Readonly<Record<MediumForm, string>> = {
  foam: 'foam',
  pad: 'pad',
  floss: 'floss',
  rings: 'rings',
  spheres: 'spheres',
  gravel: 'gravel',
  sintered: 'sintered',
  moving: 'moving',
  cartridge: 'cartridge',
  carbon: 'carbon',
  resin: 'resin',
  coral: 'coral',
  contactor: 'contactor wheel',
}
export const FORM_OPTIONS = Object.entries(FORM_WORDS)
