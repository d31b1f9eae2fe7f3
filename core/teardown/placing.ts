import { nameOf } from '../figures/figure'
import type { Reason } from '../figures/reason'
import type { LoggedPart } from './reach'

/** How a part goes back: which way, the mark that says so, whether it can go in wrong, and what follows if it does. */
export interface PlacedPart extends Pick<LoggedPart, 'id'> {
  readonly id: string
  readonly name: string
  readonly checklist: string
  readonly goesIn: string
  readonly mark: string
  /** Null: nobody has tried. */
  readonly canGoWrong: boolean | null
  readonly follows: string
}

/** A part that one can get wrong, and whether anything on it says how it goes. */
export interface WrongWay {
  readonly part: PlacedPart
  readonly marked: boolean
  readonly says: string
}

const ended = (s: string): string => (/[.!?]$/.test(s) ? s : `${s}.`)

/** How a part goes in, in one line: its way and its mark. */
export const placeWords = ({ name, goesIn, mark }: PlacedPart): string =>
  `${name}: ${goesIn.trim() || 'one way only'}${mark.trim() ? ` (${mark.trim()})` : ''}`

/** Mistakes one can make, unmarked parts first. */
export function wrongWays(parts: readonly PlacedPart[]): readonly WrongWay[] {
  const all = parts.flatMap((part): WrongWay[] => {
    if (!part.canGoWrong) return []
    const marked = part.mark.trim() !== ''
    const follows = part.follows.trim()
    return [
      {
        part,
        marked,
        says: `${placeWords(part)}. ${marked ? '' : 'Not marked. '}${follows ? `If wrong: ${ended(follows)}` : 'What happens if it is fitted wrong was not noted.'}`,
      },
    ]
  })
  return [...all.filter((w) => !w.marked), ...all.filter((w) => w.marked)]
}

/** Parts that only fit the way they belong. */
export const foolproof = (parts: readonly PlacedPart[]): readonly PlacedPart[] =>
  parts.filter((p) => p.canGoWrong === false && p.goesIn.trim() !== '')

/** Whom a filter suits by how its parts go back. */
export const HANDS_LEVELS = ['beginner', 'careful', 'practised', 'unknown'] as const
export type HandsLevel = (typeof HANDS_LEVELS)[number]

/**
 * Whom a filter suits: a beginner where no part can go in wrong; careful hands where every part that can has a mark;
 * practised hands where one can go in wrong and nothing says so. Common practice, no source: parts that go in one way
 * only decide whether a model suits a beginner. Unknown until a part was tried.
 */
export function suits(parts: readonly PlacedPart[]): {
  readonly level: HandsLevel
  readonly tried: number
  readonly of: number
  readonly reason: Reason
} {
  const tried = parts.filter((p) => p.canGoWrong !== null).length
  const wrong = wrongWays(parts)
  const blank = wrong.filter((w) => !w.marked)
  const names = (list: readonly WrongWay[]): string =>
    new Intl.ListFormat('en').format(list.map((w) => `the ${nameOf(w.part.name)}`))
  const rest = tried < parts.length ? ` Provisional: ${tried} of ${parts.length} parts checked.` : ''
  const say = (level: HandsLevel, tone: Reason['tone'], words: string) => ({
    level,
    tried,
    of: parts.length,
    reason: { id: 'hands', tone, sentence: [words] } satisfies Reason,
  })
  if (!tried) return say('unknown', 'note', 'Unknown whether it suits beginners: no part was checked yet.')
  if (!wrong.length)
    return say('beginner', 'for', `Suits beginners: none of the checked parts can be fitted wrong.${rest}`)
  if (!blank.length)
    return say(
      'careful',
      'note',
      `Some care needed: ${names(wrong)} can be fitted wrong, but ${wrong.length === 1 ? 'it is' : wrong.length === 2 ? 'both are' : 'all are'} marked.${rest}`,
    )
  return say(
    'practised',
    'caution',
    `Beginners will need help: ${blank.length > 3 ? `${blank.length} parts` : names(blank)} can be fitted wrong and ${blank.length === 1 ? 'is' : 'are'} not marked.${rest}`,
  )
}
