import { saidText, inline, type Figure, type Sentence } from '@ypsometer/core/figures/figure'
import type { SheetCell } from '@ypsometer/core/review/blocks'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'
import { pointed } from '../figures/pointed'
import type { Decimal } from '../settings/settings'

/** Whose units, and whose decimal sign. */
export interface Reader {
  readonly system: UnitSystem
  readonly decimal: Decimal
}

/** A number as a reader has it. */
export const figureText = (f: Figure, { system, decimal }: Reader): string =>
  pointed(saidText(inline(f), system), decimal)

/** A number in metric and in US units, where they differ. */
export function bothText(f: Figure, { decimal }: Pick<Reader, 'decimal'>): string {
  const [metric, us] = (['metric', 'us'] as const).map((system) => figureText(f, { system, decimal }))
  return metric === us ? (metric ?? '') : `${metric} (${us})`
}

export function cellText(cell: SheetCell, reader: Reader, both = false): string {
  if (cell === null) return '–'
  if (typeof cell === 'string') return pointed(cell, reader.decimal)
  return both ? bothText(cell, reader) : figureText(cell, reader)
}

export const sentenceIn = (s: Sentence, { system, decimal }: Reader): string =>
  s.map((p) => (typeof p === 'string' ? p : pointed(saidText(p, system), decimal))).join('')

/** A file’s name from anything: letters and digits only, and never empty. */
export const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'review'
