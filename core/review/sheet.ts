import { atLength, type Length, type Section } from './blocks'
import { disclosureWords, isBeholden, undisclosed, type Disclosed } from './disclosure'
import type { ReviewInput } from './input'
import { claimsSection, flowSection, tanksSection, verdictSection } from './findings'
import { fillsSection, insideSection, pathSection, stripSection } from './inside'
import { cautionsSection, costSection, livingSection, upkeepSection, visitsSection } from './living'

/** Version of this core, as a review names it. */
export const CORE_VERSION = '0.1.0'
/** Version of what a snapshot holds; one that was made by another is still read. */
export const SHEET_VERSION = 1

/** A review’s results on one day, in the reader’s order: numbers and sentences, nothing left to be worked out. */
export interface Sheet {
  readonly version: typeof SHEET_VERSION
  readonly on: string
  readonly maker: string
  readonly name: string
  readonly kind: string
  readonly house: string
  /** Stands on every length. */
  readonly disclosure: string
  /** What the disclosure leaves open; absent in sheets that were made before it was asked. */
  readonly open?: readonly (Disclosed | 'obtained')[]
  readonly beholden: boolean
  readonly sections: readonly Section[]
}

/** The reader’s order. */
const SECTIONS = [
  verdictSection,
  tanksSection,
  claimsSection,
  flowSection,
  insideSection,
  fillsSection,
  pathSection,
  stripSection,
  livingSection,
  costSection,
  upkeepSection,
  cautionsSection,
  visitsSection,
] as const

/** Works a sheet out. What nobody has measured is left out of it, section by section. */
export function sheetOf(input: ReviewInput): Sheet {
  return {
    version: SHEET_VERSION,
    on: input.on,
    maker: input.maker,
    name: input.name,
    kind: input.kind,
    house: input.house.name,
    disclosure: disclosureWords(input),
    open: undisclosed(input),
    beholden: isBeholden(input),
    sections: atLength(
      SECTIONS.map((make) => make(input)),
      'whole',
    ),
  }
}

/** A sheet at a length. */
export const shortened = (sheet: Sheet, length: Length): Sheet => ({
  ...sheet,
  sections: atLength(sheet.sections, length),
})
