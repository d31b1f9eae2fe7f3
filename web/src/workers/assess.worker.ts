import { assess, type JudgedBy } from '@ypsometer/core/judging/assess'
import type { ModelRecord } from '@ypsometer/core/trials/records'
import { expose } from 'comlink'

const work = {
  assess: (model: ModelRecord, by: JudgedBy) => assess(model, by),
}
export type AssessWork = typeof work
expose(work)
