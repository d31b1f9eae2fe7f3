import { figuresOf } from './blocks'
import type { Sheet } from './sheet'

/** What a review should have before it is published. */
export interface Ready {
  readonly id: 'title' | 'disclosure' | 'measured' | 'pictures'
  readonly asks: string
  readonly met: boolean
}

/**
 * The checklist of a draft, by its title and its sheet: titled, disclosed in full, something measured, a photo. A sheet
 * that was made before disclosure was asked is not disclosed.
 */
export const readiness = (title: string, sheet: Sheet): readonly Ready[] => [
  { id: 'title', asks: 'A title', met: title.trim() !== '' },
  { id: 'disclosure', asks: 'Every disclosure question answered', met: sheet.open?.length === 0 },
  {
    id: 'measured',
    asks: 'At least one measured value',
    met: [...figuresOf(sheet.sections).values()].some(({ figure }) => figure.provenance === 'measured'),
  },
  {
    id: 'pictures',
    asks: 'At least one photo',
    met: sheet.sections.some((s) => s.blocks.some((b) => b.kind === 'photos' && b.photos.length > 0)),
  },
]
