import {
  isLopsided,
  showPercent,
  showQuantity,
  showWithInterval,
  showWithUncertainty,
  trimZeros,
  type Dimension,
  type UnitSystem,
} from '../units'

/** Where a number came from. Shown with every number, by a mark and a word. */
export type Provenance = 'printed' | 'measured' | 'computed' | 'rule'

/** One symbol of a formula with the number that was put in. */
export interface WorkingLine {
  readonly symbol: string
  readonly label: string
  readonly value: number
  readonly dimension: Dimension
  readonly unit?: string
  readonly provenance?: Provenance
}

/** Doubt that figures share: its name, and a half-width (95 %) relative to the value, or in its own unit. */
export interface SharedDoubt {
  readonly what: string
  readonly relative?: number
  readonly half?: number
}

/** A number that can answer for itself: SI value, expanded uncertainty (95 %), origin, conditions and working. */
export interface Figure {
  readonly id: string
  readonly label: string
  readonly value: number
  readonly dimension: Dimension
  readonly provenance: Provenance
  readonly uncertainty?: number
  /** The 95 % interval, where its two halves differ; `uncertainty` is then the wider one. */
  readonly interval?: readonly [low: number, high: number]
  /** Parts of the uncertainty that other figures have too, wrong together: one meter, one vessel, one rule. */
  readonly shared?: readonly SharedDoubt[]
  readonly conditions?: readonly string[]
  readonly formula?: string
  /** Unit to show it in whatever the reader's system, as '%' for a share. */
  readonly unit?: string
  readonly working?: readonly WorkingLine[]
  readonly source?: string
  readonly when?: string
  /** What was taken as usual because nobody noted it, as “usual plumbing”; the number is marked wherever it stands. */
  readonly assumed?: string
}

/** A number inside a sentence, kept in SI so that each reader sees their own units. */
export interface InlineNumber {
  readonly si: number
  readonly dimension: Dimension
  readonly uncertainty?: number
  readonly interval?: readonly [low: number, high: number]
  readonly digits?: number
  readonly unit?: string
  /** The number with its origin and working, where the sentence has one to show. */
  readonly figure?: Figure
}

/** A figure as it is said in a sentence. */
export const inline = (figure: Figure, digits?: number): InlineNumber => ({
  si: figure.value,
  dimension: figure.dimension,
  ...(figure.uncertainty !== undefined && { uncertainty: figure.uncertainty }),
  ...(figure.interval && { interval: figure.interval }),
  ...(figure.unit && { unit: figure.unit }),
  ...(digits && { digits }),
  figure,
})

/** One number put into a formula. */
export const put = (
  symbol: string,
  label: string,
  value: number,
  dimension: Dimension = 'ratio',
  provenance?: Provenance,
): WorkingLine => ({ symbol, label, value, dimension, ...(provenance && { provenance }) })

/** Another figure put into a formula. */
export const putFigure = (symbol: string, f: Figure): WorkingLine => ({
  ...put(symbol, f.label.toLowerCase(), f.value, f.dimension, f.provenance),
  ...(f.unit && { unit: f.unit }),
})

/** A generated sentence: words and numbers. */
export type Sentence = readonly (string | InlineNumber)[]

/** The text of one number, with its unit; what it assumes stands behind it. */
export const saidText = (said: InlineNumber, system: UnitSystem): string =>
  `${numberText(said, system)}${said.figure?.assumed ? ' (assumed)' : ''}`

function numberText(said: InlineNumber, system: UnitSystem): string {
  if (said.unit === '%') return showPercent(said.si)
  if (said.interval && isLopsided(said.si, said.interval)) {
    const s = showWithInterval(said.si, said.interval, said.dimension, system, said.unit)
    return `${s.number} ${s.unit} (${s.low} to ${s.high})`
  }
  if (said.uncertainty) {
    const s = showWithUncertainty(said.si, said.uncertainty, said.dimension, system, said.unit)
    return `${s.number}${s.uncertainty ? ` ± ${s.uncertainty}` : ''} ${s.unit}`.trim()
  }
  const s = showQuantity(said.si, said.dimension, system, said.digits ?? 3, said.unit)
  return `${trimZeros(s.number)} ${s.unit}`.trim()
}

/** A sentence as plain text in a unit system. */
export const sentenceText = (sentence: Sentence, system: UnitSystem): string =>
  sentence.map((part) => (typeof part === 'string' ? part : saidText(part, system))).join('')

/** Words as they stand in the middle of a sentence. */
export const lowerFirst = (s: string): string => s.slice(0, 1).toLowerCase() + s.slice(1)
export const upperFirst = (s: string): string => s.slice(0, 1).toUpperCase() + s.slice(1)
/** A thing’s name at the head of a sentence: “The fine pad”, and its pores aside: “The coarse foam (10 ppi)”. */
export const the = (name: string): string => `The ${nameOf(name)}`
/** A thing’s name inside a sentence: “coarse foam (10 ppi)”; capitals within it stay. */
export const nameOf = (name: string): string => lowerFirst(name).replace(/^([^,]+), (.+)$/u, '$1 ($2)')
/** Is a name one of several things? “Ceramic rings”, “moving media”, “floss” is not. */
const isMany = (name: string): boolean => /(?:[^s]s|media)$/u.test(name.replace(/[,(].*$/u, '').trim())
/** A verb as it goes with a name: `agrees(name, 'clogs', 'clog')`. */
export const agrees = (name: string, one: string, many: string): string => (isMany(name) ? many : one)
