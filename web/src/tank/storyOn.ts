import type { Story } from '@ypsometer/core/biology'
import type { JudgedFill, TankBalance } from '@ypsometer/core/judging'
import { STORY_KINDS, storyOf, USUAL_ASKS } from '@ypsometer/core/judging/stories'

/** What is told of a tank with a fill on it, first of all if nothing else is asked; null where nothing can be told. */
export const storyOn = (
  { keeping }: TankBalance,
  { films }: JudgedFill,
  kind = STORY_KINDS[0] as (typeof STORY_KINDS)[number],
  asks = USUAL_ASKS,
): Story | null => (films && keeping.feed > 0 ? storyOf(kind, keeping, films, asks) : null)
