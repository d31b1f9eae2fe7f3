import { saidText, inline, type Figure } from '../figures'
import { figuresOf } from './blocks'
import type { Sheet } from './sheet'

/** A number that was said and is another today, or is not there on one of the two days. */
export interface Moved {
  readonly id: string
  readonly label: string
  readonly section: string
  readonly then: Figure | null
  readonly now: Figure | null
}

/**
 * Numbers that moved since a sheet was made: those that would read otherwise today. Two that are shown by the same text
 * have not moved; nobody would see it.
 */
export function movedSince(then: Pick<Sheet, 'sections'>, now: Pick<Sheet, 'sections'>): readonly Moved[] {
  const [a, b] = [figuresOf(then.sections), figuresOf(now.sections)]
  return [...new Set([...a.keys(), ...b.keys()])].flatMap((id): Moved[] => {
    const [was, is] = [a.get(id), b.get(id)]
    const any = was ?? is
    if (!any) return []
    if (was && is && read(was.figure) === read(is.figure)) return []
    return [
      {
        id,
        label: any.figure.label,
        section: any.section,
        then: was?.figure ?? null,
        now: is?.figure ?? null,
      },
    ]
  })
}

const read = (f: Figure): string => saidText(inline(f), 'metric')
