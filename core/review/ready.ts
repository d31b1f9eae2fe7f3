import { figuresOf } from './blocks'
import type { Sheet } from './sheet'

/** What a review should have before it is published. */
export interface Ready {
  readonly id: 'title' | 'disclosure' | 'measured' | 'pictures'
  readonly asks: string
  readonly met: boolean
}

/** Said in a disclosure of which something is still open. */
const OPEN = /not disclosed yet/i

/** The checklist of a draft, by its title and its sheet: titled, disclosed in full, something measured, a photo. */
export const readiness = (title: string, sheet: Sheet): readonly Ready[] => [
  { id: 'title', asks: 'A title', met: title.trim() !== '' },
  { id: 'disclosure', asks: 'Every disclosure question answered', met: !OPEN.test(sheet.disclosure) },
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
