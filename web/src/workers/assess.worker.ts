import { assess, type JudgedBy, type ModelRecord } from '@ypsometer/core/judging'
import { expose } from 'comlink'

const work = {
  assess: (model: ModelRecord, by: JudgedBy) => assess(model, by),
}
export type AssessWork = typeof work
expose(work)
