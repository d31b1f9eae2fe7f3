import { tell, type Story } from '@ypsometer/core/biology'
import { claimChances } from '@ypsometer/core/judging/chances'
import { expose } from 'comlink'

const work = {
  tell: (story: Story) => tell(story),
  chances: (...asked: Parameters<typeof claimChances>) => claimChances(...asked),
}
export type LivingWork = typeof work
expose(work)
