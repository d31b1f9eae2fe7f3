import type { Decimal } from '../settings/settings'

/** Numbers of a text under a decimal sign. */
export const pointed = (text: string, decimal: Decimal): string =>
  decimal === '.' ? text : text.replace(/(\d)\.(?=\d)/g, '$1,')
